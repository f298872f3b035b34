import { Temporal } from 'temporal-polyfill';
import { addSeconds, type Role, type SettingKey, type VisitKind } from '../src/core';
import type { Sql, Tx } from '../src/db/client';
import { ensureLenses } from '../src/db/lens';
import { insertDiagnosticLenses, type NewDiagnosticLens } from '../src/db/diagnosticLens';
import { must } from '../src/lib/assert';
import { insertFamily } from '../src/db/family';
import { receiveTrials } from '../src/db/trialStock';
import { insertCareProduct } from '../src/db/careProduct';
import { insertHouseList } from '../src/db/houseList';
import { insertMembership, insertPerson, listStaff } from '../src/db/staff';
import { insertPractice, nextNumber } from '../src/db/practice';
import { insertSetting } from '../src/db/setting';
import { insertSupplier } from '../src/db/supplier';
import { insertRoom, listRooms } from '../src/db/room';
import { insertAppointment } from '../src/db/appointment';
import { insertWearer } from '../src/db/wearer';
import { hashPassword } from '../src/server/password';
import { DEMO_SET_LENSES, DEMO_SETS } from './diagnosticSets';
import { DEMO_DRAWER } from './drawer';
import { DEMO_CARE, DEMO_FAMILIES, DEMO_HOUSE_LIST, wholeFamily } from './families';
import { DEMO_PAST, insertPast } from './past';

/** Everything here is made up: people, lenses, makers, the town and its telephone numbers. */
export const DEMO_PASSWORD = 'plain-sight';
export const DEMO_PRACTICE = 'Saltmarsh Eye Care';
const TIME_ZONE = 'America/New_York';
const DEMO_SETTINGS: readonly (readonly [SettingKey, string | number])[] = [
  ['oxygenByDay', 'warn'],
  ['fitFee', 120],
  ['refitFee', 90],
  ['annualFee', 110],
  ['lensAnnualFee', 60],
  ['followUpFee', 45],
  ['redEyeFee', 70],
  ['aftercareYear', 80],
  ['caseEach', 3],
  ['referralTo', 'Harbourside Eye Casualty'],
  ['referralTelephone', '555 0190'],
];

/** Who sells lenses to the demo's practice: one for every maker, one by the maker itself that also sends to wearers. */
const DEMO_SUPPLIERS = [
  {
    name: 'Harbour Optical Supply',
    makers: [],
    endpoint: 'harbour',
    telephone: '555 0181',
    cutOffMinute: 960,
    minimumMinor: 5000,
    toWearers: false,
    ended: false,
  },
  {
    name: 'Saltern Direct',
    makers: ['Saltern Lens Works'],
    endpoint: 'saltern',
    telephone: '555 0184',
    cutOffMinute: 780,
    minimumMinor: 0,
    toWearers: true,
    ended: false,
  },
] as const;

const DEMO_ROOMS = ['Room 1', 'Room 2', 'Teaching table'] as const;

interface DemoPerson {
  readonly account: string;
  readonly name: string;
  readonly title: string;
  readonly register: string | null;
  readonly roles: readonly Role[];
}
export const DEMO_PEOPLE: readonly DemoPerson[] = [
  { account: 'asha', name: 'Asha Penhallow', title: 'optometrist', register: 'FQ 2231', roles: ['prescriber'] },
  { account: 'teo', name: 'Teo Brannock', title: 'optometrist', register: 'FQ 1980', roles: ['prescriber'] },
  { account: 'joss', name: 'Joss Merriday', title: 'technician and trainer', register: null, roles: ['technician'] },
  { account: 'renny', name: 'Renny Okoro-Vale', title: 'coordinator', register: null, roles: ['coordinator'] },
  { account: 'merle', name: 'Merle Vantongeren', title: 'practice manager', register: null, roles: ['admin'] },
];

