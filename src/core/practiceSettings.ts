import { OWN, TRADE, type Source } from './advice/source';
import { ADD_BY_AGE } from './presbyopia/nearAdd';

/**
 * What a practice chooses where practitioners differ, as data. Each has the safer choice as its default; changes
 * are appended with who and when, and a prescription or recommendation keeps the settings it was made under.
 */
interface SettingBase {
  readonly group: 'stops' | 'signs' | 'lens' | 'money' | 'fit' | 'teaching' | 'prescription' | 'supply' | 'record' | 'screen';
  readonly source: Source;
  /** Kept for work that is not built yet: said so on the screen. */
  readonly waiting?: true;
}
const choice = <const O extends readonly string[]>(options: O, standard: O[number], base: SettingBase) =>
  ({ kind: 'choice', options, standard, ...base }) as const;
const number = (min: number, max: number, step: number, unit: string, standard: number, base: SettingBase) =>
  ({ kind: 'number', min, max, step, unit, standard, ...base }) as const;
const flag = (standard: boolean, base: SettingBase) => ({ kind: 'flag', standard, ...base }) as const;
const text = (max: number, base: SettingBase) => ({ kind: 'text', max, standard: '' as string, ...base }) as const;

const stops = { group: 'stops', source: OWN } as const;
const signs = { group: 'signs', source: OWN } as const;
const acts = (standard: number) => number(0.5, 4, 0.5, 'grade', standard, signs);
/** Schools of the trade whose screen is not built yet. */
const later = (group: SettingBase['group']): SettingBase => ({ group, source: TRADE, waiting: true });

export const SETTINGS = {
  dust: choice(['stop', 'protect'], 'stop', { group: 'stops', source: TRADE }),
  painActs: number(1, 10, 1, 'of10', 3, stops),
  longHours: number(8, 18, 1, 'hours', 12, stops),
  lowApertureMm: number(6, 10, 0.5, 'mm', 9, stops),
  referralTo: text(120, stops),
  referralTelephone: text(40, stops),
  actsLidMargin: acts(2),
  actsBulbarRedness: acts(2.5),
  actsLimbalRedness: acts(2),
  actsPapillae: acts(2),
  actsStaining: acts(1.5),
  actsCentralStaining: acts(1),
  actsVesselsMm: number(0.5, 4, 0.5, 'mm', 1, signs),
  actsBreakUpS: number(3, 20, 1, 's', 10, signs),
  actsChange: number(0.5, 3, 0.5, 'grade', 1, signs),
  oxygenSchool: choice(['holdenMertz', 'harvittBonanno'], 'harvittBonanno', {
    group: 'lens',
    source: { mark: 'P', text: 'Holden and Mertz 1984; Harvitt and Bonanno 1999; from memory' },
  }),
  oxygenByDay: choice(['warn', 'leaveOut'], 'warn', { group: 'lens', source: TRADE }),
  addByAge: choice(ADD_BY_AGE, 'tradeTable', {
    group: 'lens',
    source: { mark: 'T', text: 'the trade’s table for 40 cm, or the least amplitude (Hofstetter 1950); from memory' },
  }),
  drivingDecimal: number(0.4, 1, 0.05, 'decimal', 0.5, { group: 'lens', source: { mark: 'T', text: 'both eyes 20/40 or the local figure; from memory' } }),
  presbyopiaAge: number(38, 50, 1, 'years', 45, { group: 'lens', source: TRADE }),
  fitFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  refitFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  annualFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  lensAnnualFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  followUpFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  redEyeFee: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  aftercareYear: number(0, 5000, 0.01, 'money', 0, { group: 'money', source: OWN }),
  caseEach: number(0, 500, 0.01, 'money', 0, { group: 'money', source: OWN }),
  lossPercent: number(0, 30, 1, 'percent', 0, { group: 'money', source: TRADE }),
  vertexMm: number(8, 16, 0.5, 'mm', 12, { group: 'lens', source: TRADE }),
  cylinderCap: flag(false, { group: 'lens', source: TRADE }),
  rankTolerance: number(0, 0.25, 0.01, 'D', 0.06, { group: 'lens', source: OWN }),
  notation: choice(['minus', 'plus'], 'minus', { group: 'lens', source: TRADE }),
  readerNoiseDegrees: number(0, 5, 0.5, 'deg', 2, { group: 'fit', source: OWN }),
  movement: choice(['classic', 'modern'], 'modern', { group: 'fit', source: TRADE }),
  blinkSchool: choice(['threeThenFive', 'alwaysFive'], 'threeThenFive', { group: 'fit', source: TRADE }),
  scatterBlur: number(0.05, 0.5, 0.01, 'D', 0.15, { group: 'fit', source: OWN }),
  recoverySeconds: number(10, 180, 10, 's', 60, { group: 'fit', source: OWN }),
  ownTurns: flag(true, { group: 'fit', source: OWN }),
  turnOver30: choice(['changeDesign', 'compensate'], 'changeDesign', { group: 'fit', source: TRADE }),
  compensateFrom: number(0.05, 0.5, 0.01, 'D', 0.12, { group: 'fit', source: OWN }),
  irregularCylinder: choice(['twoWeeks', 'sameDay'], 'twoWeeks', later('fit')),
  acuity: choice(['feet', 'metres', 'decimal', 'logMAR'], 'feet', { group: 'fit', source: TRADE }),
  removal: choice(['slide', 'lowerThird'], 'slide', later('teaching')),
  practiseAtHome: choice(['signedOffOnly', 'safeRemover'], 'signedOffOnly', later('teaching')),
  makeUp: choice(['lensesFirst', 'powdersFirst'], 'lensesFirst', { group: 'teaching', source: TRADE }),
  caseMonths: choice(['three', 'one'], 'three', { group: 'teaching', source: TRADE }),
  publicAddress: text(120, { group: 'teaching', source: OWN }),
  buildUpTo: number(8, 14, 1, 'hours', 10, { group: 'teaching', source: TRADE }),
  twoWeeklyDays: choice(['d14', 'd15'], 'd14', later('supply')),
  finalPrescription: choice(['afterAftercare', 'atOnce'], 'afterAftercare', { group: 'prescription', source: TRADE }),
  examinedMonths: number(3, 24, 1, 'months', 12, { group: 'prescription', source: TRADE }),
  prescriptionMonths: number(6, 36, 1, 'months', 12, { group: 'prescription', source: OWN }),
  ruleProfile: choice(['generic', 'us'], 'generic', later('prescription')),
  pastExpiry: choice(['refuse', 'prescriberNote'], 'refuse', { group: 'supply', source: OWN }),
  reorderMarginDays: number(0, 60, 1, 'days', 7, { group: 'supply', source: OWN }),
  messagesFrom: number(6, 12, 1, 'hour', 8, { group: 'supply', source: OWN }),
  messagesUntil: number(14, 22, 1, 'hour', 20, { group: 'supply', source: OWN }),
  remindDays: number(0, 14, 1, 'days', 2, { group: 'supply', source: OWN }),
  retentionYears: number(1, 40, 1, 'years', 10, { group: 'record', source: TRADE }),
  idleMinutes: number(2, 60, 1, 'minutes', 10, { group: 'screen', source: OWN }),
} as const;

