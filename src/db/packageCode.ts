import 'server-only';
import type { Eye, LensRow } from '../core';
import type { Db } from './client';

/** What codes of boxes name, as was learned last. */
export const listPackageCodes = (sql: Db, practiceId: string, gtins: readonly string[]) => sql<(LensRow & { readonly gtin: string })[]>`
  select c.gtin, l.id, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm,
    f.code as family_code, f.name as family_name, f.maker, f.geometry, f.modality, f.mark_layout, f.settle_minutes, f.irregular, f.sight_minutes, f.mark_spacing, f.listed
  from (select distinct on (gtin) gtin, lens_id from package_code where practice_id = ${practiceId} and gtin = any (${[...gtins]})
    order by gtin, sequence desc) c
  join lens l on l.practice_id = ${practiceId} and l.id = c.lens_id join lens_family_version f on f.id = l.family_version_id`;

export interface NewPackageCode {
  readonly id: string;
  readonly gtin: string;
  readonly lensId: string;
  readonly reason: string | null;
}
/** Keeps what codes name, as one of the staff read it off a box, or a supplier announced it. */
export async function insertPackageCodes(
  sql: Db,
  practiceId: string,
  codes: readonly NewPackageCode[],
  learned: { readonly at: string } & ({ readonly by: string } | { readonly supplierMessageId: string }),
): Promise<void> {
  if (codes.length === 0) return;
  const from = 'by' in learned ? { learnedBy: learned.by, supplierMessageId: null } : { learnedBy: null, supplierMessageId: learned.supplierMessageId };
  const of = { learnedAt: learned.at, ...from };
  await sql`insert into package_code ${sql(codes.map((c) => ({ ...c, practiceId, ...of })))}`;
}

export interface BoxSerial {
  readonly gtin: string;
  readonly serial: string;
}
/** Of some boxes those that came before, with the order under which they did. */
export const listKnownSerials = (sql: Db, practiceId: string, boxes: readonly BoxSerial[]) => sql<(BoxSerial & { readonly number: number })[]>`
  select b.gtin, b.serial, o.number
  from box_serial b join order_receipt r on r.practice_id = b.practice_id and r.id = b.order_receipt_id
  join order_line l on l.practice_id = r.practice_id and l.id = r.order_line_id join lens_order o on o.practice_id = l.practice_id and o.id = l.order_id
  where b.practice_id = ${practiceId}
    and (b.gtin, b.serial) in (select x ->> 'gtin', x ->> 'serial' from jsonb_array_elements(${sql.json(boxes.map(({ gtin, serial }) => ({ gtin, serial })))}) x)`;

export async function insertBoxSerials(sql: Db, practiceId: string, boxes: readonly (BoxSerial & { readonly orderReceiptId: string })[]): Promise<void> {
  if (boxes.length > 0) await sql`insert into box_serial ${sql(boxes.map((b) => ({ ...b, practiceId })))}`;
}

/** The receipt that a box with a number of its own came with. */
export async function findReceiptOfBox(sql: Db, practiceId: string, { gtin, serial }: BoxSerial): Promise<string | null> {
  const [row] = await sql<{ orderReceiptId: string }[]>`
    select order_receipt_id from box_serial where practice_id = ${practiceId} and gtin = ${gtin} and serial = ${serial}`;
  return row?.orderReceiptId ?? null;
}

/** Whose boxes came with a receipt. */
export async function findReceiptOwner(
  sql: Db,
  practiceId: string,
  receiptId: string,
): Promise<{ readonly number: number; readonly wearerName: string; readonly eye: Eye } | null> {
  const [row] = await sql<{ number: number; wearerName: string; eye: Eye }[]>`
    select o.number, i.name as wearer_name, l.eye from order_receipt r join order_line l on l.practice_id = r.practice_id and l.id = r.order_line_id
    join lens_order o on o.practice_id = l.practice_id and o.id = l.order_id join wearer_identity i on i.wearer_id = o.wearer_id
    where r.practice_id = ${practiceId} and r.id = ${receiptId}`;
  return row ?? null;
}
