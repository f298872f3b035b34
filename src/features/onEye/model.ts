import {
  formatRefraction,
  eyeVerdict,
  nearestLenses,
  parseRefraction,
  parseRotation,
  powerOf,
  type Eye,
  type EyeState,
  type EyeVerdict,
  type NearestLens,
  type Refraction,
} from '@/core';
import type { VisitRecord } from '@/services/visitRecord';

type Body = Readonly<Record<string, string>>;
type Lens = VisitRecord['lenses'][string];
type Family = VisitRecord['families'][number];

/** One eye on this screen: what is recorded, with what is being typed on top. */
export interface LiveEye {
  readonly state: EyeState;
  readonly lens: Lens | null;
  readonly family: Family | null;
  /** Degrees shown on the drawing. */
  readonly turn: number;
  readonly turnKnown: boolean;
  readonly verdict: EyeVerdict;
  /** Best makeable lens of the same family for what is to be ordered; null while nothing can be offered. */
  readonly made: NearestLens | null;
}

export function liveEye(record: VisitRecord, state: EyeState, eye: Eye, body: Body, vertexMm: number): LiveEye {
  const lensId = state.onEye?.current.lensId ?? null;
  const lens = lensId === null ? null : (record.lenses[lensId] ?? null);
  const family = lens ? (record.families.find((f) => f.code === lens.familyCode) ?? null) : null;
  const typedTurn = parseRotation(body[`${eye}Turn`] ?? '');
  const typedOver = parseRefraction(body[eye] ?? '');
  const recordedTurn = state.rotation?.current.rotationLeftDeg ?? null;
  const turn = typedTurn.ok ? typedTurn.value : recordedTurn;
  const recordedOver = state.overRefraction?.current ?? null;
  const over = typedOver.ok ? { power: typedOver.value, vertexMm } : recordedOver && { power: powerOf(recordedOver), vertexMm: recordedOver.vertexMm };
  const power: Refraction | null = lens && state.confirmed ? { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg } : null;
  const verdict = eyeVerdict({
    refraction: state.refraction && { power: powerOf(state.refraction.current), vertexMm: state.refraction.current.vertexMm },
    lens: power,
    rotationLeft: turn,
    overRefraction: over,
    readerNoise: record.house.settings.readerNoiseDegrees,
  });
  const made = verdict.order && family ? (nearestLenses(verdict.order, family, { limit: 1, cylinderCap: record.house.settings.cylinderCap })[0] ?? null) : null;
  return { state, lens, family, turn: turn ?? 0, turnKnown: turn !== null, verdict, made };
}

/** `10l`, `5r`, `0`: a turn as the field takes it. */
export const turnText = (rotationLeft: number): string => (rotationLeft === 0 ? '0' : rotationLeft > 0 ? `${rotationLeft}l` : `${-rotationLeft}r`);

/** Has anything been typed for an eye that is not recorded yet? */
export const hasReading = (body: Body, eye: Eye): boolean => ['Turn', 'Fit', ''].some((part) => (body[`${eye}${part}`] ?? '').trim() !== '');

export interface Note {
  readonly code: 'measureAgain' | 'other' | 'same';
  readonly state: 'ok' | 'stop' | null;
  readonly power: string;
  /** The axis ordered allows for a turn. */
  readonly turned: boolean;
}

/** What the readings come to for one eye, in one line; null while they say nothing. */
export function noteOf(live: LiveEye): Note | null {
  const { verdict, made, lens, turn } = live;
  if (verdict.routes && !verdict.routes.agree) return { code: 'measureAgain', state: 'stop', power: '', turned: false };
  if (!verdict.order || !lens || !made) return null;
  const power = formatRefraction(made.power);
  const same = made.power.axis === lens.axisDeg && made.power.sphere === lens.sphereD && made.power.cylinder === lens.cylinderD;
  return same ? { code: 'same', state: 'ok', power, turned: false } : { code: 'other', state: null, power, turned: turn !== 0 };
}
