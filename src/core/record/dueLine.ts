import { addDays, addYears } from '../calendar/dates';
import { EYES, type Eye, type IsoDate } from '../units';
import type { EyeRunway } from './eyeRunway';

/** Days after its due day from which a wearer who never came back counts as lapsed, and leaves the list. Our own choice. */
export const LAPSED_DAYS = 180;
/** Days ahead that the list looks. Our own choice: a round of calls every two weeks misses nobody. */
export const DUE_AHEAD_DAYS = 14;

/** The days whose wearers are on the list of those due. */
export const dueWindow = (today: IsoDate): { readonly from: IsoDate; readonly until: IsoDate } => ({
  from: addDays(today, -LAPSED_DAYS),
  until: addDays(today, DUE_AHEAD_DAYS),
});

/** Years after which a lapsed wearer is no longer looked for. Our own choice. */
const LAPSED_YEARS = 3;

/** The days whose wearers lapsed: due long ago, and never came. */
export const lapsedWindow = (today: IsoDate): { readonly from: IsoDate; readonly until: IsoDate } => ({
  from: addYears(today, -LAPSED_YEARS),
  until: addDays(today, -LAPSED_DAYS - 1),
});

/** What bears on a call, beside how far the lenses reach. */
export interface DueFacts {
  readonly stopped: boolean;
  readonly alerted: boolean;
  /** Day of the examination that is booked; null for none. */
  readonly examinationOn: IsoDate | null;
}

/**
 * What a line of the list proposes: `see`, a prescriber first; `book`, the examination, since the prescription has ended; `bookAndCall`,
 * the smallest order with the examination booked, since not one box would end in time; `call`, boxes for each eye.
 */
export type DueProposal =
  | { readonly kind: 'see'; readonly why: 'stopped' | 'alerted' }
  | { readonly kind: 'book'; readonly why: 'expired' | 'expiresFirst' }
  | { readonly kind: 'bookAndCall'; readonly packs: Readonly<Record<Eye, number>> }
  | { readonly kind: 'call'; readonly packs: Readonly<Record<Eye, number>> };

/**
 * What to do about a wearer whose lenses run low.
 * @source expired → book; two months left → the smallest pack with the examination booked: common practice
 */
export function dueProposal(rows: readonly EyeRunway[], { stopped, alerted, examinationOn }: DueFacts, today: IsoDate): DueProposal {
  if (stopped) return { kind: 'see', why: 'stopped' };
  if (alerted) return { kind: 'see', why: 'alerted' };
  const expiresOn = rows[0]?.expiresOn ?? today;
  if (expiresOn < today) return { kind: 'book', why: 'expired' };
  // What is in hand outlasts the prescription: nothing is sold before it is renewed.
  if (rows.every((r) => r.runOut >= expiresOn)) return { kind: 'book', why: 'expiresFirst' };
  const packs = { right: 0, left: 0 };
  for (const eye of EYES) packs[eye] = rows.find((r) => r.eye === eye)?.proposed ?? 0;
  return rows.some((r) => r.within === 0) && examinationOn === null ? { kind: 'bookAndCall', packs } : { kind: 'call', packs };
}

/** The eye whose lenses make a wearer due: the one to be ordered first; the right one of equals. */
export const dueEye = (rows: readonly EyeRunway[]): EyeRunway | null =>
  rows.reduce<EyeRunway | null>((first, row) => (first === null || row.reorderBy < first.reorderBy ? row : first), null);
