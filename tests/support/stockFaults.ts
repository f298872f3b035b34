import type { Sql } from '../../src/db/client';

/** What does not add up in a practice's stock, by name; none where it all does. */
export async function stockFaults(sql: Sql): Promise<readonly string[]> {
  const queries: Readonly<Record<string, string>> = {
    'more boxes received than ordered': `
      select l.id from order_line l join lens_order o on o.id = l.order_id and o.kind = 'supply' join order_receipt r on r.order_line_id = l.id
      group by l.id, l.packs having sum(r.packs) > l.packs`,
    'a receipt handed over twice': `
      select h.order_receipt_id from hand_over h where h.order_receipt_id is not null and not h.voided
        and not exists (select 1 from hand_over c where c.corrects_id = h.id) group by 1 having count(*) > 1`,
    'a hand-over of more or fewer lenses than its boxes': `
      select h.id from hand_over h join order_receipt r on r.id = h.order_receipt_id join order_line l on l.id = r.order_line_id
      where h.lens_count <> r.packs * l.pack_size or h.lot <> r.lot or h.eye <> l.eye`,
    'a drawer whose counts are not its movements': `
      select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id group by s.id, s.count having s.count <> coalesce(sum(m.change), 0)`,
    'lenses lent, or back, that are no movement': `
      select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id and m.kind in ('lent', 'lentBack') group by s.id
      having coalesce(sum(m.change), 0) <> coalesce((select sum(coalesce(e.returned, 0) - o.count) from trial_loan o left join trial_loan_end e on e.loan_id = o.id
        where o.trial_stock_id = s.id), 0)`,
    'an order closed though boxes are missing': `
      select o.id from lens_order o where not exists (select 1 from order_open w where w.order_id = o.id)
        and not exists (select 1 from order_event e where e.order_id = o.id and e.state in ('refused', 'cancelled'))
        and exists (select 1 from order_line l where l.order_id = o.id
          and l.packs > coalesce((select sum(r.packs) from order_receipt r where r.order_line_id = l.id), 0))`,
    'an order open though all of it came, or none will': `
      select w.order_id from order_open w where exists (select 1 from order_event e where e.order_id = w.order_id and e.state in ('refused', 'cancelled'))
        or not exists (select 1 from order_line l where l.order_id = w.order_id
          and l.packs > coalesce((select sum(r.packs) from order_receipt r where r.order_line_id = l.id), 0))`,
  };
  const faults: string[] = [];
  for (const [what, query] of Object.entries(queries)) if ((await sql.unsafe(query)).length > 0) faults.push(what);
  return faults;
}
