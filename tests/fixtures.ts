import { DEMO_FAMILIES, wholeFamily } from '../demo/families';
import {
  chains,
  DEFAULT_SETTINGS,
  STEP_IDS,
  type StepAnswers,
  type Eye,
  type OnEyeFact,
  type OverRefractionFact,
  type RefractionFact,
  type RotationFact,
  type FitFact,
  type AttemptFact,
  type HandOverFact,
  type TopicFact,
} from '../src/core';
import type { VisitRecord } from '../src/features/visit/shell/visitData';

/** Records built by hand for tests of view logic: one visit of one made-up wearer. */

export const AT = '2026-11-24T15:00:00Z';
export const LATER = '2026-11-24T15:30:00Z';
let serial = 0;
export const meta = (eye: Eye, at = AT) => {
  serial += 1;
  const id = `fact-${serial}`;
  return {
    id,
    rootId: id,
    correctsId: null,
    voided: false,
    eye,
    visitId: 'visit',
    observedAt: at,
    recordedAt: at,
    recordedBy: 'p',
    recordedByName: 'P',
    reason: null,
  };
};
export const families = DEMO_FAMILIES.map((f) => wholeFamily(f, f.code));

type Lens = VisitRecord['lenses'][string];
export function lens(id: string, code: string, sphereD: number, cylinderD = 0, axisDeg = 180): Lens {
  const family = families.find((f) => f.code === code);
  const curve = family?.blocks[0]?.curves[0];
  if (!family || !curve) throw new Error(code);
  return {
    id,
    familyVersionId: family.id,
    familyCode: family.code,
    sphereD,
    cylinderD,
    axisDeg,
    addBand: null,
    baseCurveMm: curve.baseCurve,
    diameterMm: curve.diameter,
    familyName: family.name,
    maker: family.maker,
    geometry: family.geometry,
    modality: family.modality,
    markLayout: family.markLayout,
    settleMinutes: family.settleMinutes,
    irregular: family.irregular,
    sightMinutes: family.sightMinutes,
    markSpacing: family.markSpacing,
    listed: true,
  };
}

