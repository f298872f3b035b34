import fc from 'fast-check';
import { ADD_BANDS, MODALITIES, PURPOSES, type ExchangedDocument, type ExchangedLens, type ExchangedPrescription } from '../../src/core';
import { writeBundle } from '../../src/formats/fhir/write';

export const LENS: ExchangedLens = {
  power: { sphere: -3, cylinder: -1.75, axis: 30 },
  add: null,
  addD: null,
  brand: 'Harbour Optics Plover 30 Toric',
  baseCurveMm: 8.6,
  diameterMm: 14.2,
  modality: 'monthly',
};
/** A pair as it leaves: a toric and a sphere. */
export const PRESCRIPTION: ExchangedPrescription = {
  kind: 'contact',
  number: '7',
  purpose: 'everyday',
  writtenOn: '2026-11-24',
  createdAt: '2026-11-24T15:00:00.000Z',
  expiresOn: '2027-11-24',
  eyes: { right: LENS, left: { ...LENS, power: { sphere: -4.75, cylinder: 0, axis: 180 }, brand: 'Harbour Optics Turnstone 30' } },
};
export const PERSON = { name: 'Nessa Quillby', birthDate: '1992-03-14', telephone: '+1 555 010 0199' };
export const PRESCRIBER = { name: 'Asha Penhallow', registerNumber: 'OD-4471', telephone: '555 0100', address: '1 Quay Street, Saltmarsh' };
const IDS = { id: '6f1c2f0e-3b1c-4a0a-9d6e-0f4f9f2b7a11', person: '2d0c8f4e-6f2b-4a55-8c3f-1b2a3c4d5e6f', prescriber: '9a8b7c6d-5e4f-4a3b-8c2d-1e0f9a8b7c6d' };
export const bundleOf = (
  prescription: ExchangedPrescription,
  person: ExchangedDocument['person'] = PERSON,
  prescriber: ExchangedDocument['prescriber'] = PRESCRIBER,
) =>
  writeBundle({
    id: IDS.id,
    person: { ...(person ?? PERSON), id: IDS.person },
    prescriber: { ...(prescriber ?? PRESCRIBER), id: IDS.prescriber },
    prescription,
    at: '2026-11-24T15:00:00.000Z',
  });

const quarter = (min: number, max: number) => fc.integer({ min: min * 4, max: max * 4 }).map((q) => q / 4 + 0);
const power = fc
  .record({ sphere: quarter(-30, 30), cylinder: quarter(-12, 0), axis: fc.integer({ min: 1, max: 180 }) })
  .map((p) => (p.cylinder === 0 ? { ...p, axis: 180 } : p));
const plainText = fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9 .,/'-]{0,28}[A-Za-z0-9]$/);
const lens = fc.record({
  power,
  add: fc.constantFrom(null, ...ADD_BANDS),
  addD: fc.option(quarter(0, 4), { nil: null }),
  brand: plainText,
  baseCurveMm: fc.constantFrom(null, 8.3, 8.6, 9.05),
  diameterMm: fc.constantFrom(null, 13.8, 14, 14.2),
  modality: fc.constantFrom(null, ...MODALITIES),
});
const day = fc.integer({ min: 0, max: 20_000 }).map((d) => new Date(d * 86_400_000).toISOString().slice(0, 10));
/** Any prescription that can be signed. */
export const prescription = fc
  .record({
    right: fc.option(lens, { nil: null }),
    left: fc.option(lens, { nil: null }),
    number: fc.integer({ min: 1, max: 99_999 }),
    purpose: fc.constantFrom(...PURPOSES),
    written: day,
    expires: fc.option(day, { nil: null }),
  })
  .filter((p) => p.right !== null || p.left !== null)
  .map(({ right, left, number, purpose, written, expires }): ExchangedPrescription => ({
    kind: 'contact',
    number: String(number),
    purpose,
    writtenOn: written,
    createdAt: `${written}T09:30:00.000Z`,
    expiresOn: expires,
    eyes: { right, left },
  }));
