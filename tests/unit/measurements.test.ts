import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { inOrder, inQuarters, MEASURED_HOW, radiusOfPower, type MeasuredHow } from '../../src/core';
import { readMeasurementCsv } from '../../src/formats/measurements/csv';
import { isDicom, readDicom } from '../../src/formats/measurements/dicom';
import { refractorFile, type Measured } from '../../src/standins/refractor/write';

const POWERS: Measured['eyes'] = { right: { power: { sphere: -3.25, cylinder: -1.75, axis: 20 } }, left: { power: { sphere: 2, cylinder: 0, axis: 180 } } };
const CURVES: Measured['eyes'] = {
  right: { curves: { flatMm: 7.8, flatAxis: 20, steepMm: 7.5 } },
  left: { curves: { flatMm: 7.9, flatAxis: 5, steepMm: 7.6 } },
};
const measured = (how: MeasuredHow, over: Partial<Measured> = {}): Measured => ({
  how,
  patient: 'QUILLBY^NESSA^B',
  born: '19920314',
  eyes: how === 'keratometry' ? CURVES : POWERS,
  at: ['20261124', '101500'],
  ...over,
});
const folder = mkdtempSync(join(tmpdir(), 'keenfit-dicom-'));
afterAll(() => rmSync(folder, { recursive: true }));

describe('a DICOM object of an instrument', () => {
  it.each(MEASURED_HOW)('of %s, as the stand-in writes it, is one by an independent reader (dicom3tools, dciodvfy)', (how) => {
    const path = join(folder, `${how}.dcm`);
    writeFileSync(path, refractorFile(measured(how)));
    const { stderr, stdout, status, error } = spawnSync('dciodvfy', [path], { encoding: 'utf8' });
    expect(error, 'Debian’s dicom3tools is installed by npm test').toBeUndefined();
    expect(`${stdout}${stderr}`).not.toMatch(/Error/);
    expect(status).toBe(0);
  });
  it('is read back: powers, person, moment, instrument', () => {
    const read = readDicom(refractorFile(measured('autorefraction')));
    expect(read).toMatchObject({
      ok: true,
      value: {
        person: { name: 'NESSA B QUILLBY', birthDate: '1992-03-14' },
        measuredAt: '2026-11-24T10:15',
        device: 'Harbour Optics Sounder',
        left: [],
        parts: [{ how: 'autorefraction', vertexMm: null, eyes: { right: { power: POWERS.right?.power, curves: null }, left: { power: POWERS.left?.power } } }],
      },
    });
  });
  it('keratometry is read in its order, the flatter first', () => {
    const read = readDicom(refractorFile(measured('keratometry', { eyes: { right: { curves: { flatMm: 7.5, flatAxis: 110, steepMm: 7.8 } } } })));
    expect(read).toMatchObject({
      ok: true,
      value: { parts: [{ eyes: { right: { power: null, curves: { flatMm: 7.8, flatAxis: 20, steepMm: 7.5 } }, left: null } }] },
    });
    // Source: keratometer constant 337.5; 7.80 mm is 43.27 D.
    expect(radiusOfPower(43.27)).toBeCloseTo(7.8, 3);
  });
  it('axis 0 is 180, plus cylinders are turned over, and finer steps are rounded and said', () => {
    const read = readDicom(
      refractorFile(
        measured('subjectiveRefraction', {
          eyes: { right: { power: { sphere: -4.12, cylinder: 1.12, axis: 90 } }, left: { power: { sphere: -1, cylinder: -0.5, axis: 0 } } },
        }),
      ),
    );
    expect(read).toMatchObject({
      ok: true,
      value: { parts: [{ eyes: { right: { power: { sphere: -3, cylinder: -1, axis: 180 } }, left: { power: { axis: 180 } } } }] },
    });
    expect(read.ok && read.value.left).toHaveLength(1);
  });
  it('what cannot be is refused whole, and so is any other object', () => {
    expect(readDicom(refractorFile(measured('autorefraction', { eyes: { right: { power: { sphere: -44, cylinder: 0, axis: 180 } } } })))).toMatchObject({
      ok: false,
      error: { code: 'measurementOut' },
    });
    expect(readDicom(refractorFile(measured('keratometry', { eyes: { right: { curves: { flatMm: 78, flatAxis: 5, steepMm: 75 } } } })))).toMatchObject({
      ok: false,
      error: { code: 'measurementOut' },
    });
    expect(readDicom(refractorFile(measured('autorefraction', { eyes: {} })))).toMatchObject({ ok: false, error: { code: 'measurementEmpty' } });
    const whole = refractorFile(measured('autorefraction'));
    const other = Uint8Array.from(whole);
    // The class of the object, in the data: one digit changed is an X-ray.
    const at = Buffer.from(whole).lastIndexOf('5.1.4.1.1.78.2');
    other.set(new TextEncoder().encode('5.1.4.1.1.1.0 '), at);
    expect(readDicom(other)).toMatchObject({ ok: false, error: { code: 'dicomOther' } });
  });
  it('a file cut off, or of nothing but noise behind the mark, never throws', () => {
    const whole = refractorFile(measured('keratometry'));
    fc.assert(
      fc.property(fc.integer({ min: 132, max: whole.length - 1 }), (length) => {
        const read = readDicom(whole.subarray(0, length));
        // Half a file may still hold a whole eye; what is said of it is what stands there.
        if (read.ok) expect(read.value.parts[0]?.eyes.right?.curves?.flatMm).toBe(7.8);
      }),
      { numRuns: 60 },
    );
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 600 }), (noise) => {
        const file = new Uint8Array(132 + noise.length);
        file.set(new TextEncoder().encode('DICM'), 128);
        file.set(noise, 132);
        expect(isDicom(file)).toBe(true);
        expect(readDicom(file).ok).toBe(false);
      }),
      { numRuns: 100 },
    );
  });
  it('one that is compressed as a whole is not opened', () => {
    const whole = Buffer.from(refractorFile(measured('autorefraction')));
    const at = whole.indexOf('1.2.840.10008.1.2.1\0');
    const deflated = Buffer.concat([whole.subarray(0, at), Buffer.from('1.2.840.10008.1.2.1.99'), whole.subarray(at + 20)]);
    expect(readDicom(deflated)).toMatchObject({ ok: false, error: { code: 'dicomDeflated' } });
  });
});