interface DemoWearer {
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string;
  readonly occupation: string;
  readonly guardian: string | null;
  readonly at: readonly [hour: number, minute: number, room: number, person: number, kind: VisitKind] | null;
}
const WEARERS: readonly DemoWearer[] = [
  { name: 'Nessa Quillby', birthDate: '1992-03-14', telephone: '555 0126', occupation: 'ferry deck officer', guardian: null, at: [10, 0, 1, 0, 'firstFit'] },
  {
    name: 'Caspian Udell',
    birthDate: '2011-05-02',
    telephone: '555 0161',
    occupation: 'at school',
    guardian: 'Orla Udell, aunt',
    at: [10, 15, 2, 2, 'firstFit'],
  },
  { name: 'Efua Brandreth', birthDate: '1971-09-30', telephone: '555 0133', occupation: 'choir conductor', guardian: null, at: [11, 0, 0, 1, 'refit'] },
  { name: 'Pia Lindqvarn', birthDate: '1998-12-11', telephone: '555 0149', occupation: 'sail maker', guardian: null, at: [11, 15, 0, 1, 'longFollowUp'] },
  { name: 'Iola Fenmore', birthDate: '1985-07-07', telephone: '555 0117', occupation: 'baker', guardian: null, at: [11, 30, 1, 0, 'refit'] },
  { name: 'Dov Hartnoll', birthDate: '1979-01-23', telephone: '555 0158', occupation: 'net mender', guardian: null, at: [12, 30, 2, 2, 'lesson'] },
  { name: 'Lorcan Stiles-Webb', birthDate: '1990-10-05', telephone: '555 0104', occupation: 'night porter', guardian: null, at: [13, 20, 0, 1, 'firstFit'] },
  { name: 'Bettina Marrowby', birthDate: '1974-04-19', telephone: '555 0142', occupation: 'bookbinder', guardian: null, at: null },
  { name: 'Sunniva Holt', birthDate: '2001-02-28', telephone: '555 0170', occupation: 'student', guardian: null, at: null },
];

/** What the demo's practice works with: people, rooms, settings, lens families, care products, house list and trial drawer. @param since when it opened */
export async function loadPractice(tx: Tx, now: string, since: string): Promise<string> {
  const newId = (): string => crypto.randomUUID();
  const practiceId = newId();
  await insertPractice(
    tx,
    {
      id: practiceId,
      name: DEMO_PRACTICE,
      town: 'Fleetholm Quay',
      address: '12 Ropewalk, Fleetholm Quay',
      telephone: '555 0100',
      emergencyTelephone: '555 0199',
      timeZone: TIME_ZONE,
      locale: 'en',
      currency: 'USD',
    },
    since,
  );
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  const people: string[] = [];
  for (const [order, person] of DEMO_PEOPLE.entries()) {
    const id = newId();
    people.push(id);
    await insertPerson(tx, { id, account: person.account, displayName: person.name, passwordHash, at: since });
    await insertMembership(tx, {
      id: newId(),
      practiceId,
      personId: id,
      title: person.title,
      registerNumber: person.register,
      roles: person.roles,
      at: addSeconds(since, order),
    });
  }
  for (const [sortOrder, name] of DEMO_ROOMS.entries()) await insertRoom(tx, { id: newId(), practiceId, name, sortOrder });
  for (const supplier of DEMO_SUPPLIERS) await insertSupplier(tx, practiceId, newId(), supplier);
  const families = new Map<string, string>();
  for (const draft of [...DEMO_FAMILIES, ...DEMO_SETS]) {
    const id = newId();
    families.set(draft.code, id);
    const { lastOrderOn: _end, replacedBy: _by, practiceTurn: _turn, ...family } = wholeFamily(draft, id);
    await insertFamily(tx, practiceId, family, since, newId);
  }
  for (const [key, value] of DEMO_SETTINGS) await insertSetting(tx, { id: newId(), practiceId, key, value, at: since, by: people[4] ?? null });
  const manager = people[4] ?? '';
  for (const product of DEMO_CARE)
    await insertCareProduct(tx, { ...product, id: newId(), practiceId, productId: newId(), version: 1, ended: false, recordedAt: since, recordedBy: manager });
  for (const cell of DEMO_HOUSE_LIST) await insertHouseList(tx, { ...cell, id: newId(), practiceId, at: since, by: manager });
  for (const [index, [code, sphereD, cylinderD, axisDeg, baseCurveMm, diameterMm, addBand, count]] of DEMO_DRAWER.entries()) {
    const familyVersionId = families.get(code);
    if (!familyVersionId) throw new Error(`No family ${code}`);
    const spec = { familyVersionId, sphereD, cylinderD, axisDeg, addBand, baseCurveMm, diameterMm };
    const [lensId = ''] = await ensureLenses(tx, practiceId, [spec], newId);
    const lot = `${code.charAt(0).toUpperCase()}${2100 + (index % 90)}`;
    const expiresOn = todayOf(now)
      .add({ months: 8 + (index % 20) })
      .toString();
    await receiveTrials(tx, practiceId, [{ lensId, lot, expiresOn, count }], { at: since, by: people[2] ?? '' }, newId);
  }
  const sets = new Map<string, NewDiagnosticLens[]>();
  for (const [setCode, number, sphereD, baseCurveMm, diameterMm] of DEMO_SET_LENSES) {
    const spec = { familyVersionId: must(families.get(setCode), setCode), sphereD, cylinderD: 0, axisDeg: 180, addBand: null, baseCurveMm, diameterMm };
    const [lensId = ''] = await ensureLenses(tx, practiceId, [spec], newId);
    const lens = { id: newId(), lensId, setCode, number, expiresOn: todayOf(now).add({ months: 30 }).toString() };
    sets.set(setCode, [...(sets.get(setCode) ?? []), lens]);
  }
  for (const lenses of sets.values()) await insertDiagnosticLenses(tx, practiceId, lenses, { at: since, by: people[2] ?? '' });
  return practiceId;
}
const todayOf = (now: string) => Temporal.Instant.from(now).toZonedDateTimeISO(TIME_ZONE).toPlainDate();

