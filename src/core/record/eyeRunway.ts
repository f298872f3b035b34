import { addDays } from '../calendar/dates';
import type { Modality } from '../lens/family';
import { inForce } from '../supply/purpose';
import { paceKind, paceOf, type Pace } from '../supply/pace';
import { reorderBy } from '../supply/runOut';
import { runway } from '../supply/runway';
import { EYES, type Eye, type IsoDate } from '../units';
import { latest } from './chains';
import { inHandOf } from './eyeStock';
import { lossesOf } from './lensLoss';
import type { Prescription } from './prescription';
import { eyeReorder, type EyeReorder, type OrderedUnder, type ReorderSource } from './reorder';
import type { ReorderCall } from './reorderCall';
import type { WearerFile } from './wearerFile';
import { lastHandOver } from './wornNow';

/** How far the lenses of one eye reach, and when somebody should call. */
export interface EyeRunway {
  readonly eye: Eye;
  readonly prescriptionId: string;
  readonly lensId: string | null;
  readonly familyName: string;
  readonly modality: Modality;
  /** How long a lens really lasted beside its label, to hundredths; null while that is not known. */
  readonly pace: number | null;
  readonly expiresOn: IsoDate;
  /** Last day with a lens of those handed over; null where none was. */
  readonly inHandUntil: IsoDate | null;
  /** The same with what is on its way. */
  readonly runOut: IsoDate;
  /** The same at the pace at which lenses were really used up; null where that is not known or is the label's. */
  readonly paceRunOut: IsoDate | null;
  readonly reorderBy: IsoDate;
  /** The same in both rows of a wearer. */
  readonly dueOn: IsoDate;
  /** The day that was agreed on to call again. */
  readonly laterOn: IsoDate | null;
  /** Boxes ordered and not yet handed over. */
  readonly onTheWay: number;
  readonly proposed: number;
  readonly within: number;
}

export interface RunwaySource extends Omit<ReorderSource, 'file'> {
  readonly file: ReorderSource['file'] &
    Pick<WearerFile, 'wornAnswers'> & { readonly prescriptions: readonly (OrderedUnder & Pick<Prescription, 'purpose' | 'number'>)[] };
  /** The last call about lenses that run low. */
  readonly lastCall: (Pick<ReorderCall, 'outcome' | 'laterOn' | 'calledAt'> & { readonly calledOn: IsoDate }) | null;
}

/** Days after which somebody who was only left a message is called again. Our own choice. */
export const MESSAGE_DAYS = 3;
/** Days that an examination asked for, or a changed sight, is left to be booked. Our own choice. */
const EXAMINATION_DAYS = 7;

/** Until when a call rests after another; null when nothing keeps it. */
export function laterOn(call: RunwaySource['lastCall']): IsoDate | null {
  if (call === null || call.outcome === 'ordered' || call.outcome === 'noLonger') return null;
  if (call.outcome === 'later') return call.laterOn;
  return addDays(call.calledOn, call.outcome === 'message' ? MESSAGE_DAYS : EXAMINATION_DAYS);
}

/** How an eye's lenses are really used up, from when they came; of the lens that is worn now. */
export const eyePace = (file: ReorderSource['file'], eye: Eye, wear: EyeReorder['input']['wear']): Pace | null =>
  paceOf(inHandOf(file, eye), lossesOf(file.losses, eye), wear);

/** Is what this eye wears bought elsewhere, as was said later than anything was handed over? Then nothing here runs out. */
function boughtElsewhere({ wornAnswers, handOvers }: RunwaySource['file'], eye: Eye): boolean {
  const bought = latest(wornAnswers, (a) => a.eye === eye && a.answer === 'boughtElsewhere')?.current;
  const handed = lastHandOver(handOvers, eye);
  return bought != null && (handed === null || bought.observedAt > handed.observedAt);
}

/** Was it said, later than anything was ordered or handed over, that no more lenses from here are worn? */
function wearsNoMore({ file, lastCall }: RunwaySource): boolean {
  if (lastCall?.outcome !== 'noLonger') return false;
  const since = (at: string): boolean => at > lastCall.calledAt;
  return !file.orders.some((o) => since(o.placedAt)) && !file.handOvers.some((h) => h.current !== null && since(h.current.observedAt));
}

/** Without the day that the wearer is due, which both eyes make. */
function ofEye(source: RunwaySource, prescription: OrderedUnder, eye: Eye): Omit<EyeRunway, 'dueOn' | 'laterOn'> | null {
  const of = boughtElsewhere(source.file, eye) ? null : eyeReorder(source, prescription, eye);
  // Who never had lenses from here, nor ordered any, waits for none.
  if (of?.plan.runway.runOut == null) return null;
  const { runOut, inHandUntil } = of.plan.runway;
  const pace = eyePace(source.file, eye, of.input.wear);
  const kind = pace && paceKind(pace);
  const { deliveries, losses, wear } = of.input;
  const paceRunOut = pace && kind !== 'asLabelled' ? runway({ deliveries, losses, wear, daysPerLens: pace.daysPerLens }).runOut : null;
  // Whoever stretches is called by the label; whoever uses them up faster, in time.
  const first = paceRunOut !== null && paceRunOut < runOut ? paceRunOut : runOut;
  return {
    eye,
    prescriptionId: prescription.id,
    lensId: of.lens?.id ?? null,
    familyName: of.familyName,
    modality: of.modality,
    pace: pace && Math.round((pace.daysPerLens / pace.labelled) * 100) / 100,
    expiresOn: prescription.expiresOn,
    inHandUntil,
    runOut,
    paceRunOut,
    reorderBy: reorderBy(first, of.trade.leadDays, source.marginDays),
    onTheWay: deliveries.reduce((sum, d) => (d.state === 'onTheWay' ? sum + Math.ceil(d.lenses / d.packSize) : sum), 0),
    proposed: of.proposed,
    within: of.within,
  };
}

/**
 * How far both eyes' lenses reach under the prescription in force, and when the wearer is due: by the eye that asks first, not
 * before a day that was agreed on. Eyes that have nothing from here are left out.
 * @source computed; reorder-by = run-out − lead time − margin: common practice
 */
export function eyeRunways(source: RunwaySource): readonly EyeRunway[] {
  const [prescription] = inForce(source.file.prescriptions);
  if (!prescription || wearsNoMore(source)) return [];
  const rows = EYES.flatMap((eye) => ofEye(source, prescription, eye) ?? []);
  const later = laterOn(source.lastCall);
  const first = rows.map((r) => r.reorderBy).sort()[0] ?? '';
  return rows.map((row) => ({ ...row, dueOn: later !== null && later > first ? later : first, laterOn: later }));
}
