import 'server-only';
import type { LensAdd } from '../core';
import type { Db } from './client';
import type { Moved } from './trialStock';

/** Trial lenses that somebody else has. */
export interface TrialLoan {
  readonly id: string;
  readonly familyName: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: LensAdd | null;
  readonly lot: string;
  readonly expiresOn: string;
  readonly count: number;
  readonly lentTo: string;
  readonly dueOn: string | null;
  readonly lentAt: string;
}

/** Loans that were not ended, the first lent first. */
export const listLoans = (sql: Db, practiceId: string) => sql<TrialLoan[]>`
  select o.id, f.name as family_name, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, s.lot, s.expires_on, o.count, o.lent_to, o.due_on, o.lent_at
  from trial_loan o join trial_stock s on s.practice_id = o.practice_id and s.id = o.trial_stock_id
  join lens l on l.id = s.lens_id join lens_family_version f on f.id = l.family_version_id
  where o.practice_id = ${practiceId} and not exists (select 1 from trial_loan_end e where e.loan_id = o.id)
  order by o.lent_at, o.id`;

export interface NewLoan {
  readonly id: string;
  readonly practiceId: string;
  readonly trialStockId: string;
  readonly count: number;
  readonly lentTo: string;
  readonly dueOn: string | null;
}
export async function insertLoan(sql: Db, loan: NewLoan, { at, by }: Moved): Promise<void> {
  await sql`insert into trial_loan ${sql({ ...loan, lentAt: at, lentBy: by })}`;
}

/** A loan; null for none such. */
export async function findLoan(sql: Db, practiceId: string, id: string): Promise<Pick<NewLoan, 'trialStockId' | 'count'> | null> {
  const [row] = await sql<
    Pick<NewLoan, 'trialStockId' | 'count'>[]
  >`select trial_stock_id, count from trial_loan where practice_id = ${practiceId} and id = ${id}`;
  return row ?? null;
}

/** Ends a loan; false where somebody else did meanwhile. @param end.returned lenses that came back unopened */
export async function endLoan(
  sql: Db,
  end: { readonly id: string; readonly practiceId: string; readonly loanId: string; readonly returned: number },
  { at, by }: Moved,
): Promise<boolean> {
  const { count } = await sql`insert into trial_loan_end ${sql({ ...end, endedAt: at, endedBy: by })} on conflict (loan_id) do nothing`;
  return count === 1;
}
