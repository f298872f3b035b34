import 'server-only';
import type postgres from 'postgres';
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
import { countingOrders } from './newest';

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
type GivenRow = Pick<HandOverFact, 'id' | 'rootId' | 'eye' | 'lensId' | 'orderLineId' | 'openedOn' | 'lensCount' | 'handedOn' | 'observedAt'>;

type Rows = postgres.PendingQuery<postgres.Row[]>;

/** Orders and hand-overs of a wearer that are read: as many as for their own page. */
const MOST = 6;

/** Rows of several wearers, each asked for by itself. */
const ofEach = (sql: Db, wearerIds: readonly string[], rows: Rows) => sql`
  select w.id as wearer_id, x.* from unnest(${[...wearerIds]}::uuid[]) w (id) cross join lateral (${rows}) x`;

/** The hand-overs of a wearer that hold, the newest of each eye, oldest first. */
const given = (sql: Db, practiceId: string, wearerId: Rows) => sql`
  select h.id, h.root_id, h.eye, h.lens_id, h.order_line_id, h.opened_on, h.lens_count, h.handed_on, h.observed_at, n.recorded_at as begun_at, n.visit_version as begun_in
  from (
    select r.root_id, r.recorded_at, r.visit_version, row_number() over (partition by r.eye order by r.recorded_at desc, r.visit_version desc) as place
    from hand_over r where r.practice_id = ${practiceId} and r.wearer_id = ${wearerId} and r.corrects_id is null) n
  join hand_over h on h.practice_id = ${practiceId} and h.root_id = n.root_id and not h.voided
    and not exists (select 1 from hand_over c where c.practice_id = h.practice_id and c.corrects_id = h.id)
  where n.place <= ${MOST}`;

const parts = (sql: Db, practiceId: string, wearerIds: readonly string[]) => {
  const one = sql`w.id`;
  const ids = [...wearerIds];
  const orders = ofEach(sql, ids, countingOrders(sql, practiceId, one, { most: MOST, visitId: null }));
  return {
    prescriptions: sql<Of<HeldPrescription>[]>`
      select distinct on (wearer_id, purpose) id, wearer_id, number, purpose, expires_on, days_per_week
      from prescription p where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[])
        and not exists (select 1 from wearer_erasure e where e.practice_id = p.practice_id and e.erased_wearer_id = p.wearer_id)
      order by wearer_id, purpose, number desc`,
    eyes: sql<(Pick<PrescriptionEyeRow, 'eye' | 'lensId' | 'raw'> & { readonly prescriptionId: string })[]>`
      select e.prescription_id, e.eye, e.lens_id, e.raw from prescription_eye e where e.practice_id = ${practiceId} and e.prescription_id in (
        select distinct on (wearer_id, purpose) id from prescription
        where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[]) order by wearer_id, purpose, number desc)`,
    given: sql<Of<GivenRow>[]>`select * from (${ofEach(sql, ids, given(sql, practiceId, one))}) g order by wearer_id, begun_at, begun_in, eye`,
    orders: sql<Of<{ id: string; number: number; prescriptionId: string | null; placedAt: string; deliverTo: DeliverTo }>[]>`
      select o.id, o.wearer_id, o.number, o.prescription_id, o.placed_at, o.deliver_to from lens_order o
      where o.practice_id = ${practiceId} and o.id in (select x.id from (${orders}) x (wearer_id, id)) order by o.number desc`,
    lines: sql<(Pick<OrderLineRow, 'id' | 'eye' | 'lensId' | 'packs' | 'packSize'> & { readonly orderId: string })[]>`
      select l.id, l.order_id, l.eye, l.lens_id, l.packs, l.pack_size from order_line l
      where l.practice_id = ${practiceId} and l.order_id in (select x.id from (${orders}) x (wearer_id, id))`,
    events: sql<(Pick<OrderEventRow, 'state' | 'at' | 'dueOn'> & { readonly orderId: string })[]>`
      select e.order_id, e.state, e.at, e.due_on from order_event e
      where e.practice_id = ${practiceId} and e.order_id in (select x.id from (${orders}) x (wearer_id, id)) order by e.sequence`,
    receipts: sql<Pick<OrderReceiptRow, 'id' | 'orderLineId' | 'packs' | 'handedOver'>[]>`
      select r.id, r.order_line_id, r.packs, exists (select 1 from hand_over h where h.practice_id = r.practice_id and h.order_receipt_id = r.id and not h.voided
          and not exists (select 1 from hand_over c where c.corrects_id = h.id)) as handed_over
      from order_receipt r join order_line l on l.practice_id = r.practice_id and l.id = r.order_line_id
      where r.practice_id = ${practiceId} and l.order_id in (select x.id from (${orders}) x (wearer_id, id)) order by r.sequence`,
    losses: listLosses(sql, practiceId, ids),
    calls: sql<Of<LastCall>[]>`
      select distinct on (wearer_id) wearer_id, outcome, later_on, called_at from reorder_call
      where practice_id = ${practiceId} and wearer_id = any (${ids}::uuid[]) order by wearer_id, called_at desc, id`,
    bought: sql<Of<{ eye: Eye; observedAt: string }>[]>`
      select v.wearer_id, a.eye, max(a.observed_at) as observed_at
      from visit v join worn_answer a on a.practice_id = v.practice_id and a.visit_id = v.id and a.answer = 'boughtElsewhere' and not a.voided
        and not exists (select 1 from worn_answer n where n.practice_id = a.practice_id and n.corrects_id = a.id)
      where v.practice_id = ${practiceId} and v.wearer_id = any (${ids}::uuid[]) group by v.wearer_id, a.eye`,
  };
};

