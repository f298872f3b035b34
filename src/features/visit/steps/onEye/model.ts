import {
  eyeVerdict,
  expectedLoss,
  FIT_WORDS,
  formatRefraction,
  gainsLineOf,
  judgeFit,
  lensForTurn,
  lensToOrder,
  lensSign,
  parseAcuity,
  parseRefraction,
  OVER_CONTROLS,
  parseRotation,
  PLUS_HALF,
  powerOf,
  READ_HOW,
  readingsWanted,
  saysSide,
  seriesStats,
  turnWhen,
  type Eye,
  type EyeAcuities,
  type EyeState,
  type EyeVerdict,
  type FitVerdict,
  type LensFindings,
  type LensSignId,
  type NamedLens,
  type OnEyeLens,
  type OverControl,
  type PhotoLid,
  type PlusHalf,
  type PracticeSettings,
  type ReadHow,
  type ReadOn,
  type Refraction,
  type SeriesStats,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';
import type { InstrumentRow } from '@/core';
import type { DraftOf } from '../../shell/draftKeys';

export type Body = DraftOf<'onEye'>;
export type Lens = VisitRecord['lenses'][string];
type Family = VisitRecord['families'][number];

/** One blink that was read and is not recorded yet. */
export interface Blink {
  readonly rotationLeft: number;
  readonly how: ReadHow;
  readonly scaleReading: number | null;
  readonly instrumentId: string | null;
  /** The picture it was read off, and what else is kept of that; null for any other reading. */
  readonly photo: PhotoOfBlink | null;
}
export interface PhotoOfBlink {
  readonly pictureId: string;
  readonly rollDeg: number;
  readonly lid: PhotoLid;
  readonly foundDeg: number | null;
}

const photoText = (photo: PhotoOfBlink | null): readonly (string | number)[] =>
  photo ? [photo.pictureId, photo.rollDeg, photo.lid, photo.foundDeg ?? ''] : [];
/** Blinks as a draft keeps them: one text, so that nothing is lost with the server away. */
export const writeBlinks = (blinks: readonly Blink[]): string =>
  blinks.map((b) => [b.rotationLeft, b.how, b.scaleReading ?? '', b.instrumentId ?? '', ...photoText(b.photo)].join(':')).join(' ');
export function readBlinks(text: string | undefined): Blink[] {
  return (text ?? '').split(' ').flatMap((part) => {
    const [turn, how, scale, instrument, picture, roll, lid, found] = part.split(':');
    const rotationLeft = Number(turn);
    const known = READ_HOW.find((h) => h === how);
    if (!turn || !known || !Number.isInteger(rotationLeft)) return [];
    const photo = picture
      ? { pictureId: picture, rollDeg: Number(roll), lid: lid === 'held' ? ('held' as const) : ('free' as const), foundDeg: found ? Number(found) : null }
      : null;
    if ((known === 'photo') !== (photo !== null)) return [];
    return [{ rotationLeft, how: known, scaleReading: scale ? Number(scale) : null, instrumentId: instrument ? instrument : null, photo }];
  });
}

/** The blink that is typed, dragged or nudged and not logged yet; null when there is none, or it cannot be read. */
export function pendingBlink(body: Body, eye: Eye, instrument: InstrumentRow | null, on: ReadOn | null): Blink | null {
  const text = body[`${eye}Turn`] ?? '';
  const read = parseRotation(text, on);
  if (!read.ok) return null;
  const offScale = on !== null && instrument !== null && !saysSide(text);
  const hand = READ_HOW.find((h) => h === body[`${eye}How`]) ?? 'typed';
  return offScale && hand === 'typed'
    ? { rotationLeft: read.value, how: 'scale', scaleReading: Number(text.trim()), instrumentId: instrument.id, photo: null }
    : { rotationLeft: read.value, how: hand, scaleReading: null, instrumentId: null, photo: null };
}

/** The key under which a draft keeps a finding. */
export const findingKey = (eye: Eye, sign: LensSignId) => `${eye}F_${sign}` as const;
const FINDING = /^(right|left)F_(.+)$/;

export interface TypedFinding {
  readonly sign: LensSignId;
  readonly text: string;
  readonly value: number | string | null;
}
/** Findings typed for an eye; `value` null where the text cannot be read. */
export function typedFindings(body: Body, eye: Eye, notation: PracticeSettings['acuity']): TypedFinding[] {
  return Object.entries(body).flatMap(([key, text]): TypedFinding[] => {
    const found = FINDING.exec(key);
    const sign = found?.[1] === eye ? lensSign(found[2] ?? '') : undefined;
    if (!sign || text.trim() === '') return [];
    if (sign.kind === 'word') return [{ sign: sign.id, text, value: text }];
    if (sign.unit === 'logMAR') {
      const read = parseAcuity(text, notation);
      return [{ sign: sign.id, text, value: read.ok ? read.value : null }];
    }
    const value = Number(text.trim().replace(',', '.').replace(/^[−–]/, '-'));
    return [{ sign: sign.id, text, value: Number.isFinite(value) ? value : null }];
  });
}

/** One eye on this screen: what is recorded, with what is being typed on top. */
export interface LiveEye {
  readonly state: EyeState;
  readonly lens: Lens | null;
  readonly family: Family | null;
  /** Blinks of the series as it would be recorded now. */
  readonly blinks: readonly number[];
  /** Blinks logged and not recorded. */
  readonly logged: readonly Blink[];
  readonly pending: Blink | null;
  /** New blinks go on with the last series. */
  readonly continues: boolean;
  /** Degrees shown on the drawing: the blink in hand, else the last one. */
  readonly turn: number;
  readonly turnKnown: boolean;
  readonly stats: SeriesStats | null;
  readonly verdict: EyeVerdict;
  /** The lens to order from the same family and curve; null while nothing can be offered. */
  readonly made: OnEyeLens | null;
  readonly over: { readonly power: Refraction; readonly vertexMm: number } | null;
  /** How the lens sat when the over-refraction was taken; as it sits now for one that is being typed. */
  readonly overTurn: number | null;
  /** Blinks asked for before the series speaks. */
  readonly wanted: number;
  readonly findings: LensFindings;
  readonly fitVerdict: FitVerdict;
  /** The fitter's word on the fit, typed or recorded; where none was given, what the signs say. */
  readonly fitSaid: FitVerdict['verdict'];
  readonly acuities: EyeAcuities;
}

export interface LiveInput {
  readonly record: VisitRecord;
  readonly state: EyeState;
  readonly eye: Eye;
  readonly body: Body;
  readonly vertexMm: number;
  readonly instrument: InstrumentRow | null;
  readonly lensOf: (id: string) => NamedLens | undefined;
  /** Has the lens on this eye not settled yet? */
  readonly early: boolean;
}

/** Cylinder of what the eye asks, else of the lens on it, D: by it a series of blinks is judged. */
export const cylinderOf = (state: EyeState, lens: Refraction | null): number => state.verdict.need?.cylinder ?? lens?.cylinder ?? 0;
/** How accommodation was relaxed for the over-refraction that is typed. */
export const controlOf = (body: Body, eye: Eye): OverControl => OVER_CONTROLS.find((c) => c === body[`${eye}Control`]) ?? 'none';
/** Was cylinder looked for in the over-refraction that is typed? */
export const testedOf = (body: Body, eye: Eye): boolean => body[`${eye}Tested`] === 'yes';
/** How the first +0.50 looked. */
export const plusHalfOf = (body: Body, eye: Eye): PlusHalf | null => PLUS_HALF.find((w) => w === body[`${eye}Plus`]) ?? null;

/** How a bare number is read for this lens. */
export const readOn = (instrument: InstrumentRow | null, lens: Lens | null): ReadOn | null =>
  instrument && lens ? { scale: { zero: instrument.zero, grows: instrument.grows }, marks: lens.markLayout } : null;

/** Blinks of the series as it would be recorded now. */
function liveBlinks({ record, state, eye, body, instrument, early }: LiveInput, lens: Lens | null, known: Refraction | null) {
  const { settings } = record.session;
  const logged = readBlinks(body[`${eye}Blinks`]);
  const pending = pendingBlink(body, eye, instrument, readOn(instrument, lens));
  const continues =
    body[`${eye}Fresh`] !== 'yes' &&
    state.series.length < readingsWanted(state.turn, cylinderOf(state, known), settings) &&
    state.series.every((c) => c.current.provisional === early) &&
    state.series.length > 0;
  const recorded = state.series.map((c) => c.current.rotationLeftDeg);
  const fresh = [...logged, ...(pending ? [pending] : [])].map((b) => b.rotationLeft);
  const blinks = fresh.length === 0 ? recorded : continues ? [...recorded, ...fresh] : fresh;
  const stats = blinks.length === 0 ? null : seriesStats(blinks, settings.readerNoiseDegrees);
  return { logged, pending, continues, blinks, stats, provisional: fresh.length > 0 ? early : state.series.some((c) => c.current.provisional) };
}

/** The over-refraction that counts now, typed or recorded, and the acuity read through it. */
function liveOver({ record, state, eye, body, vertexMm }: LiveInput, turnNow: number | null) {
  const typed = parseRefraction(body[eye] ?? '');
  const recorded = state.overRefraction?.current ?? null;
  const va = parseAcuity(body[`${eye}OverVa`] ?? '', record.session.settings.acuity);
  const before = typed.ok && state.overRefraction ? [...state.overBefore, state.overRefraction] : state.overBefore;
  return {
    over: typed.ok ? { power: typed.value, vertexMm } : recorded && { power: powerOf(recorded), vertexMm: recorded.vertexMm },
    overTurn: (typed.ok ? null : state.overTurn) ?? turnNow,
    acuity: va.ok ? va.value : typed.ok ? null : state.acuities.over,
    control: typed.ok ? controlOf(body, eye) : (recorded?.control ?? 'none'),
    cylinderTested: typed.ok ? testedOf(body, eye) : (recorded?.cylinderTested ?? false),
    before: before.map((c) => ({
      power: powerOf(c.current),
      vertexMm: c.current.vertexMm,
      turn: turnWhen(record.facts.rotations, c.current.lensOnEyeId, c.current.recordedAt),
    })),
  };
}

/** One eye as it stands on this screen. */
export function liveEye(input: LiveInput): LiveEye {
  const { record, state, eye, body, lensOf } = input;
  const { settings } = record.session;
  const lensId = state.onEye?.current.lensId ?? null;
  const lens = lensId === null ? null : (record.lenses[lensId] ?? null);
  const named = lensId === null || state.confirmed === null ? undefined : lensOf(lensId);
  const tried = named?.tried ?? null;
  const { provisional, ...series } = liveBlinks(input, lens, named?.power ?? null);
  const { stats } = series;
  const typed = typedFindings(body, eye, settings.acuity);
  const findings: LensFindings = { ...state.findings, ...Object.fromEntries(typed.flatMap((f) => (f.value === null ? [] : [[f.sign, f.value]]))) };
  const number = (sign: LensSignId): number | null => (typeof findings[sign] === 'number' ? findings[sign] : null);
  const { over, overTurn, ...read } = liveOver(input, stats?.mean ?? null);
  const verdict = eyeVerdict({
    refraction: state.refraction && { power: powerOf(state.refraction.current), vertexMm: state.refraction.current.vertexMm },
    lens: named?.power ?? null,
    turn: stats,
    recovery: number('recoverySeconds'),
    early: provisional,
    overRefraction: over,
    overTurn,
    gainsLine: gainsLineOf(state.aim, number('acuityLens'), read.acuity),
    control: read.control,
    overBefore: read.before,
    age: record.wearer.age,
    nearPlus: state.aim.plus,
    tried,
    rules: settings,
  });
  const fitVerdict = judgeFit(findings, settings.movement);
  return {
    ...series,
    state,
    lens,
    family: lens ? (record.ofLenses.find((f) => f.code === lens.familyCode) ?? null) : null,
    turn: series.blinks.at(-1) ?? 0,
    turnKnown: series.blinks.length > 0,
    verdict,
    made: tried ? lensToOrder(verdict, (need) => lensForTurn(need, 0, tried, settings.cylinderCap)) : null,
    over,
    overTurn,
    wanted: verdict.rotation?.wanted ?? readingsWanted(null, 0, settings),
    findings,
    fitVerdict,
    fitSaid: FIT_WORDS.find((word) => word === body[`${eye}Fit`]) ?? state.fit?.current.verdict ?? fitVerdict.verdict,
    acuities: {
      glasses: state.acuities.glasses,
      lens: number('acuityLens'),
      over: read.acuity,
      pinhole: number('acuityPinhole'),
      best: state.acuities.best ?? null,
      oneLineAsks: state.acuities.oneLineAsks ?? false,
      cylinderTested: read.cylinderTested,
      nearEye: state.acuities.nearEye ?? false,
      near: state.acuities.near ?? null,
      expectedLoss: expectedLoss(verdict, named ?? null, overTurn ?? 0, over),
    },
  };
}

/** A turn to a tenth, without a tenth that is nought. */
export const degrees = (value: number): string => (Math.round(value * 10) / 10).toFixed(Number.isInteger(Math.round(value * 10) / 10) ? 0 : 1);
/** `10l`, `5r`, `0l`: a turn as the field takes it, with its side so that no scale is asked. */
export const turnText = (rotationLeft: number): string => (rotationLeft < 0 ? `${-rotationLeft}r` : `${rotationLeft}l`);

/** Has anything been typed for an eye that is not recorded yet? */
export const hasReading = (body: Body, eye: Eye): boolean =>
  ([eye, `${eye}Turn`, `${eye}Blinks`, `${eye}Fit`] as const).some((key) => (body[key] ?? '').trim() !== '') ||
  Object.entries(body).some(([key, text]) => key.startsWith(`${eye}F_`) && text.trim() !== '');

export interface Note {
  readonly code: 'measureAgain' | 'notSteadyYet' | 'fewBlinks' | 'refit' | 'changeDesign' | 'other' | 'same';
  readonly state: 'ok' | 'watch' | 'stop' | null;
  readonly power: string;
  /** The axis ordered allows for a turn. */
  readonly turned: boolean;
  /** It was read before the lens had settled. */
  readonly provisional: 'early' | null;
}

/** What the readings come to for one eye, in one line; null while they say nothing. */
export function noteOf(live: LiveEye): Note | null {
  const { verdict, made, lens, stats } = live;
  const plain = { power: '', turned: false, provisional: null };
  if (verdict.noOrder === 'routesDisagree') return { code: 'measureAgain', state: 'stop', ...plain };
  if (verdict.noOrder === 'notSteadyYet') return { code: 'notSteadyYet', state: 'watch', ...plain };
  if (verdict.noOrder === 'fewBlinks') return { code: 'fewBlinks', state: 'watch', ...plain };
  if (verdict.noOrder === 'refit') return { code: 'refit', state: 'stop', ...plain };
  if (verdict.noOrder === 'changeDesign') return { code: 'changeDesign', state: 'stop', ...plain };
  if (!verdict.order || !lens || !made) return null;
  const { power } = made.lens;
  const same = power.axis === lens.axisDeg && power.sphere === lens.sphereD && power.cylinder === lens.cylinderD;
  const why = verdict.rotation?.why;
  const provisional = why === 'early' ? why : null;
  const said = { power: formatRefraction(power), provisional };
  return same
    ? { code: 'same', state: provisional ? null : 'ok', turned: false, ...said }
    : { code: 'other', state: null, turned: provisional === null && verdict.rotation?.code === 'compensate' && (stats?.mean ?? 0) !== 0, ...said };
}

/** Workings of this screen, in the order in which they open. */
export const WORKINGS = ['routes', 'blur', 'expected', 'series', 'cost', 'next'] as const;
export type WorkingKind = (typeof WORKINGS)[number];

/** Which workings an eye has. */
export function workingsOf(live: LiveEye): readonly WorkingKind[] {
  const { verdict, made, lens, state, stats, family } = live;
  const has: Readonly<Record<WorkingKind, boolean>> = {
    routes: lens !== null,
    blur: made !== null && verdict.order !== null,
    expected: state.refraction !== null && lens !== null && verdict.fromRefraction !== null && verdict.expectedOverRefraction !== null,
    series: stats !== null && stats.sd !== null,
    cost: stats !== null && lens !== null && lens.cylinderD !== 0,
    next: lens !== null && lens.baseCurveMm !== null && lens.diameterMm !== null && family !== null,
  };
  return WORKINGS.filter((kind) => has[kind]);
}
