import { performance } from 'node:perf_hooks';
import { findTurn, type MarkLayout, type TurnOfPhoto } from '../../src/core';
import { photograph, type Photo } from '../../src/standins/camera/draw';
import { CAMERA_RANGES, type CameraRangeName } from '../../src/standins/camera/ranges';
import { sceneOf, type Scene } from '../../src/standins/camera/scene';
import { boundsOfShare } from './shares';

const LAYOUTS: readonly MarkLayout[] = ['six', 'threeNine', 'twelve', 'fiveSixSeven'];
/** Pictures that nobody has looked at while the finder was written begin here. */
const UNSEEN = 1_000_000;
/** From here on a reading is wrong, degrees. */
const WRONG = 5;

interface Read {
  readonly scene: Scene;
  readonly found: TurnOfPhoto;
}

/** One blur and one gradient over a picture: what reading it is measured against, ms. */
function onePass({ width, height, rgb }: Photo): number {
  const began = performance.now();
  const grey = new Float32Array(width * height);
  for (let i = 0; i < grey.length; i++) grey[i] = rgb[i * 3] ?? 0;
  const soft = new Float32Array(grey.length);
  const kernel = [1, 4, 6, 4, 1];
  for (const step of [1, width])
    for (let i = 0; i < grey.length; i++) {
      let sum = 0;
      for (let k = -2; k <= 2; k++) sum += (kernel[k + 2] ?? 0) * ((step === 1 ? grey : soft)[i + k * step] ?? 0);
      soft[i] = sum / 16;
    }
  let total = 0;
  for (let i = 0; i < soft.length - width; i++) total += Math.hypot((soft[i + 1] ?? 0) - (soft[i] ?? 0), (soft[i + width] ?? 0) - (soft[i] ?? 0));
  return total < 0 ? 0 : performance.now() - began;
}

const degrees = (value: number | undefined): string => (value === undefined ? '   –' : value.toFixed(2).padStart(5));
const percent = (share: number): string => `${(share * 100).toFixed(1)} %`.padStart(7);

/** A lens that must not be read: no mark, or the picture turned round. */
const mustAbstain = ({ lens, mirrored }: Scene): boolean => lens.layout === 'none' || mirrored;

function line(name: string, reads: readonly Read[]): string {
  const able = reads.filter((r) => !mustAbstain(r.scene));
  const said = reads.flatMap(({ scene, found }) => (found.ok ? [{ scene, off: Math.abs(found.rotationLeft - scene.lens.rotationLeft) }] : []));
  const right = said
    .filter((s) => !mustAbstain(s.scene))
    .map((s) => s.off)
    .sort((a, b) => a - b);
  // Whatever is said of a picture that must not be read is wrong.
  const wrong = said.filter((s) => mustAbstain(s.scene) || s.off > WRONG).length;
  const silent = able.filter((r) => !r.found.ok).length;
  const at = (share: number): number | undefined => right[Math.min(right.length - 1, Math.floor(share * right.length))];
  return `  ${name.padEnd(22)} ${String(reads.length).padStart(5)}   ${degrees(at(0.5))}°  ${degrees(at(0.95))}°   ${percent(wrong / reads.length)} (≤ ${percent(boundsOfShare(wrong, reads.length)[1]).trim()})   ${percent(silent / Math.max(1, able.length))}`;
}

/** How well the turn is read from pictures of the simulated camera, by range and layout. @param count pictures of each range and layout */
export function benchPhoto(count: number): void {
  console.log(`\nRotation from photographs: ${count} unseen pictures of each range and layout, line of the canthi given`);
  console.log(`  ${''.padEnd(22)} pictures  median   95 %    wrong, unsaid          abstains`);
  let [reading, pass] = [0, 0];
  for (const name of Object.keys(CAMERA_RANGES) as CameraRangeName[]) {
    const all: Read[] = [];
    for (const layout of LAYOUTS) {
      const reads: Read[] = [];
      for (let i = 0; i < count; i++) {
        const scene = sceneOf(CAMERA_RANGES[name], layout, UNSEEN + i);
        const photo = photograph(scene);
        const began = performance.now();
        const found = findTurn(photo, { eye: scene.eye, layout, spacing: scene.lens.spacing, roll: scene.roll });
        reading += performance.now() - began;
        pass += onePass(photo);
        reads.push({ scene, found });
      }
      console.log(line(`${name} ${layout}`, reads));
      all.push(...reads);
    }
    console.log(line(`${name}, all`, all));
  }
  console.log(`  reading takes ${(reading / pass).toFixed(1)} × one blur and gradient over the same pictures`);
}
