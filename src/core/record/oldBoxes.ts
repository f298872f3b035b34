import { daysBetween } from '../calendar/dates';
import { runway } from '../supply/runway';
import { EYES, type Eye, type IsoDate } from '../units';
import { boxesOf } from './boxes';
import type { Order } from './order';
import { arrivedOn, isEnded } from './orderState';
import { lossesOf } from './lensLoss';
import type { LensRow } from './lens';
import type { Prescription } from './prescription';
import { isSameLens } from './sameLens';
import type { WearerFile } from './wearerFile';

/** Where boxes of a changed power are: unopened at the wearer's, by the label's count; here; or still to come. */
export type OldBoxesAt = 'withWearer' | 'here' | 'coming';

/** Boxes of one order and eye whose lens is prescribed no more. */
export interface OldBoxes {
  readonly orderId: string;
  readonly orderNumber: number;
  readonly orderLineId: string;
  readonly eye: Eye;
  readonly lens: LensRow;
  readonly at: OldBoxesAt;
  readonly packs: number;
}

export type OldBoxesFile = Pick<WearerFile, 'orders' | 'handOvers' | 'lenses' | 'losses'> & {
  readonly prescriptions: readonly Pick<Prescription, 'id' | 'purpose'>[];
};

type Line = Order['lines'][number];
/** One line's lenses that reached the wearer. */
interface Given {
  readonly line: Line;
  readonly on: IsoDate;
  readonly openedOn: IsoDate | null;
  readonly lenses: number;
}

/** What of an eye's orders reached the wearer: handed over, or sent straight there and said to have come. */
const givenOf = ({ orders, handOvers }: OldBoxesFile, eye: Eye): readonly Given[] =>
  orders.flatMap((order) =>
    order.lines
      .filter((line) => line.eye === eye)
      .flatMap((line): Given[] => {
        const arrived = arrivedOn(order)?.slice(0, 10);
        if (arrived !== undefined) return [{ line, on: arrived, openedOn: null, lenses: line.packs * line.packSize }];
        return handOvers.flatMap(({ current: h }) => (h?.orderLineId === line.id ? [{ line, on: h.handedOn, openedOn: h.openedOn, lenses: h.lensCount }] : []));
      }),
  );

/** Boxes of each line that were not opened by a day, the last that came unopened first. */
function unopened(file: OldBoxesFile, eye: Eye, lens: LensRow, daysPerWeek: number, until: IsoDate): ReadonlyMap<string, number> {
  const given = givenOf(file, eye)
    .filter((g) => g.line.lensId !== null && isSame(file, g.line.lensId, lens))
    .sort((a, b) => daysBetween(b.on, a.on));
  const deliveries = given.map((g) => ({ on: g.on, openedOn: g.openedOn, lenses: g.lenses, packSize: g.line.packSize, state: 'inHand' as const }));
  const { boxes } = runway({ deliveries, losses: lossesOf(file.losses, eye), wear: { modality: lens.modality, daysPerWeek } });
  let left = boxes.filter((b) => b.from > until).length;
  const of = new Map<string, number>();
  for (const { line, lenses } of given) {
    const packs = Math.min(left, Math.ceil(lenses / line.packSize));
    left -= packs;
    of.set(line.id, (of.get(line.id) ?? 0) + packs);
  }
  return of;
}

const isSame = (file: OldBoxesFile, lensId: string, lens: LensRow): boolean => {
  const other = file.lenses[lensId];
  return other !== undefined && isSameLens(other, lens);
};

/** The day from which an eye opened no more boxes of an earlier lens: when the one prescribed was handed over, else today. */
function until(file: OldBoxesFile, eye: Eye, prescribed: LensRow | null, today: IsoDate): IsoDate {
  const changed = file.handOvers.flatMap(({ current: h }) => (h?.eye === eye && prescribed !== null && isSame(file, h.lensId, prescribed) ? [h.handedOn] : []));
  return changed.sort()[0] ?? today;
}

/** Boxes of a line for which an exchange was asked. */
const asked = (order: Order, line: Line): number =>
  order.claims.reduce((n, c) => (c.orderLineId === line.id && c.kind === 'exchange' && c.step !== 'withdrawn' ? n + c.packs : n), 0);

/**
 * Boxes of a power that was changed since: nobody is to wear them, and unopened ones are exchanged. Orders for another purpose stay
 * as they are, and so does what is exchanged already.
 * @returns the newest order first; how many are unopened at the wearer's is what the label makes of it: they are asked
 * @source unopened boxes exchanged, old powers not to be worn: common practice
 */
export function oldBoxes(file: OldBoxesFile, prescription: Pick<Prescription, 'eyes' | 'purpose' | 'daysPerWeek'>, today: IsoDate): readonly OldBoxes[] {
  const purposeOf = (order: Order) => file.prescriptions.find((p) => p.id === order.prescriptionId)?.purpose;
  return file.orders
    .filter((o) => o.kind === 'supply' && purposeOf(o) === prescription.purpose)
    .flatMap((order) =>
      EYES.flatMap((eye): OldBoxes[] => {
        const line = order.lines.find((l) => l.eye === eye);
        const lens = line?.lensId ? file.lenses[line.lensId] : undefined;
        const boxes = boxesOf(order, eye);
        const now = prescription.eyes.find((e) => e.eye === eye);
        const prescribed = now?.lensId ? (file.lenses[now.lensId] ?? null) : null;
        // A laboratory's lens, or one that is still prescribed.
        if (!line || !lens || !boxes || now?.raw || (prescribed !== null && isSameLens(lens, prescribed))) return [];
        const open = unopened(file, eye, lens, prescription.daysPerWeek, until(file, eye, prescribed, today)).get(line.id) ?? 0;
        const here = boxes.here.reduce((n, r) => n + r.packs, 0);
        const coming = isEnded(order) || arrivedOn(order) !== null ? 0 : boxes.ordered - boxes.received;
        const exchanged = asked(order, line);
        const packs = { withWearer: Math.max(0, open - Math.max(0, exchanged - here)), here: Math.max(0, here - exchanged), coming };
        const of = { orderId: order.id, orderNumber: order.number, orderLineId: line.id, eye, lens };
        return (['withWearer', 'here', 'coming'] as const).flatMap((at) => (packs[at] > 0 ? [{ ...of, at, packs: packs[at] }] : []));
      }),
    );
}