export const refraction = (eye: Eye, sphereD: number, cylinderD: number, axisDeg: number, at = AT): RefractionFact => ({
  ...meta(eye, at),
  sphereD,
  cylinderD,
  axisDeg,
  vertexMm: 12,
  typedText: '',
  source: 'typed',
  addD: null,
  addSource: null,
  nearCm: null,
  nearAcuityLogMar: null,
  nearAcuityTyped: null,
  prismText: null,
  acuityLogMar: null,
  acuityTyped: null,
});
export const onEye = (eye: Eye, lensId: string | null, source: OnEyeFact['source'] = 'trial', at = AT): OnEyeFact => ({
  ...meta(eye, at),
  lensId,
  description: lensId ? null : 'a lens',
  source,
  trialNumber: 1,
  trialStockId: 's',
  diagnosticLensId: null,
  lot: 'A1',
  expiresOn: '2028-01-01',
  putOnAt: at,
});
export const rotation = (eye: Eye, lensOnEyeId: string, rotationLeftDeg: number, at = AT): RotationFact => ({
  ...meta(eye, at),
  lensOnEyeId,
  rotationLeftDeg,
  how: 'typed',
  provisional: false,
  seriesNo: 1,
  scaleReading: null,
  pictureId: null,
  photoRollDeg: null,
  photoLid: null,
  photoFoundDeg: null,
});
export const fit = (eye: Eye, lensOnEyeId: string, verdict: FitFact['verdict']): FitFact => ({ ...meta(eye), lensOnEyeId, verdict, provisional: false });
export const overRefraction = (eye: Eye, lensOnEyeId: string, sphereD: number, cylinderD: number, axisDeg: number): OverRefractionFact => ({
  ...meta(eye),
  lensOnEyeId,
  sphereD,
  cylinderD,
  axisDeg,
  vertexMm: 12,
  typedText: '',
  provisional: false,
  acuityLogMar: null,
  acuityTyped: null,
  cylinderTested: cylinderD !== 0,
  plusHalf: null,
  control: 'none',
});
export const attempt = (lessonId: string, eye: Eye, move: 'on' | 'off', change: Partial<AttemptFact> = {}): AttemptFact => ({
  ...meta(eye),
  lessonId,
  move,
  worked: true,
  unaided: true,
  miss: null,
  technique: null,
  ...change,
});
export const topic = (lessonId: string, name: string): TopicFact => ({ ...meta('right'), lessonId, topic: name, atEnd: false });
export const handedOver = (eye: Eye, lensId: string, handedOn = '2026-11-24'): HandOverFact => ({
  ...meta(eye),
  lensId,
  source: 'trial',
  lensOnEyeId: 'x',
  orderLineId: null,
  lot: 'A1',
  expiresOn: '2028-01-01',
  openedOn: handedOn,
  lensCount: 1,
  handedOn,
});
export const lesson = (id: string, change: Partial<VisitRecord['lessons'][number]> = {}): VisitRecord['lessons'][number] => ({
  id,
  visitId: 'visit',
  wearerId: 'w',
  eyes: ['right', 'left'],
  onAtStart: [],
  singleUse: false,
  onlyTopics: null,
  handler: null,
  startedAt: AT,
  startedByName: 'Teo Brannock',
  overnight: null,
  productId: null,
  overridden: null,
  overrideNote: null,
  signOffId: null,
  signedAt: null,
  signedByName: null,
  ...change,
});
export const prescription = (
  eyes: readonly { eye: Eye; lensId: string }[],
  change: Partial<VisitRecord['prescriptions'][number]> = {},
): VisitRecord['prescriptions'][number] => ({
  id: 'rx',
  number: 7,
  visitId: 'visit',
  wearerId: 'w',
  examinedOn: '2026-11-24',
  issuedAt: AT,
  issuedOn: '2026-11-24',
  expiresOn: '2027-11-24',
  prescriber: { name: 'P', title: 't', registerNumber: 'r', practice: 'x', address: 'y', telephone: 'z' },
  waitNote: null,
  daysPerWeek: 7,
  supersedesId: null,
  expiryReason: null,
  copy: null,
  overrides: [],
  purpose: 'everyday',
  eyes: eyes.map((e) => ({
    ...e,
    mode: 'final' as const,
    raw: null,
    triedLensOnEyeId: null,
    baseCurveTriedMm: null,
    baseCurveOrderedMm: 8.6,
    aim: null,
    working: {},
  })),
  ...change,
});
export const order = (
  lines: readonly { eye: Eye; lensId: string; packs: number }[],
  states: readonly VisitRecord['orders'][number]['events'][number]['state'][] = ['placed'],
): VisitRecord['orders'][number] => ({
  id: 'o',
  number: 3,
  kind: 'supply' as const,
  requestKey: 'k',
  visitId: 'visit',
  prescriptionId: 'rx',
  placedAt: AT,
  placedByName: 'P',
  dueAt: null,
  doneAt: null,
  attempts: 0,
  lines: lines.map((l) => ({ ...l, id: `l-${l.eye}`, mode: 'final' as const, raw: null, packSize: 6, packPriceMinor: 100, aim: null })),
  receipts: [],
  shipped: [],
  claims: [],
  supplierId: null,
  supplierName: null,
  deliverTo: 'practice' as const,
  events: states.map((state) => ({ state, at: AT, supplierReference: null, dueOn: null, detail: {} })),
});

export interface RecordParts {
  readonly refractions?: readonly RefractionFact[];
  readonly onEye?: readonly OnEyeFact[];
  readonly unconfirmed?: boolean;
  readonly rotations?: readonly RotationFact[];
  readonly fits?: readonly FitFact[];
  readonly overRefractions?: readonly OverRefractionFact[];
  readonly lenses?: readonly Lens[];
  readonly attempts?: readonly AttemptFact[];
  readonly topics?: readonly TopicFact[];
  readonly handOvers?: readonly HandOverFact[];
  readonly lessons?: VisitRecord['lessons'];
  readonly prescriptions?: VisitRecord['prescriptions'];
  readonly orders?: VisitRecord['orders'];
}

