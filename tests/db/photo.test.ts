import type { AddressInfo } from 'node:net';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SERVICES } from '../../src/services';
import { perform } from '../../src/services/perform';
import { cameraServer } from '../../src/standins/camera/server';
import { refractorFile, type Measured } from '../../src/standins/refractor/write';
import { newWearer, openWorld, type World } from './support';

let world: World;
const camera = cameraServer();
let cameraUrl = '';
beforeAll(async () => {
  world = await openWorld();
  await new Promise<void>((done) => camera.listen(0, '127.0.0.1', done));
  cameraUrl = `http://127.0.0.1:${(camera.address() as AddressInfo).port}`;
}, 60_000);
afterAll(async () => {
  camera.close();
  await world.db.close();
});

const at = async (visitId: string) => ({ visitId, version: await world.version(visitId) });
/** A lens of a set on the right eye: its visit, and that lens. */
async function lensOn(): Promise<{ visitId: string; lensOnEyeId: string; lensId: string }> {
  const visitId = await world.visit(await newWearer(world), { right: '-3.00', left: '-3.00' });
  const sets = (await world.must('readSets', {})) as unknown as { lenses: { id: string; setCode: string }[] };
  const used = await world.db.owner<{ id: string }[]>`select distinct diagnostic_lens_id as id from lens_on_eye where diagnostic_lens_id is not null`;
  const free = sets.lenses.find((l) => l.setCode === 'heron-cone' && !used.some((u) => u.id === l.id));
  await world.must('putOnSetLenses', { ...(await at(visitId)), right: free?.id ?? null, left: null, despiteReason: 'no other lens fits this cornea' });
  const [row] = (await world.record(visitId)).facts.onEye;
  return { visitId, lensOnEyeId: row?.rootId ?? '', lensId: row?.current?.lensId ?? '' };
}
const picture = async (visitId: string, eye: 'right' | 'left' = 'right'): Promise<string> => {
  const bytes = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#884422' } })
    .png()
    .toBuffer();
  const kept = await world.must('recordPicture', { ...(await at(visitId)), eye, title: '', declaredType: 'image/png', bytes: new Uint8Array(bytes) });
  return kept.pictureId ?? '';
};
const blink = (pictureId: string, over: object = {}) => ({
  rotationLeft: 12,
  how: 'photo',
  photo: { pictureId, rollDeg: -1.5, lid: 'held', foundDeg: 11.7 },
  ...over,
});
const read = async (of: { visitId: string; lensOnEyeId: string }, ...blinks: object[]) =>
  world.do('recordOnEye', { ...(await at(of.visitId)), right: { lensOnEyeId: of.lensOnEyeId, blinks, vertexMm: 12 }, left: null });

describe('a turn read off a picture', () => {
  it('is kept with its picture, how far that was turned, the held lid, and what the program had read', async () => {
    const of = await lensOn();
    const id = await picture(of.visitId);
    expect(await read(of, blink(id), blink(id, { rotationLeft: 13, photo: { pictureId: id, rollDeg: 0, lid: 'free', foundDeg: null } }))).toMatchObject({
      ok: true,
    });
    const { rotations } = (await world.record(of.visitId)).facts;
    expect(rotations.map((r) => r.current)).toMatchObject([
      { how: 'photo', pictureId: id, photoRollDeg: -1.5, photoLid: 'held', photoFoundDeg: 11.7, rotationLeftDeg: 12 },
      { how: 'photo', pictureId: id, photoRollDeg: 0, photoLid: 'free', photoFoundDeg: null, rotationLeftDeg: 13 },
    ]);
    // A corrected reading is typed: the picture no longer stands behind it.
    await world.must('correct', {
      ...(await at(of.visitId)),
      kind: 'rotation',
      factId: rotations[0]?.current?.id ?? '',
      value: { as: 'rotation', rotationLeft: 14 },
      reason: 'looked again at the lamp',
    });
    const [first] = (await world.record(of.visitId)).facts.rotations;
    expect(first?.current).toMatchObject({ how: 'typed', pictureId: null, photoFoundDeg: null, rotationLeftDeg: 14 });
    expect(first?.rows[0]).toMatchObject({ how: 'photo', pictureId: id });
  });
  it('is refused off a picture of the other eye, of another visit, or of none', async () => {
    const of = await lensOn();
    const other = await lensOn();
    expect(await read(of, blink(await picture(of.visitId, 'left')))).toMatchObject({ ok: false, error: { fields: [{ code: 'pictureOfOtherEye' }] } });
    expect(await read(of, blink(await picture(other.visitId)))).toMatchObject({ ok: false, error: { kind: 'notFound' } });
    expect(await read(of, { rotationLeft: 12, how: 'photo' })).toMatchObject({ ok: false, error: { fields: [{ code: 'photoNeedsPicture' }] } });
    const id = await picture(of.visitId);
    expect(await read(of, blink(id, { how: 'typed' }))).toMatchObject({ ok: false, error: { fields: [{ code: 'photoNeedsPicture' }] } });
    expect((await world.record(of.visitId)).facts.rotations).toEqual([]);
    // The database refuses it by itself.
    await read(of, blink(id));
    await expect(world.db.owner`update rotation_reading set picture_id = null where picture_id = ${id}`).rejects.toThrow(/rotation_reading_photo/);
  });
});

