import { addDays, dayIn, daysBetween } from '../calendar/dates';
import { runway } from '../supply/runway';
import type { Purpose } from '../supply/purpose';
import { EYES, type Eye, type IsoDate } from '../units';
import { boxesOf } from './boxes';
import { latest } from './chains';
import { inHandOf } from './eyeStock';
import type { LensRow } from './lens';
import { lossesOf, type LensLoss } from './lensLoss';
import type { Order } from './order';
import type { WornAnswer } from './visitFacts';
import { lastHandOver, lastOrder, orderOfHandOver, provenance, type ProvenanceFile } from './wornNow';

/** What does not go together in what is known of the lenses worn: said before anything is measured through them. */
export type WornDoubt =
  /** A later order names another lens, was due and never came here: perhaps it went straight to the wearer. */
  | { readonly code: 'orderedOther'; readonly eye: Eye; readonly number: number; readonly lensId: string }
  /** All lenses handed over are used up by now: what is on the eye? */
  | { readonly code: 'usedUp'; readonly eyes: readonly Eye[]; readonly until: IsoDate; readonly days: number }
  /** Right and left come from different orders, or one from an order and one from a trial. */
  | { readonly code: 'differentOrders'; readonly right: number | null; readonly left: number | null }
  /** Right and left were prescribed for different purposes. */
  | { readonly code: 'differentPurposes'; readonly right: Purpose; readonly left: Purpose }
  /** After the last hand-over a seller had lenses verified: perhaps those are worn. */
  | { readonly code: 'sellerVerified'; readonly eyes: readonly Eye[]; readonly on: IsoDate }
  /** When last asked, the wearer had something else in. */
  | { readonly code: 'saidOtherwise'; readonly eye: Eye; readonly answer: WornAnswer; readonly on: IsoDate };

export interface WornDoubtsOf {
  readonly file: ProvenanceFile;
  readonly losses: readonly LensLoss[];
  readonly lensOf: (lensId: string) => Pick<LensRow, 'modality'> | undefined;
  /** Days worn a week by the prescription in force; 7 where none says. */
  readonly daysPerWeek: number;
  readonly today: IsoDate;
  /** Of the practice, IANA. */
  readonly timeZone: string;
  /** The visit that asks now: its own answers raise no doubt. */
  readonly visitId: string | null;
}

/**
 * Last day that everything handed over for an eye could be worn: hand-overs of the same lens follow one another.
 * @returns null where nothing was handed over
 * @source computed from labelled replacement: common practice
 */
export function lastsUntil({ file, losses, lensOf, daysPerWeek }: WornDoubtsOf, eye: Eye): IsoDate | null {
  const worn = lastHandOver(file.handOvers, eye);
  const modality = worn && lensOf(worn.lensId)?.modality;
  if (!worn || !modality) return null;
  return runway({ deliveries: inHandOf(file, eye), losses: lossesOf(losses, eye), wear: { modality, daysPerWeek } }).inHandUntil;
}

/** Days after which an order that nobody answered counts as due. Our own choice. */
const UNANSWERED_DAYS = 14;

/** Boxes that are on their way, or lie here, are on nobody's eyes: only what was due and never came may be. */
function isOverdue(order: Order, eye: Eye, today: IsoDate, timeZone: string): boolean {
  const due = order.events.findLast((e) => e.dueOn !== null)?.dueOn ?? addDays(dayIn(order.placedAt, timeZone), UNANSWERED_DAYS);
  return due < today && boxesOf(order, eye)?.received === 0;
}

/** An order after the hand-over that names another lens, and should have been here by now. */
function orderedOther({ file, today, timeZone }: WornDoubtsOf, eye: Eye): readonly WornDoubt[] {
  const given = lastHandOver(file.handOvers, eye);
  const order = lastOrder(file.orders, eye);
  const lensId = order?.lines.find((l) => l.eye === eye)?.lensId ?? null;
  if (!given || !order || lensId === null || lensId === given.lensId || order.placedAt <= given.observedAt) return [];
  if (!isOverdue(order, eye, today, timeZone)) return [];
  return [{ code: 'orderedOther', eye, number: order.number, lensId }];
}

