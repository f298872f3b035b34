import { addSeconds, careTopicsFor, topicsAgain, type Eye, type Role } from '../../src/core';
import { loadDemo } from '../../demo/load';
import { findPractice } from '../../src/db/practice';
import type { Result } from '../../src/lib/outcome';
import type { StaffCaller, Deps } from '../../src/services/define';
import { perform } from '../../src/services/perform';
import { SERVICES, type ServiceName } from '../../src/services';
import { recordOf, type VisitRecord } from '../../src/features/visit/shell/visitData';
import type { Library } from '../../src/services/family/queries';
import type { SessionContext } from '../../src/services/sessionContext';
import type { VisitPart } from '../../src/services/visit/slices';
import { createDatabase, type TestDatabase } from '../support/database';
import { TEST_NOW } from '../support/moment';
import { SENTENCES } from '../support/sentences';

/** A database with the demo in it, a clock to move, and people of every role. */
export interface World {
  readonly db: TestDatabase;
  readonly deps: Deps;
  readonly practiceId: string;
  readonly asha: StaffCaller;
  readonly callers: Readonly<Record<Role, StaffCaller>>;
  wearerId(record: number): Promise<string>;
  move(seconds: number): void;
  do(name: ServiceName, input: unknown, caller?: StaffCaller): Promise<Result<Record<string, never>>>;
  must(name: ServiceName, input: unknown, caller?: StaffCaller): Promise<Record<string, string & number>>;
  record(visitId: string): Promise<VisitRecord>;
  /** A visit opened for a wearer, with powers recorded. */
  visit(record?: number, powers?: Partial<Record<Eye, string | null>>, kind?: string): Promise<string>;
  version(visitId: string): Promise<number>;
}

const ACCOUNTS: Readonly<Record<Role, string>> = { prescriber: 'asha', technician: 'joss', coordinator: 'renny', admin: 'merle' };

export async function openWorld(): Promise<World> {
  const db = await createDatabase();
  let now = TEST_NOW;
  const deps: Deps = { sql: db.app, side: db.side, clock: { now: () => Promise.resolve(now) }, mode: 'test' };
  const [practice] = await db.owner<{ id: string }[]>`select id from practice`;
  if (!practice) throw new Error('no practice');
  const callerOf = async (account: string): Promise<StaffCaller> => {
    const [row] = await db.owner<{ practiceId: string; personId: string; displayName: string; title: string; roles: Role[]; registerNumber: string | null }[]>`
      select m.practice_id, p.id as person_id, p.display_name, m.title, m.roles, m.register_number from person p join membership m on m.person_id = p.id where p.account = ${account}`;
    if (!row) throw new Error(account);
    return { ...row, kind: 'staff', name: row.displayName, account };
  };
  const callers = {
    prescriber: await callerOf(ACCOUNTS.prescriber),
    technician: await callerOf(ACCOUNTS.technician),
    coordinator: await callerOf(ACCOUNTS.coordinator),
    admin: await callerOf(ACCOUNTS.admin),
  };
  const run: World['do'] = (name, input, caller = callers.prescriber) => perform(SERVICES[name] as never, deps, caller, input);
  const must: World['must'] = async (name, input, caller) => {
    const result = await run(name, input, caller);
    if (!result.ok) throw new Error(`${name}: ${JSON.stringify(result.error)}`);
    return result.value;
  };
  const part = async (visitId: string, page: string) =>
    (await must('readVisit', { visitId, page })) as unknown as { readonly session: SessionContext; readonly part: VisitPart };
  const record: World['record'] = async (visitId) => {
    const lens = await part(visitId, 'lens');
    const trend = await part(visitId, 'eyeHealth');
    const { library } = (await must('readFamilies', {})) as unknown as { readonly library: Library };
    return recordOf({ ...lens.part, page: 'lens', slices: { ...trend.part.slices, ...lens.part.slices } }, lens.session, library);
  };
  const version: World['version'] = async (visitId) => (await part(visitId, 'history')).part.head.visit.version;
  const wearerId: World['wearerId'] = async (n) => {
    const [row] = await db.owner<{ id: string }[]>`select id from wearer where record_number = ${n} and practice_id = ${practice.id}`;
    if (!row) throw new Error(`wearer ${n}`);
    return row.id;
  };
  return {
    db,
    deps,
    practiceId: practice.id,
    asha: callers.prescriber,
    callers,
    wearerId,
    move: (seconds) => {
      now = addSeconds(now, seconds);
    },
    do: run,
    must,
    record,
    version,
    visit: async (n = 1, powers = { right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165' }, kind = 'firstFit') => {
      const { visitId = '' } = await must('openVisit', { wearerId: await wearerId(n), kind });
      await must('recordRefraction', { visitId, version: 1, right: powers.right ?? null, left: powers.left ?? null, vertexMm: 12 });
      return visitId;
    },
  };
}

/** Another practice on the same server, with its own people and lenses. */
export async function openNeighbour(world: World): Promise<{ practiceId: string; caller: StaffCaller }> {
  const owner = world.db.owner;
  await owner.unsafe(`update person set account = account || '-1'`);
  const { practiceId } = await loadDemo(owner, TEST_NOW);
  const practice = await findPractice(owner, practiceId);
  const [person] = await owner<{ id: string }[]>`select p.id from person p join membership m on m.person_id = p.id where m.practice_id = ${practiceId} limit 1`;
  if (!practice || !person) throw new Error('neighbour');
  return {
    practiceId,
    caller: {
      kind: 'staff',
      practiceId,
      personId: person.id,
      name: 'Neighbour',
      title: '',
      account: 'asha',
      registerNumber: null,
      roles: ['prescriber', 'technician', 'coordinator', 'admin'],
    },
  };
}

export { SENTENCES };
/** Blinks at one place, as many as a verdict asks. */
export const blinksAt = (rotationLeft: number, count = 3) => Array.from({ length: count }, () => ({ rotationLeft }));

/** Turnstones of −2.00 and −2.25 signed for a visit whose powers were recorded; the prescription. */
export async function signPair(world: World, visitId: string, expiresOn = '2027-11-24'): Promise<string> {
  const lens = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
  const { prescriptionId } = await world.must('sign', {
    visitId,
    version: 2,
    password: 'plain-sight',
    right: { mode: 'final', lens, triedLensOnEyeId: null },
    left: { mode: 'final', lens: { ...lens, sphere: -2.25 }, triedLensOnEyeId: null },
    expiresOn,
    waitNote: 'x y',
    daysPerWeek: 7,
    overrides: SENTENCES,
  });
  return prescriptionId ?? '';
}

/** The lens spec of a family by code, as the forms take it. */
export async function spec(world: World, code: string, sphere: number, cylinder: number, axis: number, baseCurve = 8.6, diameter = 14.2) {
  const [row] = await world.db.owner<{ id: string }[]>`select id from lens_family_version where code = ${code} and practice_id = ${world.practiceId}`;
  return { familyId: row?.id ?? '', sphere, cylinder, axis, add: null, baseCurve, diameter };
}

let strangers = 0;
/** Somebody who has nothing on the way yet: whoever has is sold fewer boxes. @returns the record number */
export async function newWearer(world: World): Promise<number> {
  strangers += 1;
  const letters = strangers.toString(26).replace(/./g, (d) => String.fromCharCode(97 + parseInt(d, 26)));
  const { wearerId } = await world.must('createWearer', { name: `Stranger ${letters}`, birthDate: '1990-01-02' });
  const [row] = await world.db.owner<{ recordNumber: number }[]>`select record_number from wearer where id = ${wearerId ?? ''}`;
  return row?.recordNumber ?? 0;
}

/** One box of a spherical lens for the right eye, signed and ordered; its identity. */
export async function orderOne(world: World): Promise<string> {
  const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: null });
  const lens = await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2);
  const signing = { password: 'plain-sight', left: null, expiresOn: '2027-11-20', waitNote: 'x y', daysPerWeek: 7, overrides: SENTENCES };
  const { prescriptionId } = await world.must('sign', { visitId, version: 2, ...signing, right: { mode: 'final', lens, triedLensOnEyeId: null } });
  const { orderId } = await world.must('placeOrder', {
    visitId,
    version: 3,
    requestKey: crypto.randomUUID(),
    prescriptionId,
    rightPacks: 1,
    leftPacks: 0,
  });
  return orderId ?? '';
}

