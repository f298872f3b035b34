import {
  addToRecord,
  demandOf,
  EYES,
  largeChange,
  parseAdd,
  powerOf,
  probablySwapped,
  ruleOfThumb,
  sphericalEquivalent,
  splitPrism,
  toPowerVector,
  USUAL_NEAR_CM,
  type AddByAge,
  type Eye,
  type Refraction,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';
import type { DraftOf } from '../../shell/draftKeys';

/** View logic of the Power step, without React. */
type Body = DraftOf<'refraction'>;
type PerEye<T> = Readonly<Record<Eye, T>>;

/** A power cross in its three parts, as one line that the reader takes; empty while nothing is typed. */
export function crossText(first: string, at: string, second: string): string {
  if ([first, at, second].every((part) => part.trim() === '')) return '';
  const other = otherMeridian(at);
  return `${first.trim()} @ ${at.trim()} / ${second.trim()} @ ${other ?? ''}`;
}

/** The meridian across another, 1 to 180; null while that is none. */
export function otherMeridian(at: string): number | null {
  const along = Number(at.trim());
  if (!/^\d{1,3}$/.test(at.trim()) || along > 180) return null;
  return along === 0 ? 90 : along > 90 ? along - 90 : along + 90;
}

/** What the rule of thumb makes of a spectacle power, meridian by meridian; null where it has nothing to say. */
export function thumbOf(power: Refraction): Refraction | null {
  const along = ruleOfThumb(power.sphere);
  const across = ruleOfThumb(power.sphere + power.cylinder);
  if (along === null && across === null) return null;
  const sphere = along ?? power.sphere;
  return { sphere, cylinder: (across ?? power.sphere + power.cylinder) - sphere, axis: power.axis };
}

/** The spherical equivalent of a need, and what a sphere of that power leaves. */
export function asSphere(need: Refraction): { readonly sphere: number; readonly cylinder: number; readonly blur: number } {
  const { j0, j45 } = toPowerVector(need);
  return { sphere: sphericalEquivalent(need), cylinder: Math.abs(need.cylinder), blur: Math.hypot(j0, j45) };
}

export type AddSource = 'measured' | 'age';
/** The near additions that would be recorded, from what is typed or the estimate accepted for the near distance. */
export function addsTyped(
  body: Body,
  age: number,
  by: AddByAge = 'tradeTable',
  nearCm: number | null = null,
): { readonly text: PerEye<string>; readonly value: PerEye<number | null>; readonly source: AddSource } {
  const estimate = body.addFromAge === 'yes' ? addToRecord(age, by, demandOf(nearCm ?? USUAL_NEAR_CM)) : null;
  const of = (eye: Eye): string => (estimate === null ? (body[`${eye}Add`] ?? '') : `+${estimate.toFixed(2)}`);
  const text = { right: of('right'), left: of('left') };
  const read = (eye: Eye): number | null => {
    const add = parseAdd(text[eye]);
    return add.ok ? add.value : null;
  };
  return { text, value: { right: read('right'), left: read('left') }, source: estimate === null ? 'measured' : 'age' };
}

export interface Doubts {
  readonly swapped: boolean;
  readonly changed: readonly { readonly eye: Eye; readonly change: number }[];
  readonly prism: readonly { readonly eye: Eye; readonly prism: string }[];
  /** Nearsighted and near forty: more focusing in lenses. */
  readonly nearForty: boolean;
}

/** What is worth asking about the powers as they stand, typed or recorded. */
export function doubtsOf(
  record: Pick<VisitRecord, 'earlierRefractions' | 'wearer'>,
  now: PerEye<Refraction | null>,
  texts: PerEye<string>,
  recordedPrism: PerEye<string | null>,
): Doubts {
  const before = (eye: Eye): Refraction | null => {
    const found = record.earlierRefractions.find((r) => r.eye === eye);
    return found ? powerOf(found) : null;
  };
  const last = { right: before('right'), left: before('left') };
  const swapped = probablySwapped(now, last);
  return {
    swapped,
    changed: EYES.flatMap((eye) => {
      const change = now[eye] && last[eye] ? largeChange(now[eye], last[eye]) : null;
      return change === null || swapped ? [] : [{ eye, change }];
    }),
    prism: EYES.flatMap((eye) => {
      const prism = texts[eye].trim() === '' ? recordedPrism[eye] : splitPrism(texts[eye]).prism;
      return prism ? [{ eye, prism }] : [];
    }),
    nearForty: record.wearer.age >= 37 && record.wearer.age <= 45 && EYES.some((e) => (now[e] ? sphericalEquivalent(now[e]) <= -1 : false)),
  };
}
