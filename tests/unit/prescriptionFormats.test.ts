import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ExchangedDocument } from '../../src/core';
import { readFhir } from '../../src/formats/fhir/read';
import { readPrescriptions, writePrescriptions } from '../../src/formats/prescriptionCsv';
import { bundleOf, PERSON, PRESCRIBER, PRESCRIPTION, prescription } from '../support/exchanged';
import { CONTACT_33124, SPECTACLES_33123 } from '../support/fhirExamples';

describe('FHIR R4, read', () => {
  const read = (resource: unknown) => {
    const result = readFhir(JSON.stringify(resource));
    if (!result.ok) throw new Error(result.error.code);
    return result.value;
  };
  it('what this product wrote reads back as it was, with nothing left aside', () => {
    fc.assert(
      fc.property(prescription, (p) => {
        expect(readFhir(JSON.stringify(bundleOf(p)))).toEqual({
          ok: true,
          value: { document: { person: PERSON, prescriber: PRESCRIBER, prescriptions: [p] }, left: [] },
        });
      }),
    );
  });
  it('the published example of contact lenses, 33124: power, curve and diameter; colour, duration and note are listed, not lost', () => {
    const { document, left } = read(CONTACT_33124);
    const [p] = document.prescriptions;
    expect(p).toMatchObject({ kind: 'contact', number: '15014', writtenOn: '2014-06-15' });
    for (const eye of ['right', 'left'] as const)
      expect(p?.eyes[eye]).toMatchObject({ power: { sphere: -2.75, cylinder: 0 }, baseCurveMm: 8.7, diameterMm: 14, addD: 1.75, brand: 'OphthaGuard' });
    const ofRight = left.filter((l) => l.path.includes('lensSpecification[0]')).map((l) => [l.path.split('].').at(-1) ?? '', l.value]);
    expect(left.map((l) => l.value)).toEqual(expect.arrayContaining(['green', 'month', 'Shade treatment for extreme light sensitivity']));
    expect(ofRight.length).toBeGreaterThan(0);
  });
  it('the published example of spectacles, 33123: sphere, cylinder, axis and add; its prisms are listed', () => {
    const { document, left } = read(SPECTACLES_33123);
    expect(document.prescriptions[0]).toMatchObject({
      kind: 'spectacles',
      eyes: { right: { power: { sphere: -2, cylinder: 0 }, addD: 2 }, left: { power: { sphere: -1, cylinder: -0.5, axis: 180 }, addD: 2 } },
    });
    expect(left.map((l) => l.value)).toEqual(expect.arrayContaining(['0.5', 'down', 'up']));
  });
  it('every value of the examples is either in the document or in the list of what was left aside', () => {
    for (const example of [CONTACT_33124, SPECTACLES_33123]) {
      const { document, left } = read(example);
      const said = JSON.stringify([document, left]);
      const leaves = (value: unknown): unknown[] =>
        Array.isArray(value) ? value.flatMap(leaves) : typeof value === 'object' && value !== null ? Object.values(value).flatMap(leaves) : [value];
      for (const item of leaves(example.lensSpecification)) {
        if (['contact', 'lens', 'http://terminology.hl7.org/CodeSystem/ex-visionprescriptionproduct'].includes(String(item))) continue;
        expect(said, String(item)).toContain(String(item));
      }
    }
  });
  it('plus cylinder is written in minus, axis 0 is 180', () => {
    const of = (right: object) =>
      read({ ...SPECTACLES_33123, lensSpecification: [{ ...SPECTACLES_33123.lensSpecification[0], ...right }] }).document.prescriptions[0]?.eyes.right?.power;
    expect(of({ sphere: -4, cylinder: 1.5, axis: 90 })).toEqual({ sphere: -2.5, cylinder: -1.5, axis: 180 });
    expect(of({ sphere: -2, cylinder: -1, axis: 0 })).toEqual({ sphere: -2, cylinder: -1, axis: 180 });
  });
  it.each<[string, unknown, string]>([
    ['no JSON', '{"a":', 'fileNotJson'],
    ['JSON of something else', { resourceType: 'Patient' }, 'fileNoPrescription'],
    ['an eye named twice', { ...CONTACT_33124, lensSpecification: [CONTACT_33124.lensSpecification[0], CONTACT_33124.lensSpecification[0]] }, 'fileEyeTwice'],
    ['a cylinder without an axis', { ...SPECTACLES_33123, lensSpecification: [{ eye: 'right', sphere: -1, cylinder: -1 }] }, 'filePowerMissing'],
    ['a power of no lens', { ...CONTACT_33124, lensSpecification: [{ ...CONTACT_33124.lensSpecification[0], power: -275 }] }, 'filePowerOutside'],
    ['an eye that is none', { ...CONTACT_33124, lensSpecification: [{ ...CONTACT_33124.lensSpecification[0], eye: 'both' }] }, 'filePowerMissing'],
  ])('%s is refused whole', (_name, file, code) => {
    expect(readFhir(typeof file === 'string' ? file : JSON.stringify(file))).toMatchObject({ ok: false, error: { code } });
  });
  it('nested a hundred thousand deep, or a megabyte long, it is refused and ends nothing', () => {
    expect(readFhir('['.repeat(100_000) + ']'.repeat(100_000))).toMatchObject({ ok: false });
    expect(readFhir(JSON.stringify({ resourceType: 'VisionPrescription', a: 'x'.repeat(1_100_000) }))).toMatchObject({
      error: { code: 'filePrescriptionLarge' },
    });
  });
  it('whatever it is given, it answers', () => {
    fc.assert(
      fc.property(fc.json({ maxDepth: 6 }), (text) => {
        expect(typeof readFhir(text).ok).toBe('boolean');
      }),
    );
    // And prescriptions with something put anywhere in them.
    const keys = fc.constantFrom('eye', 'sphere', 'power', 'cylinder', 'axis', 'product', 'extension', 'identifier', 'lensSpecification', 'status', 'created');
    fc.assert(
      fc.property(keys, fc.jsonValue(), (key, value) => {
        const [first] = CONTACT_33124.lensSpecification;
        for (const file of [
          { ...CONTACT_33124, [key]: value },
          { ...CONTACT_33124, lensSpecification: [{ ...first, [key]: value }] },
        ]) {
          const result = readFhir(JSON.stringify(file));
          if (result.ok) for (const p of result.value.document.prescriptions) expect(p.eyes.right !== null || p.eyes.left !== null).toBe(true);
        }
      }),
    );
  });
});

