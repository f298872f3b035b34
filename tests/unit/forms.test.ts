import { describe, expect, it } from 'vitest';
import * as correction from '../../src/schema/correction';
import * as handOver from '../../src/schema/handOver';
import * as instrument from '../../src/schema/instrument';
import * as lensOnEye from '../../src/schema/lensOnEye';
import * as refraction from '../../src/schema/refraction';
import * as order from '../../src/schema/order';
import * as prescription from '../../src/schema/prescription';
import * as staff from '../../src/schema/staff';
import * as lesson from '../../src/schema/lesson';
import * as wearer from '../../src/schema/wearer';
import { toProblem } from '../../src/schema/problems';

const forms = { ...correction, ...lensOnEye, ...handOver, ...instrument, ...refraction, ...order, ...prescription, ...staff, ...lesson, ...wearer };
const id = '7b0f3c5e-8a55-4d6e-9a51-0c8f2f3a1b2c';
const inVisit = { visitId: id, version: 1 };
const lens = { familyId: id, sphere: -3, cylinder: -1.75, axis: 20, add: null, baseCurve: 8.6, diameter: 14.2 };

/** Each form with something it takes, and changes that it must refuse: [field, value, path, code]. */
const CASES: readonly [
  string,
  { safeParse: (value: unknown) => { success: boolean; error?: unknown } },
  Record<string, unknown>,
  readonly (readonly [string, unknown, string, string])[],
][] = [
  [
    'createWearer',
    forms.createWearerForm,
    { name: ' A B ', birthDate: '14 Mar 1992' },
    [
      ['name', '  ', 'name', 'nameRequired'],
      ['name', undefined, 'name', 'nameRequired'],
      ['name', 'x'.repeat(121), 'name', 'tooLong'],
      ['name', 'Ann\u202eyrneH', 'name', 'hiddenCharacters'],
      ['name', 'Ann\u0007', 'name', 'hiddenCharacters'],
      ['guardian', 'Ed\u200b', 'guardian', 'hiddenCharacters'],
      ['birthDate', undefined, 'birthDate', 'birthDateRequired'],
      ['birthDate', '1899-12-31', 'birthDate', 'birthDateTooEarly'],
      ['birthDate', '30 Feb 1990', 'birthDate', 'notADay'],
      ['birthDate', '3/4/1990', 'birthDate', 'ambiguousDay'],
      ['telephone', 'x'.repeat(41), 'telephone', 'tooLong'],
    ],
  ],
  [
    'refraction',
    forms.refractionForm,
    { ...inVisit, right: '-3.25 -1.75 x 20', left: null, vertexMm: 12 },
    [
      ['right', null, 'right', 'oneEyeRequired'],
      ['right', '300', 'right', 'bareNumber'],
      ['vertexMm', 4.5, 'vertexMm', 'vertexMmOutOfRange'],
      ['vertexMm', 12.3, 'vertexMm', 'vertexMmOffStep'],
      ['vertexMm', 'twelve', 'vertexMm', 'notANumber'],
      ['visitId', 'x', 'visitId', 'notAnIdentity'],
    ],
  ],
  [
    'putOn',
    forms.putOnForm,
    { ...inVisit, right: lens, left: null },
    [
      ['right', null, 'right', 'oneEyeRequired'],
      ['right', { ...lens, axis: 181 }, 'right.axis', 'axisOutOfRange'],
      ['right', { ...lens, sphere: -31 }, 'right.sphere', 'sphereOutOfRange'],
      ['right', { ...lens, cylinder: 0.75 }, 'right.cylinder', 'cylinderOutOfRange'],
      ['right', { ...lens, add: 'huge' }, 'right.add', 'lensAddUnknown'],
    ],
  ],
  [
    'broughtIn',
    forms.broughtInForm,
    { ...inVisit, eye: 'left', description: 'Heron', power: null, how: null },
    [
      ['description', 'x', 'description', 'lensNameRequired'],
      ['power', 'abc', 'power', 'notANumber'],
      ['eye', 'both', 'eye', 'required'],
    ],
  ],
  [
    'onEye',
    forms.onEyeForm,
    { ...inVisit, right: { lensOnEyeId: id, fit: 'fits', vertexMm: 12 }, left: null },
    [
      ['right', null, 'right', 'nothingToRecord'],
      ['right', { lensOnEyeId: id, blinks: [{ rotationLeft: 200 }], vertexMm: 12 }, 'right.blinks.0.rotationLeft', 'rotationLeftOutOfRange'],
      ['right', { lensOnEyeId: id, blinks: [{ rotationLeft: 10, how: 'scale' }], vertexMm: 12 }, 'right.blinks.0.rotationLeft', 'rotation_needsSide'],
      ['right', { lensOnEyeId: id, blinks: [{ rotationLeft: 10, scaleReading: 100 }], vertexMm: 12 }, 'right.blinks.0.rotationLeft', 'rotation_needsSide'],
      ['right', { lensOnEyeId: id, vertexMm: 12 }, 'right', 'nothingToRecord'],
      ['right', { lensOnEyeId: id, findings: [{ sign: 'comfort', value: 11 }], vertexMm: 12 }, 'right.findings.0.value', 'findingOutOfRange'],
      ['right', { lensOnEyeId: id, findings: [{ sign: 'shine', value: 1 }], vertexMm: 12 }, 'right.findings.0.value', 'findingUnknown'],
      ['right', { lensOnEyeId: id, findings: [{ sign: 'acuityLens', value: 0 }], vertexMm: 12 }, 'right.findings.0.value', 'acuityEmpty'],
      ['right', { lensOnEyeId: id, fit: 'fits', overAcuity: { logMar: 0, typed: '20/20' }, vertexMm: 12 }, 'right.overAcuity', 'acuityNeedsOver'],
      [
        'right',
        { lensOnEyeId: id, overRefraction: '+0.25', overAcuity: { logMar: 9, typed: '20/20' }, vertexMm: 12 },
        'right.overAcuity.logMar',
        'acuityOutOfRange',
      ],
    ],
  ],
  ['chooseLens', forms.chooseLensForm, { ...inVisit, lensOnEyeId: id, why: 'it sat better' }, [['why', ' ', 'why', 'reasonRequired']]],
  [
    'addInstrument',
    forms.addInstrumentForm,
    { name: 'Room 2', readStraight: 90, readTurned: 110 },
    [
      ['name', '', 'name', 'nameRequired'],
      ['readStraight', 181, 'readStraight', 'rotation_offScale'],
      ['readTurned', 10.5, 'readTurned', 'wholeNumber'],
      ['readTurned', Number.NaN, 'readTurned', 'notANumber'],
    ],
  ],
  [
    'correct',
    forms.correctForm,
    { ...inVisit, kind: 'rotation', factId: id, reason: 'slip', value: { as: 'rotation', rotationLeft: -5 } },
    [
      ['reason', 'x', 'reason', 'reasonRequired'],
      ['reason', undefined, 'reason', 'reasonRequired'],
      ['value', { as: 'rotation', rotationLeft: 1.5 }, 'value.rotationLeft', 'rotationLeftOffStep'],
      ['value', { as: 'fit', verdict: 'fits' }, 'value', 'notUnderstood'],
      ['value', { as: 'guess' }, 'value.as', 'notUnderstood'],
      ['kind', 'prescription', 'kind', 'notUnderstood'],
      ['version', 3e9, 'version', 'notUnderstood'],
      ['version', 1e300, 'version', 'notUnderstood'],
    ],
  ],
  [
    'sign',
    forms.signForm,
    { ...inVisit, password: 'x', right: { mode: 'final', lens, triedLensOnEyeId: null }, left: null, expiresOn: '2027-11-24', daysPerWeek: 7 },
    [
      ['password', '', 'password', 'passwordRequired'],
      ['right', null, 'right', 'oneEyeRequired'],
      ['expiresOn', '', 'expiresOn', 'expiryRequired'],
      ['daysPerWeek', 8, 'daysPerWeek', 'daysPerWeek'],
      ['daysPerWeek', 0, 'daysPerWeek', 'daysPerWeek'],
    ],
  ],
  [
    'attempt',
    forms.attemptForm,
    { ...inVisit, lessonId: id, eye: 'right', move: 'on', worked: true, miss: null },
    [
      ['move', 'in', 'move', 'notUnderstood'],
      ['miss', 'sneezed', 'miss', 'notUnderstood'],
    ],
  ],
  [
    'handOver',
    forms.handOverForm,
    { ...inVisit, right: { lensOnEyeId: id, lot: 'A', expiresOn: '1 Jan 2028' }, left: null },
    [
      ['right', null, 'right', 'oneEyeRequired'],
      ['right', { lensOnEyeId: id, lot: ' ', expiresOn: '1 Jan 2028' }, 'right.lot', 'lotRequired'],
      ['right', { lensOnEyeId: id, lot: 'A', expiresOn: '' }, 'right.expiresOn', 'expiryRequired'],
    ],
  ],
  [
    'order',
    forms.orderForm,
    { ...inVisit, requestKey: id, prescriptionId: id, rightPacks: 1, leftPacks: 0 },
    [
      ['rightPacks', 0, 'rightPacks', 'packsRequired'],
      ['rightPacks', 1.5, 'rightPacks', 'wholeNumber'],
      ['rightPacks', 61, 'rightPacks', 'packsOutOfRange'],
      ['rightPacks', -1, 'rightPacks', 'packsOutOfRange'],
      ['leftPacks', NaN, 'leftPacks', 'notANumber'],
    ],
  ],
  [
    'addStaff',
    forms.addStaffForm,
    { account: 'Ines', displayName: 'Ines', title: 'technician', roles: ['technician'], password: 'long enough pw' },
    [
      ['account', 'a b', 'account', 'accountShape'],
      ['roles', [], 'roles', 'roleRequired'],
      ['roles', ['prescriber'], 'registerNumber', 'registerRequired'],
      ['password', 'short', 'password', 'passwordTooShort'],
    ],
  ],
];

