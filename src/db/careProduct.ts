import 'server-only';
import type { CareProduct } from '../core';
import type { Db } from './client';

export interface CareProductRow extends CareProduct {
  /** Of this version of it. */
  readonly id: string;
  readonly version: number;
  readonly contents: string;
  readonly lastsDays: number;
  readonly priceMinor: number;
  readonly recordedAt: string;
  readonly recordedByName: string;
}

/** The newest version of every care product, ended ones last. */
export function listCareProducts(sql: Db, practiceId: string) {
  return sql<CareProductRow[]>`
    select * from (
      select distinct on (c.product_id) c.id, c.product_id, c.version, c.system, c.maker, c.name, c.contents, c.lasts_days, c.price_minor,
        c.includes_case, c.own_label, c.soak_minutes, c.store_days, c.discard_days, c.catalyst_days, c.ended, c.recorded_at, p.display_name as recorded_by_name
      from care_product c join person p on p.id = c.recorded_by
      where c.practice_id = ${practiceId} order by c.product_id, c.version desc) newest
    order by ended, name`;
}

/** Appends a version; false when somebody else appended it first. */
export async function insertCareProduct(
  sql: Db,
  c: Omit<CareProductRow, 'recordedByName'> & { readonly practiceId: string; readonly recordedBy: string },
): Promise<boolean> {
  const rows = await sql`insert into care_product ${sql(c)} on conflict do nothing returning id`;
  return rows.length > 0;
}