/** All that a lesson still needs once the moves are done: the care system named, acuity of each eye that has its lens on, topics asked again. */
export async function finishLesson(world: World, visitId: string, lessonId: string | undefined, eyes: readonly Eye[]): Promise<void> {
  const at = async () => ({ visitId, version: await world.version(visitId) });
  const [product] = await world.db.owner<{ productId: string }[]>`select product_id from care_product where name = 'Tidewash'`;
  await world.must('prescribeCare', { ...(await at()), productId: product?.productId ?? '', chosenFor: 'first' });
  for (const eye of eyes) await world.must('recordLessonSight', { ...(await at()), lessonId, eye, acuity: { logMar: 0, typed: '20/20' } });
  const topics = topicsAgain(careTopicsFor({ singleUse: false }));
  await world.must('recordTopicsAgain', { ...(await at()), lessonId, topics: [...topics] });
}

/** A wearer who was taught with a monthly lens on the right eye, signed off, and took it home; the visit. */
export async function taughtAndGiven(world: World): Promise<string> {
  const visitId = await world.visit(await newWearer(world), { right: '-2.00', left: null });
  const at = async () => ({ visitId, version: await world.version(visitId) });
  await world.must('putOnTrials', { ...(await at()), right: await spec(world, 'turnstone-30', -2, 0, 180, 8.4, 14.2), left: null });
  const { lessonId = '' } = await world.must('startLesson', { ...(await at()), handler: '' });
  for (const move of ['off', 'on', 'off', 'on'] as const) {
    await world.must('recordAttempt', { ...(await at()), lessonId, eye: 'right', move, worked: true, miss: null });
  }
  for (const topic of careTopicsFor({ singleUse: false })) await world.must('recordTopic', { ...(await at()), lessonId, topic });
  await finishLesson(world, visitId, lessonId, ['right']);
  await world.must('signOffLesson', { ...(await at()), lessonId, unbookedReason: 'books at the desk' }, world.callers.technician);
  const lensOnEyeId = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  await world.must('handOver', { ...(await at()), right: { lensOnEyeId, lot: 'A1', expiresOn: '2028-01-01' }, left: null }, world.callers.technician);
  return visitId;
}

/** Gives a page on a telephone: what stands behind the link's hash. */
export async function homeToken(world: World, visitId: string): Promise<string> {
  await world.db.owner`
    insert into practice_setting (id, practice_id, key, value, set_at, set_by)
    values (gen_random_uuid(), ${world.practiceId}, 'publicAddress', '"https://lenses.example"', now(), ${world.asha.personId})`;
  const { link } = await world.must('giveTakeHome', { visitId, language: 'en', way: 'link' }, world.callers.technician);
  return String(link).split('#')[1] ?? '';
}