/** The wearers of the demo's day, with their earlier visits and their appointments. */
export async function loadDay(tx: Tx, practiceId: string, now: string): Promise<void> {
  const newId = (): string => crypto.randomUUID();
  const rooms = (await listRooms(tx, practiceId)).map((room) => room.id);
  const staff = await listStaff(tx, practiceId);
  const people = DEMO_PEOPLE.map((person) => staff.find((s) => s.account === person.account)?.personId ?? '');
  const today = todayOf(now);
  for (const wearer of WEARERS) {
    const id = newId();
    const { at, ...identity } = wearer;
    await insertWearer(tx, practiceId, { ...identity, id, recordNumber: await nextNumber(tx, practiceId, 'wearer'), at: now });
    const past = DEMO_PAST.find((p) => p.wearer === wearer.name);
    if (past) await insertPast(tx, practiceId, id, past, { now, newId, by: people[2] ?? '' });
    if (!at) continue;
    const [hour, minute, room, person, kind] = at;
    const startsAt = today.toZonedDateTime({ timeZone: TIME_ZONE, plainTime: { hour, minute } }).toInstant().toString();
    const chairMinutes = kind === 'lesson' ? 60 : 45;
    await insertAppointment(
      tx,
      {
        id: newId(),
        practiceId,
        wearerId: id,
        roomId: rooms[room] ?? '',
        staffId: people[person] ?? '',
        kind,
        startsAt,
        chairMinutes,
        staffMinutes: 20,
        note: null,
      },
      { reason: null, at: now, by: people[3] ?? null },
    );
  }
}

/** The practice and its day; dates are relative to the day loaded. Loads once. */
export const loadDemo = (sql: Sql, now: string): Promise<{ practiceId: string }> =>
  sql.begin(async (tx) => {
    const practiceId = await loadPractice(tx, now, now);
    await loadDay(tx, practiceId, now);
    return { practiceId };
  });