describe('measurements as separated values', () => {
  const csv = (text: string) => readMeasurementCsv(new TextEncoder().encode(text));
  it('powers and curves of both eyes, with decimal commas too; unknown columns are left aside', () => {
    const read = csv(
      'wearer;birth_date;how;eye;sphere;cylinder;axis;vertex_mm;k_flat_mm;k_flat_axis;k_steep_mm;pd\nNessa Quillby;1992-03-14;autorefraction;right;-3,25;-1,75;20;12;;;;62\nNessa Quillby;1992-03-14;keratometry;left;;;;;7,50;110;7,80;\n',
    );
    expect(read).toMatchObject({
      ok: true,
      value: {
        person: { name: 'Nessa Quillby', birthDate: '1992-03-14' },
        parts: [
          { how: 'autorefraction', vertexMm: 12, eyes: { right: { power: { sphere: -3.25, cylinder: -1.75, axis: 20 } }, left: null } },
          { how: 'keratometry', eyes: { right: null, left: { curves: { flatMm: 7.8, flatAxis: 20, steepMm: 7.5 } } } },
        ],
        left: [{ path: 'pd' }],
      },
    });
  });
  it.each([
    ['eye,sphere\nboth,-1', 'lineEye'],
    ['eye,sphere,cylinder\nright,-1,-0.5', 'linePower'],
    ['eye,k_flat_mm\nright,7.8', 'linePower'],
    ['eye,sphere\nright,-31', 'lineFigure'],
    ['eye,sphere\nright,12x', 'lineFigure'],
    ['eye,sphere\nright,-1\nright,-2', 'lineEyeTwice'],
    ['eye,how,sphere\nright,guess,-1', 'lineHow'],
    ['eye,sphere\nright,', 'measurementEmpty'],
    ['wearer,eye,sphere\nA,right,-1\nB,left,-1', 'measurementPeople'],
  ])('%j is refused: %s', (text, code) => {
    expect(csv(text)).toMatchObject({ ok: false, error: { code } });
  });
});

describe('figures of instruments', () => {
  it('quarters never go towards minus by a tie, and never further than half a step', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), fc.integer({ min: -1200, max: 0 }), fc.integer({ min: 1, max: 180 }), (s, c, axis) => {
        const rounded = inQuarters({ sphere: s / 100, cylinder: c / 100, axis });
        expect(Math.abs(rounded.sphere - s / 100)).toBeLessThanOrEqual(0.125 + 1e-9);
        expect(Math.abs(rounded.cylinder - c / 100)).toBeLessThanOrEqual(0.125 + 1e-9);
        expect(rounded.sphere * 4).toBe(Math.round(rounded.sphere * 4));
      }),
    );
    expect(inQuarters({ sphere: -3.125, cylinder: -0.125, axis: 90 })).toEqual({ sphere: -3, cylinder: 0, axis: 180 });
  });
  it('meridians put in order stay the same cornea', () => {
    expect(inOrder(inOrder({ flatMm: 7.5, flatAxis: 90, steepMm: 7.8 }))).toEqual({ flatMm: 7.8, flatAxis: 180, steepMm: 7.5 });
  });
});