describe.each(CASES)('%s', (_name, form, good, bad) => {
  it('takes what it should', () => {
    expect(form.safeParse(good).success).toBe(true);
  });
  it.each(bad)('%s = %j is refused at %s as %s', (field, value, path, code) => {
    const read = form.safeParse({ ...good, [field]: value });
    expect(read.success).toBe(false);
    const problem = toProblem(read.error as never);
    expect(problem.kind === 'invalid' && problem.fields.map((f) => [f.path.join('.'), f.code])).toContainEqual([path, code]);
  });
  it('refuses what is no form at all', () => {
    for (const nonsense of [null, 'text', 7, [], { __proto__: null }]) expect(form.safeParse(nonsense).success).toBe(false);
  });
});

describe('what comes with a refusal', () => {
  it('repairs travel with the problem', () => {
    const read = forms.refractionForm.safeParse({ ...inVisit, right: '300', left: null, vertexMm: 12 });
    const problem = toProblem(read.error as never);
    expect(problem.kind === 'invalid' && problem.fields[0]).toMatchObject({ data: { typed: '300' }, repairs: ['−3.00', '+3.00'] });
  });
  it('texts are trimmed, empty ones become nothing', () => {
    expect(forms.createWearerForm.parse({ name: '  A B ', birthDate: '1990-01-02', telephone: '  ' })).toMatchObject({ name: 'A B', telephone: null });
  });
});

describe('names as they are written', () => {
  const named = (name: string, guardian?: string) => wearer.createWearerForm.parse({ name, birthDate: '14 Mar 1992', guardian });
  it('keep what scripts spell with, and lose spaces nobody meant', () => {
    expect(named('  Zoë\u00a0 O’Dé ').name).toBe('Zoë O’Dé');
    expect(named('می\u200cخواهم').name).toBe('می\u200cخواهم');
  });
  it('a guardian of spaces is none', () => {
    expect(named('A', '   ').guardian).toBeNull();
    expect(named('A').guardian).toBeNull();
    expect(named('A', 'B  C').guardian).toBe('B C');
  });
});
