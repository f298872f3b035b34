import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { provenance, type WearerFile } from '../../src/core';
import { openWorld, signPair, type World } from './support';
import { bundleOf, PERSON, PRESCRIPTION } from '../support/exchanged';

let world: World;
let prescriptionId: string;
let wearerId: string;
beforeAll(async () => {
  world = await openWorld();
  const visitId = await world.visit(1, { right: '-2.00', left: '-2.25' });
  prescriptionId = await signPair(world, visitId);
  wearerId = (await world.must('createWearer', { name: PERSON.name, birthDate: PERSON.birthDate, sameNameIsAnother: true })).wearerId ?? '';
}, 60_000);
afterAll(() => world.db.close());

const fileOf = async (format: 'fhir' | 'csv') =>
  (await world.must('exportPrescription', { prescriptionId, format })) as unknown as { name: string; text: string };
const kept = () => world.db.owner<{ document: { prescriptions: object[] } }[]>`select document from outside_prescription where wearer_id = ${wearerId}`;
const keep = (text: string, change: object = {}) => world.do('keepOutsidePrescription', { wearerId, fileName: 'from-afar.json', text, ...change });

describe('a prescription leaves as a file, and comes as one', () => {
  it('what leaves as FHIR or as CSV says the same, and is what was signed', async () => {
    const [fhir, csv] = [await fileOf('fhir'), await fileOf('csv')];
    expect(fhir.name).toMatch(/^prescription-\d+\.fhir\.json$/);
    const own = await world.wearerId(1);
    const read = (text: string) => world.must('readPrescriptionFile', { wearerId: own, fileName: 'x', text });
    const [a, b] = [await read(fhir.text), await read(csv.text)] as unknown as { document: { prescriptions: { createdAt: string }[] }; left: []; doubts: [] }[];
    expect(a?.doubts).toEqual([]);
    expect(a?.left).toEqual([]);
    expect(b).toMatchObject({ left: [], doubts: [], document: { prescriptions: a?.document.prescriptions } });
    const [signed] = await world.db.owner<{ number: number; expiresOn: string }[]>`select number, expires_on from prescription where id = ${prescriptionId}`;
    expect(a?.document.prescriptions[0]).toMatchObject({ number: String(signed?.number), expiresOn: signed?.expiresOn, kind: 'contact' });
  });
  it('a file is shown before anything is kept; kept, it is what was shown, and no prescription of this practice', async () => {
    const text = JSON.stringify(bundleOf(PRESCRIPTION));
    const before = await world.db.owner`select count(*)::int as count from prescription`;
    await world.must('readPrescriptionFile', { wearerId, fileName: 'from-afar.json', text });
    expect(await kept()).toEqual([]);
    expect(await keep(text)).toMatchObject({ ok: true });
    expect((await kept())[0]?.document.prescriptions).toEqual([PRESCRIPTION]);
    expect(await world.db.owner`select count(*)::int as count from prescription`).toEqual(before);
    const { files } = (await world.must('readOutsidePrescriptions', { wearerId })) as unknown as { files: { fileName: string }[] };
    expect(files.map((f) => f.fileName)).toEqual(['from-afar.json']);
  });
  it('what the file names counts as worn, as long as nothing is known better; a lens handed over here goes before it', async () => {
    const file = (await world.must('readWearer', { wearerId })) as unknown as WearerFile;
    const { worn } = provenance(file, 'right');
    expect(worn?.kind).toBe('broughtAlong');
    const lens = file.lenses[worn?.lensId ?? ''];
    const [prescribed] = [PRESCRIPTION.eyes.right];
    expect([lens?.sphereD, lens?.cylinderD, lens?.familyName, lens?.listed]).toEqual([
      prescribed?.power.sphere,
      prescribed?.power.cylinder,
      prescribed?.brand,
      false,
    ]);
  });
  it('a file of another wearer asks why it is theirs; nothing is kept until it is said', async () => {
    const text = JSON.stringify(bundleOf(PRESCRIPTION, { ...PERSON, name: 'Somebody Else' }));
    const count = (await kept()).length;
    expect(await world.must('readPrescriptionFile', { wearerId, fileName: 'x', text })).toMatchObject({ doubts: ['otherName'] });
    expect(await keep(text)).toMatchObject({ error: { fields: [{ path: ['despiteReason'], code: 'fileOfAnother', data: { name: 'Somebody Else' } }] } });
    expect(await kept()).toHaveLength(count);
    expect(await keep(text, { despiteReason: 'her maiden name' })).toMatchObject({ ok: true });
    const born = JSON.stringify(bundleOf(PRESCRIPTION, { ...PERSON, birthDate: '1991-03-14' }));
    expect(await keep(born)).toMatchObject({ ok: false });
  });
  it('what cannot be read is said at the file, and nothing of it is kept', async () => {
    const count = (await kept()).length;
    for (const [text, code] of [
      ['{"resourceType":', 'fileNotJson'],
      ['{"resourceType":"Patient"}', 'fileNoPrescription'],
      ['eye,sphere\nright,-1\nright,-2', 'lineEyeTwice'],
      ['eye,sphere\nright,-1\nleft,-275', 'lineFigure'],
      ['shoe\n42', 'fileColumns'],
    ] as const) {
      expect(await keep(text), text).toMatchObject({ error: { kind: 'invalid', fields: [{ path: ['text'], code }] } });
    }
    expect(await kept()).toHaveLength(count);
    await expect(world.db.app`delete from outside_prescription`).rejects.toThrow(/permission denied/);
  });
});
