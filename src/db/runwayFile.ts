import 'server-only';
import type {
  DeliverTo,
  Eye,
  HandOverFact,
  LensLoss,
  LensRow,
  Order,
  OrderEventRow,
  OrderLineRow,
  OrderReceiptRow,
  PrescriptionEyeRow,
  Purpose,
  ReorderOutcome,
  ReorderTrade,
  RunwaySource,
} from '../core';
import { bundle } from './bundle';
import type { Db } from './client';
import { listTrade } from './family';
import { listLenses } from './lens';
import { listLosses } from './lensLoss';

type Of<Row> = Row & { readonly wearerId: string };
interface HeldPrescription {
  readonly id: string;
  readonly number: number;
  readonly purpose: Purpose;
  readonly expiresOn: string;
  readonly daysPerWeek: number;
}
interface LastCall {
  readonly outcome: ReorderOutcome;
  readonly laterOn: string | null;
  readonly calledAt: string;
}
interface OrderOfWearer {
  readonly id: string;
  readonly number: number;
  readonly prescriptionId: string | null;
  readonly placedAt: string;
  readonly deliverTo: DeliverTo;
}
type GivenRow = Pick<HandOverFact, 'id' | 'rootId' | 'eye' | 'lensId' | 'orderLineId' | 'openedOn' | 'lensCount' | 'handedOn' | 'observedAt'>;

/** Orders and hand-overs of a wearer that are read: as many as for their own page. */
const MOST = 6;

/** Orders of lenses to wear that count for some wearers, as `countingOrders` has them for one. */
const counting = (sql: Db, practiceId: string, ids: string[]) => sql<Of<OrderOfWearer>[]>`
  with own as (
    select o.id, o.wearer_id, o.number, o.prescription_id, o.placed_at, o.deliver_to, row_number() over (partition by o.wearer_id order by o.number desc) as place
    from lens_order o where o.practice_id = ${practiceId} and o.wearer_id = any (${ids}::uuid[]) and o.kind = 'supply')
  select id, wearer_id, number, prescription_id, placed_at, deliver_to from own
  where place <= ${MOST}
    or id in (select distinct on (w.wearer_id, l.eye) w.id from own w join order_line l on l.practice_id = ${practiceId} and l.order_id = w.id
      where not exists (select 1 from order_event e where e.practice_id = ${practiceId} and e.order_id = w.id and e.state in ('refused', 'cancelled'))
      order by w.wearer_id, l.eye, w.number desc)
    or id in (select l.order_id from (
        select distinct on (h.wearer_id, h.eye) h.order_line_id from hand_over h
        where h.practice_id = ${practiceId} and h.wearer_id = any (${ids}::uuid[]) and not h.voided
          and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)
        order by h.wearer_id, h.eye, h.recorded_at desc, h.visit_version desc) g
      join order_line l on l.practice_id = ${practiceId} and l.id = g.order_line_id)
  order by number desc`;

const parts = (sql: Db, practiceId: string, ids: string[]) => ({
  prescriptions: sql<Of<HeldPrescription>[]>`
    select distinct on (wearer_id, purpose) id, wearer_id, number, purpose, expires_on, days_per_week
    from prescription p where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[])
      and not exists (select 1 from wearer_erasure e where e.practice_id = p.practice_id and e.erased_wearer_id = p.wearer_id)
    order by wearer_id, purpose, number desc`,
  eyes: sql<(Pick<PrescriptionEyeRow, 'eye' | 'lensId' | 'raw'> & { readonly prescriptionId: string })[]>`
    select e.prescription_id, e.eye, e.lens_id, e.raw from (
      select distinct on (wearer_id, purpose) id from prescription
      where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[]) order by wearer_id, purpose, number desc) p
    join prescription_eye e on e.practice_id = ${practiceId} and e.prescription_id = p.id`,
  given: sql<Of<GivenRow>[]>`
    select h.wearer_id, h.id, h.root_id, h.eye, h.lens_id, h.order_line_id, h.opened_on, h.lens_count, h.handed_on, h.observed_at
    from (
      select r.root_id, r.recorded_at, r.visit_version, row_number() over (partition by r.wearer_id, r.eye order by r.recorded_at desc, r.visit_version desc) as place
      from hand_over r where r.practice_id = ${practiceId} and r.wearer_id = any (${ids}::uuid[]) and r.corrects_id is null) n
    join hand_over h on h.practice_id = ${practiceId} and h.root_id = n.root_id and not h.voided
      and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)
    where n.place <= ${MOST} order by h.wearer_id, n.recorded_at, n.visit_version, h.eye`,
  orders: counting(sql, practiceId, ids),
  losses: listLosses(sql, practiceId, ids),
  calls: sql<Of<LastCall>[]>`
    select distinct on (wearer_id) wearer_id, outcome, later_on, called_at from reorder_call
    where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[]) order by wearer_id, called_at desc, id`,
  bought: sql<Of<{ eye: Eye; observedAt: string }>[]>`
    select v.wearer_id, a.eye, max(a.observed_at) as observed_at
    from visit v join worn_answer a on a.practice_id = v.practice_id and a.visit_id = v.id and a.answer = 'boughtElsewhere' and not a.voided
      and not exists (select 1 from worn_answer n where n.practice_id = a.practice_id and n.corrects_id = a.id)
    where v.practice_id = ${practiceId} and v.wearer_id = any (${ids}::uuid[]) group by v.wearer_id, a.eye`,
});