export function record(parts: RecordParts = {}): VisitRecord {
  const onEyes = parts.onEye ?? [];
  return {
    visit: { id: 'visit', practiceId: 'p', wearerId: 'w', kind: 'firstFit', openedAt: AT, closedAt: null, version: 1 },
    wearer: {
      id: 'w',
      recordNumber: 1,
      version: 1,
      name: 'W',
      birthDate: '1990-01-01',
      telephone: null,
      occupation: null,
      guardian: null,
      language: 'en',
      age: 36,
    },
    answers: Object.fromEntries(STEP_IDS.map((step) => [step, { code: 'notYet', state: null }])) as StepAnswers,
    lines: { wants: [], cautions: [], wears: { which: null, name: null, last: null, days: null }, more: 0 },
    alert: null,
    stops: [],
    worn: { right: null, left: null },
    libraryTag: '1',
    lenses: Object.fromEntries((parts.lenses ?? []).map((l) => [l.id, l])),
    prescriptions: parts.prescriptions ?? [],
    lessons: parts.lessons ?? [],
    attempts: chains(parts.attempts ?? []),
    topics: chains(parts.topics ?? []),
    careSystems: [],
    lessonInstructions: [],
    nearFindings: [],
    lessonWays: [],
    lessonTurns: [],
    lessonSights: [],
    exercises: [],
    handOvers: chains(parts.handOvers ?? []),
    decided: null,
    wornAnswers: [],
    trials: [],
    broughtAlong: [],
    sellerVerified: [],
    losses: [],
    orders: parts.orders ?? [],
    facts: {
      refractions: chains(parts.refractions ?? []),
      onEye: chains(onEyes),
      onEyeExtras: onEyes.map((o) => ({
        lensOnEyeId: o.id,
        how: parts.unconfirmed ? null : ('putOnHere' as const),
        takenOffAt: null,
        withdrawnOffAt: null,
        withdrawnReason: null,
      })),
      fits: chains(parts.fits ?? []),
      rotations: chains(parts.rotations ?? []),
      overRefractions: chains(parts.overRefractions ?? []),
      lensFindings: [],
      acuitiesBoth: [],
      eyeAcuities: [],
      taskSights: [],
      heldQuarters: [],
      pairChanges: [],
      choices: [],
      guided: [],
    },
    earlierRefractions: [],
    earlierRotations: [],
    knownTurns: [],
    bestBefore: { right: null, left: null },
    addsBefore: [],
    families,
    ofLenses: families,
    drawer: [],
    sets: [],
    trend: { right: {}, left: {} },
    earlierOnEye: [],
    givenFamilies: [],
    houseList: [],
    careProducts: [],
    carePairs: [],
    instruments: [],
    drafts: [],
    health: {
      answers: [],
      findings: [],
      stops: [],
      overrides: [],
      decisions: [],
      referrals: [],
      pictures: [],
      lesions: [],
      adverseEvents: [],
      returns: [],
      aftercare: [],
      aftercareEnds: [],
      wearBefore: null,
      lowest: { right: {}, left: {} },
      flattestSteep: { right: null, left: null },
      prescribers: ['p'],
      myopicShift: null,
    },
    session: {
      practice: {
        name: 'x',
        town: 'y',
        address: 'z',
        telephone: '1',
        emergencyTelephone: null,
        timeZone: 'America/New_York',
        locale: 'en-US',
        currency: 'USD',
      },
      settings: DEFAULT_SETTINGS,
      now: AT,
      today: '2026-11-24',
      viewer: { personId: 'p', name: 'P', title: 't', account: 'a', registerNumber: null, roles: ['prescriber'] },
      mode: 'test',
      camera: false,
    },
  };
}