describe('the slit-lamp camera', () => {
  const take = async (of: { visitId: string; lensId: string }, url: string | null = cameraUrl) =>
    perform(SERVICES.takePictures, { ...world.deps, cameraUrl: url }, world.asha, { ...(await at(of.visitId)), eye: 'right', lensId: of.lensId, count: 2 });
  const pictures = async (visitId: string) => (await world.record(visitId)).health.pictures.length;
  it('takes several pictures, kept all together', async () => {
    const of = await lensOn();
    expect(await take(of)).toMatchObject({ ok: true });
    expect(await pictures(of.visitId)).toBe(2);
  }, 40_000);
  it('that is off, sends nonsense, or is not there leaves nothing behind, and says so', async () => {
    const of = await lensOn();
    const fault = (is: string) => fetch(`${cameraUrl}/fault?is=${is}`, { method: 'PUT' });
    await fault('down');
    expect(await take(of)).toMatchObject({ ok: false, error: { kind: 'ruleBroken', rule: 'cameraSilent' } });
    await fault('nonsense');
    expect(await take(of)).toMatchObject({ ok: false, error: { kind: 'invalid' } });
    await fault('none');
    expect(await take(of, null)).toMatchObject({ ok: false, error: { kind: 'ruleBroken', rule: 'noCamera' } });
    expect(await take(of, 'http://127.0.0.1:9')).toMatchObject({ ok: false, error: { kind: 'ruleBroken', rule: 'cameraSilent' } });
    expect(await pictures(of.visitId)).toBe(0);
  }, 40_000);
});

describe('a file of an instrument', () => {
  const file = (patient: string, born: string): Uint8Array => {
    const measured: Measured = {
      how: 'autorefraction',
      patient,
      born,
      eyes: { right: { power: { sphere: -3.25, cylinder: -1.75, axis: 20 } } },
      at: ['20261124', '101500'],
    };
    return refractorFile(measured);
  };
  it('is read for its wearer; one of another person says so; nobody else reads it', async () => {
    const visitId = await world.visit(await newWearer(world));
    const { wearer } = await world.record(visitId);
    const [given = '', family = ''] = wearer.name.split(' ');
    const look = (bytes: Uint8Array) => world.do('readMeasurementFile', { visitId, bytes });
    expect(await look(file(`${family}^${given}`, wearer.birthDate.replaceAll('-', '')))).toMatchObject({ ok: true, value: { format: 'dicom', doubts: [] } });
    expect(await look(file(`${family}^${given}`, '19010101'))).toMatchObject({ ok: true, value: { doubts: ['otherBirthDate'] } });
    expect(await look(file('SOMEBODY^ELSE', ''))).toMatchObject({ ok: true, value: { doubts: ['otherName'] } });
    expect(await look(file('', ''))).toMatchObject({ ok: true, value: { doubts: ['nobodyNamed'] } });
    expect(await look(new TextEncoder().encode('eye,sphere\nright,99'))).toMatchObject({
      ok: false,
      error: { fields: [{ path: ['file'], code: 'lineFigure' }] },
    });
    expect(await world.do('readMeasurementFile', { visitId, bytes: file('', '') }, world.callers.admin)).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
  });
});
