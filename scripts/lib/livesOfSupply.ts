import {
  addDays,
  daysBetween,
  dueProposal,
  eyeRunways,
  LIFE_DAYS,
  type EyeRunway,
  type Eye,
  type IsoDate,
  type Modality,
  type Order,
  type ReorderTrade,
  type RunwaySource,
} from '../../src/core';

/** A wearer as they are: what their label says, and what they do. */
export interface Life {
  readonly modality: Modality;
  readonly packSize: number;
  readonly daysPerWeek: number;
  readonly leadDays: number;
  /** Chance that a lens is lost in a month, told the next day. */
  readonly loss: number;
  /** Chance a year that the wearer pauses for some weeks: lenses at home wait. */
  readonly pause: number;
}
export interface Lived {
  readonly days: number;
  readonly orders: number;
  readonly losses: number;
  /** Days without a lens on which the wearer neither stood on the list nor had an order on the way. */
  readonly unwarned: number;
  /** Days without a lens though none was lost of late: the list came too late for the supplier. */
  readonly late: number;
  /** Boxes that end past the prescription beyond the one that goes with the examination. */
  readonly pastExpiry: number;
  /** Lenses that neither lie at home, nor were worn, nor lost. */
  readonly astray: number;
}

const MARGIN = 7;
const FAMILY = 'f';

/** A wearer's years: opened lenses, boxes at home, orders on the road, prescriptions renewed; the desk works from the list alone. */
export function live(life: Life, from: IsoDate, days: number, chance: () => number): Lived {
  const { modality, packSize, daysPerWeek, leadDays } = life;
  const trade: ReorderTrade = { packSize, packPriceMinor: 1000, rebateMinor: 0, leadDays, lastOrderOn: null };
  const lens = { id: 'lens', familyCode: FAMILY, familyName: 'F', modality };
  let expires = addDays(from, 365);
  let examination: IsoDate | null = null;
  let number = 1;
  const handOvers: object[] = [];
  const orders: { arrives: IsoDate; placed: IsoDate; packs: number; number: number; given: boolean }[] = [];
  const losses: { eye: Eye; lenses: number; lostOn: IsoDate }[] = [];
  let [ordersMade, lost, unwarned, pastExpiry, bought] = [0, 0, 0, 0, 0];
  /** Lenses at home of the right eye, counted one by one: the left is worn alike. */
  let stock = 0;
  let openedDay: IsoDate | null = null;
  let [worn, gone] = [0, 0];
  let lostOn = addDays(from, -365);
  let late = 0;
  /** A day without a lens: was somebody told, and could it have been in time? */
  const without = (today: IsoDate): void => {
    if (expires < today) return;
    const onTheWay = orders.some((o) => !o.given);
    const listed = rows[0] !== undefined && rows[0].dueOn <= today;
    if (!onTheWay && !listed) unwarned += 1;
    if (daysBetween(lostOn, today) > LIFE_DAYS[modality] + leadDays + MARGIN) late += 1;
  };
  const give = (on: IsoDate, packs: number): void => {
    for (const eye of ['right', 'left'] as const) {
      const row = {
        id: `${on}${eye}`,
        eye,
        lensId: 'lens',
        handedOn: on,
        openedOn: null,
        lensCount: packs * packSize,
        orderLineId: null,
        observedAt: `${on}T12:00:00Z`,
      };
      handOvers.push({ rootId: row.id, rows: [row], current: row });
    }
    stock += packs * packSize;
    bought += packs * packSize;
  };
  const source = (today: IsoDate): RunwaySource =>
    ({
      file: {
        prescriptions: [
          {
            id: 'p',
            number,
            purpose: 'everyday',
            expiresOn: expires,
            daysPerWeek,
            eyes: (['right', 'left'] as const).map((eye) => ({ eye, lensId: 'lens', raw: null })),
          },
        ],
        handOvers,
        orders: orders.filter((o) => !o.given).map((o) => orderOf(o, packSize)),
        losses,
        wornAnswers: [],
        lenses: { lens },
      },
      trade: { [FAMILY]: trade },
      today,
      marginDays: MARGIN,
      lastCall: null,
    }) as unknown as RunwaySource;
  give(from, 1);
  let rows: readonly EyeRunway[] = eyeRunways(source(from));
  let pausedUntil = from;
  for (let d = 1; d < days; d++) {
    const today = addDays(from, d);
    let changed = false;
    for (const order of orders)
      if (!order.given && order.arrives <= today) {
        order.given = true;
        give(today, order.packs);
        changed = true;
      }
    if (examination !== null && examination <= today) {
      [expires, examination, number] = [addDays(today, 365), null, number + 1];
      changed = true;
    }
    if (pausedUntil < today && chance() < life.pause / 365) pausedUntil = addDays(today, 14 + Math.floor(chance() * 40));
    // Dailies are worn on some days of the week, none in a pause; a reusable lens ages from its opening, worn or not.
    if (modality === 'daily') {
      if (today > pausedUntil && Math.floor((d * daysPerWeek) / 7) > Math.floor(((d - 1) * daysPerWeek) / 7)) {
        if (stock > 0) [stock, worn] = [stock - 1, worn + 1];
        else without(today);
      }
    } else if (today > pausedUntil && (openedDay === null || daysBetween(openedDay, today) >= LIFE_DAYS[modality])) {
      if (stock > 0) {
        [stock, worn, openedDay] = [stock - 1, worn + 1, today];
      } else without(today);
    }
    if (chance() < life.loss / 30 && stock > 0) {
      lost += 1;
      lostOn = today;
      // Of a reusable kind the lens that is worn is the one that is lost; of dailies another is taken the same day.
      if (modality === 'daily') [stock, gone] = [stock - 1, gone + 1];
      else openedDay = null;
      for (const eye of ['right', 'left'] as const) losses.push({ eye, lenses: 1, lostOn: today });
      changed = true;
    }
    // The list is reckoned when something changed, and each night for those on it.
    const [first] = rows;
    if (changed || (first && first.dueOn <= today)) rows = eyeRunways(source(today));
    const due = rows[0];
    if (!due || due.dueOn > today) continue;
    const proposal = dueProposal(rows, { stopped: false, alerted: false, examinationOn: examination }, today);
    if (proposal.kind === 'book' || proposal.kind === 'bookAndCall') examination ??= addDays(today, 5);
    if (proposal.kind === 'call' || proposal.kind === 'bookAndCall') {
      const packs = Math.min(4, proposal.packs.right || 1);
      if (packs > due.within + 1 || (packs > due.within && examination === null)) pastExpiry += 1;
      orders.push({ arrives: addDays(today, leadDays), placed: today, packs, number: orders.length + 1, given: false });
      ordersMade += 1;
      rows = eyeRunways(source(today));
    }
  }
  return { days, orders: ordersMade, losses: lost, unwarned, late, pastExpiry, astray: bought - stock - worn - gone };
}

const orderOf = (o: { arrives: IsoDate; placed: IsoDate; packs: number; number: number }, packSize: number): Order =>
  ({
    id: `o${o.number}`,
    number: o.number,
    kind: 'supply',
    prescriptionId: 'p',
    placedAt: `${o.placed}T12:00:00Z`,
    deliverTo: 'practice',
    lines: (['right', 'left'] as const).map((eye) => ({ id: `${o.number}${eye}`, eye, lensId: 'lens', packs: o.packs, packSize })),
    receipts: [],
    events: [{ state: 'acknowledged', at: `${o.placed}T12:00:00Z`, dueOn: o.arrives }],
  }) as unknown as Order;
