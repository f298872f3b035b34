/** Names that FHIR R4 leaves to whoever writes: what it has no field for. Documented in docs/prescription-formats.md. */
const BASE = 'https://keenfit.example/fhir';
export const EXTENSION = {
  expires: `${BASE}/prescription-expires`,
  purpose: `${BASE}/prescription-purpose`,
  modality: `${BASE}/lens-modality`,
  addBand: `${BASE}/lens-add-band`,
} as const;
export const SYSTEM = {
  product: 'http://terminology.hl7.org/CodeSystem/ex-visionprescriptionproduct',
  number: `${BASE}/prescription-number`,
  register: `${BASE}/register-number`,
} as const;