describe('separated values', () => {
  const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
  it('any prescription reads back as it was written, whatever the name holds', () => {
    const name = fc.stringMatching(/^[=+@A-Za-z"',;-][A-Za-z0-9 "',;.-]{0,20}[A-Za-z0-9]$/);
    fc.assert(
      fc.property(fc.array(prescription, { minLength: 1, maxLength: 3 }), name, (list, wearer) => {
        const prescriptions = list.map((p, i) => ({ ...p, number: String(i + 1) }));
        const document: ExchangedDocument = { person: { ...PERSON, name: wearer }, prescriber: PRESCRIBER, prescriptions };
        expect(readPrescriptions(bytes(writePrescriptions(document)))).toEqual({ ok: true, value: { document, left: [] } });
      }),
    );
  });
  it('a formula in a name is made harmless for table programs; figures keep their sign', () => {
    const text = writePrescriptions({ person: { ...PERSON, name: '=cmd()' }, prescriber: null, prescriptions: [PRESCRIPTION] });
    expect(text).toContain("'=cmd()");
    expect(text).toContain('-1.75');
    expect(text).not.toContain("'-1.75");
  });
  it('semicolons, decimal commas, plus cylinder and unknown columns', () => {
    const file = 'eye;sphere;cylinder;axis;shoe\r\nright;-4,00;+1,50;90;42\r\nleft;-2,25;;;41\r\n';
    expect(readPrescriptions(bytes(file))).toMatchObject({
      ok: true,
      value: {
        left: [{ path: 'shoe' }],
        document: {
          prescriptions: [{ eyes: { right: { power: { sphere: -2.5, cylinder: -1.5, axis: 180 } }, left: { power: { sphere: -2.25, cylinder: 0 } } } }],
        },
      },
    });
  });
  it.each<[string, string, string]>([
    ['no eye', 'eye,sphere\nboth,-1', 'lineEye'],
    ['a sphere in words', 'eye,sphere\nright,strong', 'lineFigure'],
    ['a cylinder without an axis', 'eye,sphere,cylinder\nright,-1,-1', 'linePower'],
    ['an eye twice', 'eye,sphere\nright,-1\nright,-2', 'lineEyeTwice'],
    ['nothing', '', 'fileEmpty'],
    ['other columns', 'a,b\n1,2', 'fileColumns'],
    ['a power of no lens', 'eye,sphere\nright,-275', 'lineFigure'],
  ])('%s is refused with its line', (_name, file, code) => {
    expect(readPrescriptions(bytes(file))).toMatchObject({ ok: false, error: { code } });
  });
  it('whatever it is given, it answers', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (file) => {
        expect(typeof readPrescriptions(file).ok).toBe('boolean');
      }),
    );
  });
});
