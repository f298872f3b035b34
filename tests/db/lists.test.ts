import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { provenance, type WearerFile } from '../../src/core';
import type { ListRead } from '../../src/services/list/read';
import { openWorld, type World } from './support';

let world: World;
const owner = () => world.db.owner;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const bytes = (lines: readonly string[]): Uint8Array => new TextEncoder().encode(lines.join('\r\n'));
const wearers = async (lines: readonly string[], take = false): Promise<ListRead> =>
  (await world.must('importWearers', { bytes: bytes(lines), take }, world.callers.admin)) as unknown as ListRead;
const trials = async (lines: readonly string[], take = false): Promise<ListRead> =>
  (await world.must('importTrials', { bytes: bytes(lines), take }, world.callers.coordinator)) as unknown as ListRead;
const count = async (): Promise<number> => Number((await owner()<{ n: number }[]>`select count(*)::int as n from wearer`)[0]?.n);
const said = (read: ListRead) => read.faults.map((f) => [f.line, f.gravity, f.column, f.code]);

const HEAD = 'name,birth_date,telephone,right_family,right_power,left_family,left_power,left_base_curve,left_diameter,worn_as_of,shoe size';
const GOOD = [
  'Orla Tamsin,1980-02-03,555 0111,plover-30-toric,-3.00 -1.75 x 20,turnstone-30,-4.25,8.4,14.2,2026-09-01,38',
  '"Vane, Peregrine",1 May 1999,,,,,,,,,41',
];

describe('wearers of a list', () => {
  it('looked at, nothing is taken in', async () => {
    const before = await count();
    expect(await wearers([HEAD, ...GOOD])).toMatchObject({ lines: 2, good: 2, taken: false, faults: [], unknown: ['shoe size'] });
    expect(await count()).toBe(before);
  });
  it('what is the matter is said by line and column, and those lines stay out', async () => {
    const read = await wearers([
      HEAD,
      ',1980-02-03,,,,,,,,,',
      'No Date,,,,,,,,,,',
      'Far Too Early,1850-01-01,,,,,,,,,',
      'Not Born Yet,2030-01-01,,,,,,,,,',
      '=SUM(A1),1980-01-01,,,,,,,,,',
      'Nessa Quillby,1992-03-14,,,,,,,,,',
      'Twice Here,1980-01-01,,,,,,,,,',
      'twice here,1 Jan 1980,,,,,,,,,',
      'Some Lens,1980-01-01,,no-such-lens,-3.00,,,,,,',
      'Odd Power,1980-01-01,,plover-30-toric,-3.10,,,,,,',
      'Not Made,1980-01-01,,plover-30-toric,-3.00 -9.00 x 20,,,,,,',
      'Which Family,1980-01-01,,,-3.00,,,,,,',
      'Which Curve,1980-01-01,,,,turnstone-30,-3.00,,,,',
    ]);
    expect(said(read)).toEqual([
      [2, 'stop', 'name', 'nameRequired'],
      [3, 'stop', 'birth_date', 'birthDateRequired'],
      [4, 'stop', 'birth_date', 'birthDateTooEarly'],
      [5, 'stop', 'birth_date', 'birthDateInFuture'],
      [6, 'stop', 'name', 'cellFormula'],
      [7, 'watch', 'name', 'listHere'],
      [9, 'watch', 'name', 'listTwice'],
      [10, 'stop', 'right_family', 'listFamilyUnknown'],
      [11, 'stop', 'right_power', 'sphereOffStep'],
      [12, 'stop', 'right_power', 'lensNotMade'],
      [13, 'stop', 'right_family', 'listFamilyNeeded'],
      [14, 'stop', 'left_base_curve', 'curveNeeded'],
    ]);
    expect(read).toMatchObject({ lines: 13, good: 1 });
  });
  it('taken in, each has a record of their own, and what is brought along is worn now until something is had here', async () => {
    const before = await count();
    expect(await wearers([HEAD, ...GOOD, ',,bad,,,,,,,,'], true)).toMatchObject({ lines: 3, good: 2, taken: true });
    expect(await count()).toBe(before + 2);
    const [orla] = await owner()<{ id: string; recordNumber: number }[]>`
      select w.id, w.record_number from wearer w join wearer_identity i on i.wearer_id = w.id where i.name = 'Orla Tamsin'`;
    const file = (await world.must('readWearer', { wearerId: orla?.id ?? '' })) as unknown as WearerFile;
    const { worn, nodes } = provenance(file, 'right');
    expect(worn?.kind).toBe('broughtAlong');
    expect(file.lenses[worn?.lensId ?? '']).toMatchObject({ familyCode: 'plover-30-toric', sphereD: -3, cylinderD: -1.75, axisDeg: 20 });
    expect(nodes).toMatchObject({ handedOver: null, ordered: null, prescribed: null, tried: null });
    expect(file.lenses[provenance(file, 'left').worn?.lensId ?? '']).toMatchObject({ familyCode: 'turnstone-30', baseCurveMm: 8.4 });
    // A visit starts from it too.
    const visitId = String((await world.must('openVisit', { wearerId: orla?.id, kind: 'longFollowUp' })).visitId);
    const page = (await world.must('readVisit', { visitId, page: 'history' })) as unknown as { part: { head: { worn: { right: { familyName: string } } } } };
    expect(page.part.head.worn.right.familyName).toBe('Plover 30 Toric');
    // Sent again, everybody is here already.
    expect(said(await wearers([HEAD, ...GOOD], true))).toEqual([
      [2, 'watch', 'name', 'listHere'],
      [3, 'watch', 'name', 'listHere'],
    ]);
    expect(await count()).toBe(before + 2);
  });
  it('the number after a list is the next one', async () => {
    const { wearerId } = await world.must('createWearer', { name: 'After The List', birthDate: '1970-01-01' }, world.callers.coordinator);
    const [top] = await owner()<{ n: number; mine: number }[]>`
      select max(record_number) as n, max(record_number) filter (where id = ${String(wearerId)}) as mine from wearer`;
    expect(top?.mine).toBe(top?.n);
  });
  it.each([
    [['nothing'], 'fileColumns'],
    [[HEAD], 'fileEmpty'],
    [[HEAD, '"open'], 'fileQuote'],
    [[HEAD, ...Array.from({ length: 5001 }, (_, i) => `N ${i},1980-01-01,,,,,,,,,`)], 'fileLong'],
    [[HEAD, ...Array.from({ length: 50_000 }, () => '')], 'fileLong'],
  ])('a file that is no list is refused whole', async (lines, code) =>
    expect(await world.do('importWearers', { bytes: bytes(lines), take: true }, world.callers.admin)).toMatchObject({
      error: { kind: 'invalid', fields: [{ path: ['file'], code }] },
    }),
  );
});

