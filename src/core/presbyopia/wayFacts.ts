import type { HealthState } from '../advice/healthState';
import type { EyeState } from '../fit/eyeState';
import { toPowerVector } from '../optics/powerVector';
import { EYES, type Dioptres, type Eye } from '../units';
import type { NearState } from './nearFindings';
import type { WayFacts } from './nearWays';

/** Lines between the eyes from which one counts as weak, logMAR. Two lines are 0.15 here: 20/20 to 20/30 is 0.176. Our own. */
const WEAK = 0.15;

const bestOf = ({ acuities }: EyeState): number | null => {
  const read = [acuities.glasses, acuities.pinhole, acuities.over, acuities.lens].filter((a) => a !== null);
  return read.length === 0 ? null : Math.min(...read);
};

/** What decides how near is served, from what is recorded. @param add near addition, D; null while none is known */
export function wayFactsOf(near: NearState, eyes: Readonly<Record<Eye, EyeState>>, health: HealthState, add: Dioptres | null): WayFacts {
  const cylinder = (eye: Eye): Dioptres | null => {
    const need = eyes[eye].verdict.need ?? eyes[eye].verdict.fromRefraction;
    if (!need) return null;
    const { j0, j45 } = toPowerVector(need);
    return 2 * Math.hypot(j0, j45);
  };
  const pupil = (sign: 'pupilRoom' | 'pupilDim'): number | null => {
    const sizes = EYES.flatMap((eye) => {
      const value = health.findings[eye][sign];
      return typeof value === 'number' ? [value] : [];
    });
    return sizes.length === 0 ? null : sizes.reduce((a, b) => a + b, 0) / sizes.length;
  };
  const said = (question: keyof HealthState['said'], word: string): boolean => {
    const value = health.said[question]?.value;
    return Array.isArray(value) ? (value as readonly unknown[]).includes(word) : value === word;
  };
  const best = { right: bestOf(eyes.right), left: bestOf(eyes.left) };
  const apart = best.right === null || best.left === null ? 0 : best.right - best.left;
  return {
    near,
    add,
    cylinder: { right: cylinder('right'), left: cylinder('left') },
    pupilRoomMm: pupil('pupilRoom'),
    pupilDimMm: pupil('pupilDim'),
    flies: said('work', 'aviation'),
    drivesForLiving: said('work', 'driving'),
    onlyGoodEye: said('eyeHistory', 'onlyGoodEye'),
    weakEye: Math.abs(apart) < WEAK ? null : apart > 0 ? 'right' : 'left',
    surgery: said('eyeHistory', 'surgery'),
    dry: ['evening', 'mostOfDay', 'severe'].some((word) => said('dryness', word)),
  };
}