/** Eyes that ran out on one day are said together. */
function usedUp(of: WornDoubtsOf): readonly WornDoubt[] {
  const ended = EYES.flatMap((eye) => {
    const until = provenance(of.file, eye).worn?.kind === 'handedOver' ? lastsUntil(of, eye) : null;
    return until !== null && until < of.today ? [{ eye, until }] : [];
  });
  return [...new Set(ended.map((e) => e.until))].map((until) => ({
    code: 'usedUp',
    eyes: ended.flatMap((e) => (e.until === until ? [e.eye] : [])),
    until,
    days: daysBetween(until, of.today),
  }));
}

/** Answers after which something else than what was handed over may be worn. */
const OTHERWISE: readonly WornAnswer[] = ['oldPair', 'mixed', 'boughtElsewhere', 'someoneElses', 'lost'];

function saidOtherwise({ file, timeZone, visitId }: WornDoubtsOf, eye: Eye): readonly WornDoubt[] {
  const said = latest(file.wornAnswers, (a) => a.eye === eye && a.visitId !== visitId)?.current;
  const given = lastHandOver(file.handOvers, eye);
  if (!said || !OTHERWISE.includes(said.answer) || (given && given.observedAt > said.observedAt)) return [];
  return [{ code: 'saidOtherwise', eye, answer: said.answer, on: dayIn(said.observedAt, timeZone) }];
}

/** Lenses verified to a seller after what counts as worn was handed over; both eyes are said together. */
function sellerVerified({ file, timeZone }: WornDoubtsOf): readonly WornDoubt[] {
  const later = EYES.flatMap((eye) => {
    const { nodes, worn } = provenance(file, eye);
    return nodes.sellerVerified && worn?.kind === 'handedOver' && nodes.sellerVerified.at > worn.at
      ? [{ eye, on: dayIn(nodes.sellerVerified.at, timeZone) }]
      : [];
  });
  const [first] = later;
  return first ? [{ code: 'sellerVerified', eyes: later.map((l) => l.eye), on: first.on }] : [];
}

/** Pairs: both eyes of one order, and of one purpose. */
function pairDoubts({ file }: WornDoubtsOf): readonly WornDoubt[] {
  const of = (eye: Eye) => {
    const given = provenance(file, eye).worn?.kind === 'handedOver' ? lastHandOver(file.handOvers, eye) : null;
    const order = given ? orderOfHandOver(file.orders, given) : lastOrder(file.orders, eye);
    return { given, order, purpose: file.prescriptions.find((p) => p.id === order?.prescriptionId)?.purpose ?? null };
  };
  const [right, left] = [of('right'), of('left')];
  const doubts: WornDoubt[] = [];
  const bothWorn = provenance(file, 'right').worn !== null && provenance(file, 'left').worn !== null;
  if (bothWorn && (right.order?.id ?? null) !== (left.order?.id ?? null))
    doubts.push({ code: 'differentOrders', right: right.order?.number ?? null, left: left.order?.number ?? null });
  if (right.purpose !== null && left.purpose !== null && right.purpose !== left.purpose)
    doubts.push({ code: 'differentPurposes', right: right.purpose, left: left.purpose });
  return doubts;
}

/**
 * Contradictions in what is known of the lenses worn, to be asked about before work starts.
 * @source the costliest errors of the trade are errors of the record: common practice
 */
export const wornDoubts = (of: WornDoubtsOf): readonly WornDoubt[] => [
  ...pairDoubts(of),
  ...usedUp(of),
  ...sellerVerified(of),
  ...EYES.flatMap((eye) => [...orderedOther(of, eye), ...saidOtherwise(of, eye)]),
];
