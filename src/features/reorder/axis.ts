import { addDays, daysBetween, EYES, type Eye, type EyeReorder, type IsoDate, type RunwayBox, type SupplyPlan } from '@/core';

/** Height of the drawing, px, and what is kept free above and below. */
export const HEIGHT = 500;
const TOP = 12;
const BOTTOM = 26;
/** Days before today that are shown at the most: what is used up longer ago says nothing any more. */
const BACK_DAYS = 75;
/** Days after the last end. */
const AFTER_DAYS = 12;

/** Days down the page. */
export interface Axis {
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly y: (day: IsoDate) => number;
  /** First days of months on it. */
  readonly months: readonly IsoDate[];
}

type Plans = Readonly<Record<Eye, SupplyPlan | null>>;

/** The days that both eyes and the prescription need. */
export function axisOf(plans: Plans, today: IsoDate, expiresOn: IsoDate): Axis {
  const boxes = EYES.flatMap((eye) => plans[eye]?.runway.boxes ?? []);
  const earliest = addDays(today, -BACK_DAYS);
  const begun = boxes
    .filter((b) => b.to >= today)
    .map((b) => b.from)
    .concat(addDays(today, -14));
  const first = begun.reduce((least, day) => (day < least ? day : least), today);
  const from = first < earliest ? earliest : first;
  const last = boxes.map((b) => b.to).reduce((most, day) => (day > most ? day : most), expiresOn > today ? expiresOn : today);
  const to = addDays(last, AFTER_DAYS);
  const span = Math.max(1, daysBetween(from, to));
  const y = (day: IsoDate): number => {
    const part = Math.min(1, Math.max(0, daysBetween(from, day) / span));
    return Math.round((TOP + part * (HEIGHT - TOP - BOTTOM)) * 10) / 10;
  };
  return { from, to, y, months: monthsIn(from, to) };
}

function monthsIn(from: IsoDate, to: IsoDate): readonly IsoDate[] {
  const months: IsoDate[] = [];
  for (let at = `${from.slice(0, 7)}-01`; at <= to; at = `${addDays(at, 32).slice(0, 7)}-01`) if (at >= from) months.push(at);
  return months;
}

/** A part of a box as it is drawn: worn already, still to wear, ordered, or only thought of. */
export interface DrawnPart {
  readonly top: number;
  readonly height: number;
  readonly look: 'worn' | 'left' | 'onTheWay' | 'proposed';
}

/** Dailies are read by the box, and a hairline says where one ends; a gap would be wider than some of them. */
export function partsOf(box: RunwayBox, axis: Axis, today: IsoDate): readonly DrawnPart[] {
  if (box.to < axis.from) return [];
  const [top, end] = [axis.y(box.from), axis.y(addDays(box.to, 1))];
  const part = (a: number, b: number, look: DrawnPart['look']): DrawnPart => ({ top: a, height: Math.max(1.5, b - a), look });
  if (box.state !== 'inHand') return [part(top, end, box.state)];
  if (box.to < today) return [part(top, end, 'worn')];
  if (box.from >= today) return [part(top, end, 'left')];
  return [part(top, axis.y(today), 'worn'), part(axis.y(today), end, 'left')];
}

/** Each eye's days with the boxes that are thought of. */
export const plansWith = (
  eyes: Readonly<Record<Eye, EyeReorder | null>>,
  packs: Readonly<Record<Eye, number>>,
  plan: (of: EyeReorder, packs: number) => SupplyPlan,
): Plans => {
  const of = (eye: Eye): SupplyPlan | null => eyes[eye] && plan(eyes[eye], Number.isFinite(packs[eye]) ? packs[eye] : 0);
  return { right: of('right'), left: of('left') };
};