describe('trial lenses of a list', () => {
  const head = 'family;power;base_curve;diameter;lot;expires_on;count';
  it('come into the drawer by movements; two lines of one lot are one lot', async () => {
    const lines = [head, 'plover-30-toric;-3,00 -0,75 x 180;;;L1;2028-03-01;4', 'plover-30-toric;-3.00 -0.75 x 180;;;L1;2028-03-01;2'];
    expect(await trials(lines)).toMatchObject({ good: 2, taken: false, faults: [] });
    expect(await trials(lines, true)).toMatchObject({ good: 2, taken: true });
    expect(await owner()`select lot, count from trial_stock where lot = 'L1'`).toEqual([{ lot: 'L1', count: 6 }]);
    expect(
      await owner()`
      select s.id from trial_stock s left join trial_movement m on m.trial_stock_id = s.id group by s.id, s.count having s.count <> coalesce(sum(m.change), 0)`,
    ).toEqual([]);
  });
  it('what is the matter is said by line', async () => {
    const read = await trials([
      head,
      'plover-30-toric;-3.00 -0.75 x 180;;;L2;2025-03-01;4',
      'plover-30-toric;-3.00 -0.75 x 180;;;L1;2029-03-01;4',
      'plover-30-toric;-3.00 -0.75 x 180;;;;2028-03-01;4',
      'plover-30-toric;-3.00 -0.75 x 180;;;L3;2028-03-01;0',
      ';-3.00;;;L3;2028-03-01;1',
    ]);
    expect(said(read)).toEqual([
      [2, 'stop', 'expires_on', 'trialExpired'],
      [3, 'stop', 'expires_on', 'lotOtherDay'],
      [4, 'stop', 'lot', 'lotRequired'],
      [5, 'stop', 'count', 'trialCount'],
      [6, 'stop', 'family', 'listFamilyNeeded'],
    ]);
  });
});