/** What of some orders tells where their boxes are. */
const orderParts = (sql: Db, practiceId: string, orderIds: string[]) => ({
  lines: sql<(Pick<OrderLineRow, 'id' | 'eye' | 'lensId' | 'packs' | 'packSize'> & { readonly orderId: string })[]>`
    select l.id, l.order_id, l.eye, l.lens_id, l.packs, l.pack_size from order_line l
    where l.practice_id = ${practiceId} and l.order_id = any (${orderIds}::uuid[])`,
  events: sql<(Pick<OrderEventRow, 'state' | 'at' | 'dueOn'> & { readonly orderId: string })[]>`
    select e.order_id, e.state, e.at, e.due_on from order_event e
    where e.practice_id = ${practiceId} and e.order_id = any (${orderIds}::uuid[]) order by e.sequence`,
  receipts: sql<(Pick<OrderReceiptRow, 'id' | 'orderLineId' | 'packs' | 'handedOver'> & { readonly orderId: string })[]>`
    select r.id, l.order_id, r.order_line_id, r.packs, exists (select 1 from hand_over h where h.practice_id = r.practice_id and h.order_receipt_id = r.id and not h.voided
        and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)) as handed_over
    from order_line l join order_receipt r on r.practice_id = l.practice_id and r.order_line_id = l.id
    where l.practice_id = ${practiceId} and l.order_id = any (${orderIds}::uuid[]) order by r.sequence`,
});

/** What one wearer's runways rest on; the last call by its moment. */
export interface RunwayFile {
  readonly wearerId: string;
  readonly file: RunwaySource['file'];
  readonly lastCall: LastCall | null;
}

const fact = { correctsId: null, voided: false, visitId: '', recordedBy: '', recordedByName: '', reason: null } as const;

/** Rows by what they belong to, each list in its order. */
function byKey<Row>(rows: readonly Row[], keyOf: (row: Row) => string): (key: string) => readonly Row[] {
  const lists = new Map<string, Row[]>();
  for (const row of rows) {
    const list = lists.get(keyOf(row));
    if (list) list.push(row);
    else lists.set(keyOf(row), [row]);
  }
  return (key) => lists.get(key) ?? [];
}
const ofWearer = <Row extends { readonly wearerId: string }>(rows: readonly Row[]) => byKey(rows, (r) => r.wearerId);
const ofOrder = <Row extends { readonly orderId: string }>(rows: readonly Row[]) => byKey(rows, (r) => r.orderId);

/** What the runways of some wearers rest on, in a few statements however many they are; wearers without a prescription are left out. */
export async function readRunwayFiles(
  sql: Db,
  practiceId: string,
  wearerIds: readonly string[],
  today: string,
): Promise<{ readonly files: readonly RunwayFile[]; readonly trade: Readonly<Record<string, ReorderTrade>> }> {
  const rows = await bundle(sql, parts(sql, practiceId, [...wearerIds]));
  const ordered = await bundle(
    sql,
    orderParts(
      sql,
      practiceId,
      rows.orders.map((o) => o.id),
    ),
  );
  const lensIds = [...new Set(rows.eyes.flatMap((e) => e.lensId ?? []))];
  const lenses: readonly LensRow[] = lensIds.length > 0 ? await listLenses(sql, practiceId, lensIds) : [];
  const codes = [...new Set([...lenses.map((l) => l.familyCode), ...rows.eyes.flatMap((e) => e.raw?.familyCode ?? [])])];
  const sold = codes.length > 0 ? await listTrade(sql, practiceId, codes, today) : [];
  const lensById = Object.fromEntries(lenses.map((l) => [l.id, l]));
  const of = {
    prescriptions: ofWearer(rows.prescriptions),
    orders: ofWearer(rows.orders),
    given: ofWearer(rows.given),
    bought: ofWearer(rows.bought),
    losses: ofWearer(rows.losses),
    calls: ofWearer(rows.calls),
    eyes: byKey(rows.eyes, (e) => e.prescriptionId),
    lines: ofOrder(ordered.lines),
    events: ofOrder(ordered.events),
    receipts: ofOrder(ordered.receipts),
  };
  const files = wearerIds.flatMap((wearerId): RunwayFile[] => {
    const prescriptions = of.prescriptions(wearerId);
    if (prescriptions.length === 0) return [];
    const orders = of
      .orders(wearerId)
      .map((o) => ({ ...o, kind: 'supply', lines: of.lines(o.id), events: of.events(o.id), receipts: of.receipts(o.id) }) as unknown as Order);
    const held = prescriptions.map((p) => ({ ...p, eyes: of.eyes(p.id) as unknown as PrescriptionEyeRow[] }));
    const handOvers = of.given(wearerId).map((row) => {
      const current = { ...fact, ...row, recordedAt: row.observedAt } as unknown as HandOverFact;
      return { rootId: row.rootId, rows: [current], current };
    });
    const wornAnswers = of.bought(wearerId).map(({ eye, observedAt }) => {
      const current = {
        ...fact,
        id: eye,
        rootId: eye,
        eye,
        observedAt,
        recordedAt: observedAt,
        answer: 'boughtElsewhere' as const,
        lensId: null,
        lensOnEyeId: null,
      };
      return { rootId: eye, rows: [current], current };
    });
    const losses: readonly LensLoss[] = of.losses(wearerId);
    const file = { prescriptions: held, handOvers, orders, losses, wornAnswers, lenses: lensById };
    return [{ wearerId, file, lastCall: of.calls(wearerId)[0] ?? null }];
  });
  return { files, trade: Object.fromEntries(sold.map(({ code, ...trade }) => [code, trade])) };
}
