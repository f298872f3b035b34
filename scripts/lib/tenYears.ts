import { addDays } from '../../src/core';
import type { Sql } from '../../src/db/client';
import type { StaffCaller } from '../../src/services/define';
import { CAREFUL } from '../../tests/support/careful';
import type { Result } from '../../src/lib/outcome';

/** A way to have a use case done, whatever release it is of. */
export type Ask = (name: string, input: object) => Promise<Result<Record<string, unknown>>>;
export interface TenYears {
  readonly wearerId: string;
  /** The last visit, still open. */
  readonly visitId: string;
  readonly version: number;
}

const VISITS = 41;
const SIGNS = ['lidMargin', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining', 'vessels', 'infiltrates', 'scars'] as const;
const ANSWERS: Readonly<Record<string, unknown>> = { ...CAREFUL, goals: ['sport'], daysPerWeek: 6 };

/**
 * A wearer of ten years by the same use cases as real entries: four visits a year, each with history, eye health, powers, and,
 * once a year, lenses tried and read. The last visit is open.
 * @param at sets the moment of what follows
 */
export async function tenYears(
  ask: Ask,
  at: (instant: string) => void,
  today: string,
  lens: { readonly right: object; readonly left: object },
): Promise<TenYears> {
  const must = async (name: string, input: object): Promise<Record<string, unknown>> => {
    const done = await ask(name, input);
    if (!done.ok) throw new Error(`${name}: ${JSON.stringify(done.error)}`);
    return done.value;
  };
  at(`${addDays(today, -VISITS * 90)}T15:00:00.000Z`);
  const { wearerId } = (await must('createWearer', { name: 'Bench of Ten Years', birthDate: '1985-05-05' })) as { wearerId: string };
  let last = { visitId: '', version: 1 };
  for (let i = 0; i < VISITS; i++) {
    at(`${addDays(today, -(VISITS - 1 - i) * 90)}T15:00:00.000Z`);
    const { visitId } = (await must('openVisit', { wearerId, kind: i === 0 ? 'firstFit' : 'longFollowUp' })) as { visitId: string };
    let version = 1;
    const doIt = async (name: string, input: object): Promise<void> => {
      version = ((await must(name, { visitId, version, ...input })) as { version: number }).version;
    };
    await doIt('recordHistory', { answers: Object.entries(ANSWERS).map(([question, value]) => ({ question, value, note: null })) });
    const grades = SIGNS.map((sign, place) => ({ sign, value: sign === 'scars' || sign === 'infiltrates' ? 0 : ((i + place) % 3) / 2 }));
    await doIt('recordFindings', { right: grades, left: grades });
    await doIt('recordRefraction', { right: `-3.${i % 2 ? '25' : '50'} -1.75 x 20`, left: '-4.50 -1.25 x 165', vertexMm: 12 });
    if (i % 4 === 0) await doIt('putOnTrials', { ...lens });
    last = { visitId, version };
    if (i < VISITS - 1) await must('closeVisit', { visitId, version });
  }
  return { wearerId, ...last };
}

/** Whoever asks in the bench: the demo's first prescriber. */
export async function prescriberOf(sql: Sql): Promise<StaffCaller> {
  const [row] = await sql<Omit<StaffCaller, 'kind'>[]>`
    select m.practice_id, p.id as person_id, p.account, p.display_name as name, m.title, m.roles, m.register_number
    from person p join membership m on m.person_id = p.id where p.account = 'asha'`;
  if (!row) throw new Error('the demo has no asha');
  return { ...row, kind: 'staff' };
}
