import { daysBetween } from '../calendar/dates';
import { LIFE_DAYS, type Modality } from '../lens/family';
import type { FactChain } from '../record/chains';
import type { HandOverFact } from '../record/visitFacts';
import type { Eye, IsoDate } from '../units';

/** How long each lens of one eye was really worn, as far as what was handed over tells. */
export interface KeptBySupply {
  /** Calendar days a reusable lens lasted; calendar days of wear a single-use lens served, both to a tenth. */
  readonly daysPerLens: number;
  /** What the label says of it, in the same days. */
  readonly labelDays: number;
  /** Days and lenses it is reckoned from. */
  readonly days: number;
  readonly lenses: number;
  /** The last of them may still be in hand: it is at least this. */
  readonly atLeast: boolean;
}

const begins = (h: HandOverFact): IsoDate => h.openedOn ?? h.handedOn;
const tenths = (value: number): number => Math.round(value * 10) / 10;

/**
 * How often lenses are really replaced, beside the label: days from one hand-over to the next, by the lenses handed over. Lenses
 * still in hand are counted only once their time is up; lenses that were lost make it look shorter than it is.
 * @param daysPerWeek 1–7; counted for single-use lenses alone
 * @returns null while supply says nothing
 * @source computed; a monthly lens that lasts 45 days tells how lenses are worn: common practice
 */
export function keptBySupply(
  handOvers: readonly FactChain<HandOverFact>[],
  eye: Eye,
  modalityOf: (lensId: string) => Modality | undefined,
  daysPerWeek: number,
  today: IsoDate,
): KeptBySupply | null {
  const given = handOvers.flatMap((c) => (c.current?.eye === eye ? [c.current] : [])).sort((a, b) => begins(a).localeCompare(begins(b)));
  const modality = given.length === 0 ? undefined : modalityOf(given.at(-1)?.lensId ?? '');
  if (modality === undefined) return null;
  const firstOther = given.findLastIndex((h) => modalityOf(h.lensId) !== modality);
  const same = given.slice(firstOther + 1);
  const [first] = same;
  const last = same.at(-1);
  if (!first || !last) return null;
  const wearDays = (days: number): number => (modality === 'daily' ? (days * daysPerWeek) / 7 : days);
  const closed = same.slice(0, -1).reduce((sum, h) => sum + h.lensCount, 0);
  const openDays = wearDays(daysBetween(begins(last), today));
  const usedUp = openDays > last.lensCount * LIFE_DAYS[modality];
  const lenses = usedUp ? closed + last.lensCount : closed;
  if (lenses === 0) return null;
  const days = daysBetween(begins(first), usedUp ? today : begins(last));
  return { daysPerLens: tenths(wearDays(days) / lenses), labelDays: LIFE_DAYS[modality], days, lenses, atLeast: usedUp };
}