export type SettingKey = keyof typeof SETTINGS;
type Definition = (typeof SETTINGS)[SettingKey];
type ValueOf<D extends Definition> = D extends { kind: 'choice'; options: readonly (infer O)[] }
  ? O
  : D extends { kind: 'number' }
    ? number
    : D extends { kind: 'flag' }
      ? boolean
      : string;
export type PracticeSettings = { readonly [K in SettingKey]: ValueOf<(typeof SETTINGS)[K]> };
export type SettingValue = string | number | boolean;

export const DEFAULT_SETTINGS = Object.fromEntries(Object.entries(SETTINGS).map(([key, d]) => [key, d.standard])) as PracticeSettings;
export const isSettingKey = (key: string): key is SettingKey => Object.hasOwn(SETTINGS, key);

/** What is wrong with a value for a setting, as a code with data; null when it may be set. @example settingProblem('idleMinutes', 1).code → 'settingOutOfRange' */
export function settingProblem(key: SettingKey, value: SettingValue): { readonly code: string; readonly data: Readonly<Record<string, number>> } | null {
  const d: Definition = SETTINGS[key];
  switch (d.kind) {
    case 'choice':
      return (d.options as readonly SettingValue[]).includes(value) ? null : { code: 'settingNotOffered', data: {} };
    case 'flag':
      return typeof value === 'boolean' ? null : { code: 'settingNotOffered', data: {} };
    case 'text':
      return typeof value === 'string' && value.length <= d.max ? null : { code: 'tooLong', data: { max: d.max } };
    case 'number': {
      if (typeof value !== 'number' || !Number.isFinite(value) || value < d.min || value > d.max)
        return { code: 'settingOutOfRange', data: { min: d.min, max: d.max } };
      const steps = value / d.step;
      return Math.abs(steps - Math.round(steps)) < 1e-6 ? null : { code: 'settingOffStep', data: { step: d.step } };
    }
  }
}

/** Identity of the rules that reasons were made under. */
export const RULE_VERSION = '2026-11.4';