/** What one wearer's runways rest on; the last call by its moment. */
export interface RunwayFile {
  readonly wearerId: string;
  readonly file: RunwaySource['file'];
  readonly lastCall: LastCall | null;
}

const fact = { correctsId: null, voided: false, visitId: '', recordedBy: '', recordedByName: '', reason: null } as const;
const ofWearer = <Row extends { readonly wearerId: string }>(rows: readonly Row[], wearerId: string): readonly Row[] => rows.filter((r) => r.wearerId === wearerId);

/** What the runways of some wearers rest on, in a few statements however many they are; wearers without a prescription are left out. */
export async function readRunwayFiles(
  sql: Db,
  practiceId: string,
  wearerIds: readonly string[],
  today: string,
): Promise<{ readonly files: readonly RunwayFile[]; readonly trade: Readonly<Record<string, ReorderTrade>> }> {
  const rows = await bundle(sql, parts(sql, practiceId, wearerIds));
  const lensIds = [...new Set(rows.eyes.flatMap((e) => e.lensId ?? []))];
  const lenses: readonly LensRow[] = lensIds.length > 0 ? await listLenses(sql, practiceId, lensIds) : [];
  const codes = [...new Set([...lenses.map((l) => l.familyCode), ...rows.eyes.flatMap((e) => e.raw?.familyCode ?? [])])];
  const sold = codes.length > 0 ? await listTrade(sql, practiceId, codes, today) : [];
  const lensById = Object.fromEntries(lenses.map((l) => [l.id, l]));
  const files = wearerIds.flatMap((wearerId): RunwayFile[] => {
    const prescriptions = ofWearer(rows.prescriptions, wearerId);
    if (prescriptions.length === 0) return [];
    const orders = ofWearer(rows.orders, wearerId).map((o) => {
      const lines = rows.lines.filter((l) => l.orderId === o.id);
      return {
        ...o,
        kind: 'supply',
        lines,
        events: rows.events.filter((e) => e.orderId === o.id),
        receipts: rows.receipts.filter((r) => lines.some((l) => l.id === r.orderLineId)),
      } as unknown as Order;
    });
    const held = prescriptions.map((p) => ({ ...p, eyes: rows.eyes.filter((e) => e.prescriptionId === p.id) as unknown as PrescriptionEyeRow[] }));
    const handOvers = ofWearer(rows.given, wearerId).map((row) => {
      const current = { ...fact, ...row, recordedAt: row.observedAt } as unknown as HandOverFact;
      return { rootId: row.rootId, rows: [current], current };
    });
    const wornAnswers = ofWearer(rows.bought, wearerId).map(({ eye, observedAt }) => {
      const current = { ...fact, id: eye, rootId: eye, eye, observedAt, recordedAt: observedAt, answer: 'boughtElsewhere' as const, lensId: null, lensOnEyeId: null };
      return { rootId: eye, rows: [current], current };
    });
    const losses: readonly LensLoss[] = ofWearer(rows.losses, wearerId);
    const file = { prescriptions: held, handOvers, orders, losses, wornAnswers, lenses: lensById };
    return [{ wearerId, file, lastCall: ofWearer(rows.calls, wearerId)[0] ?? null }];
  });
  return { files, trade: Object.fromEntries(sold.map(({ code, ...trade }) => [code, trade])) };
}
