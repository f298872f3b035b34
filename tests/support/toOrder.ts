import { connect, type Sql } from '../../src/db/client';
import { perform } from '../../src/services/perform';
import { SERVICES, type ServiceName } from '../../src/services';
import type { StaffCaller } from '../../src/services/define';
import { DEMO_PASSWORD } from '../../demo/load';
import { TEST_NOW } from './moment';
import { SENTENCES } from './sentences';

/** Wearers with a pair signed for a year and nothing ordered yet: one prescription a visit. */
export async function toOrder(
  owner: Sql,
  appUrl: string,
  count: number,
): Promise<readonly { readonly visitId: string; readonly version: number; readonly prescriptionId: string }[]> {
  const sql = connect(appUrl, { max: 2 });
  const side = connect(appUrl, { max: 1 });
  const [asha] = await owner<Omit<StaffCaller, 'kind'>[]>`
    select m.practice_id, p.id as person_id, p.display_name as name, m.title, p.account, m.roles, m.register_number
    from person p join membership m on m.person_id = p.id where p.account = 'asha'`;
  const [family] = await owner<{ id: string }[]>`select id from lens_family_version where code = 'turnstone-30'`;
  if (!asha || !family) throw new Error('the demo is not there');
  const does = async (name: ServiceName, input: object): Promise<Record<string, unknown>> => {
    const deps = { sql, side, clock: { now: () => Promise.resolve(TEST_NOW) }, mode: 'test' } as const;
    const done = await perform<never, Record<string, unknown>, never>(SERVICES[name] as never, deps, { ...asha, kind: 'staff' }, input);
    if (!done.ok) throw new Error(`${name}: ${JSON.stringify(done.error)}`);
    return done.value;
  };
  const lens = { familyId: family.id, sphere: -2, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 };
  const made = [];
  for (let i = 0; i < count; i++) {
    const { wearerId } = await does('createWearer', { name: `Orders ${i}`, birthDate: '1988-08-08' });
    const { visitId } = await does('openVisit', { wearerId, kind: 'longFollowUp' });
    await does('recordRefraction', { visitId, version: 1, right: '-2.00', left: '-2.00', vertexMm: 12 });
    const eye = { mode: 'final', lens, triedLensOnEyeId: null };
    const { prescriptionId } = await does('sign', {
      ...{
        visitId,
        version: 2,
        password: DEMO_PASSWORD,
        right: eye,
        left: eye,
        expiresOn: '2027-11-24',
        waitNote: 'x y',
        daysPerWeek: 7,
        overrides: SENTENCES,
      },
    });
    made.push({ visitId: String(visitId), version: 3, prescriptionId: String(prescriptionId) });
  }
  await sql.end();
  await side.end();
  return made;
}
