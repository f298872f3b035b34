import { MULTIFOCAL_DESIGNS } from '../lens/catalogueFamily';
import { isLensAdd, type LensAdd } from '../lens/family';
import type { Dioptres } from '../units';
import type { FamilyAdd } from './familyAdd';
import type { ChangeRule, RuleStep } from './nextChange';

/** One line of a family's start table: for whom, and the pair it begins with. */
export interface StartRow {
  /** What the line goes by: the addition, or the age where the maker's table does. */
  readonly by: 'add' | 'age';
  /** Up to this one, D or years. */
  readonly upTo: number;
  /** Only where the far power is minus (myope) or not (hyperope); null: whatever it is. */
  readonly refraction: 'myope' | 'hyperope' | null;
  readonly dominant: StartLens;
  readonly other: StartLens;
}
/** A lens of a starting pair: its addition, and what is added to the far power, D. */
export interface StartLens {
  readonly add: LensAdd;
  readonly plus: Dioptres;
}

/** What stands between two parts of a table written in one cell. */
const PARTS = /\s*\|\s*/;
const partsOf = (text: string): string[] => text.split(PARTS).filter((part) => part !== '');
const all = <T>(items: readonly (T | null)[]): readonly T[] | null => (items.every((i) => i !== null) ? items : null);
const signed = (value: number): string => `${value < 0 ? '-' : '+'}${Math.abs(value).toFixed(2)}`;

const ADD_PART = /^(.+?) <=(\d(?:\.\d+)?) \+(\d(?:\.\d+)?)(?: (\w+))?$/;
/**
 * The additions of a family as one cell: name, up to which measured addition, near power, and its design where it differs.
 * @returns null where it cannot be read
 * @example readAddTable('low <=1.25 +1.00 | high <=4 +2.25')?.length → 2
 */
export function readAddTable(text: string): readonly FamilyAdd[] | null {
  return all(
    partsOf(text).map((part): FamilyAdd | null => {
      const [, add = '', upTo, power, design] = ADD_PART.exec(part) ?? [];
      const of = MULTIFOCAL_DESIGNS.find((d) => d === design) ?? null;
      return isLensAdd(add) && (design === undefined || of !== null) ? { add, upTo: Number(upTo), power: Number(power), design: of } : null;
    }),
  );
}
export const writeAddTable = (table: readonly FamilyAdd[]): string =>
  table.map((a) => `${a.add} <=${a.upTo.toFixed(2)} ${signed(a.power)}${a.design ? ` ${a.design}` : ''}`).join(' | ');

const START_PART = /^(add|age) ?<=(\d+(?:\.\d+)?)(?: (myope|hyperope))? ([^/@]+?)(@[+-]\d\.\d\d)? ?\/ ?([^/@]+?)(@[+-]\d\.\d\d)?$/;
/**
 * A start table as one cell: `add <=1.25 low / low | add <=4 high / high@+0.25`: the dominant eye's lens, then the other's; `@` what
 * is added to the far power.
 * @returns null where it cannot be read
 * @example readStartTable('add <=1.25 low / medium@+0.25')?.[0]?.other.plus → 0.25
 */
export function readStartTable(text: string): readonly StartRow[] | null {
  const lens = (add: string, plus: string | undefined): StartLens | null =>
    isLensAdd(add) ? { add, plus: plus === undefined ? 0 : Number(plus.slice(1)) } : null;
  return all(
    partsOf(text).map((part): StartRow | null => {
      const [, by, upTo, refraction, first = '', firstPlus, second = '', secondPlus] = START_PART.exec(part) ?? [];
      const dominant = lens(first, firstPlus);
      const other = lens(second, secondPlus);
      return (by === 'add' || by === 'age') && dominant && other
        ? { by, upTo: Number(upTo), refraction: refraction === 'myope' || refraction === 'hyperope' ? refraction : null, dominant, other }
        : null;
    }),
  );
}
const writeLens = ({ add, plus }: StartLens): string => `${add}${plus === 0 ? '' : `@${signed(plus)}`}`;
export const writeStartTable = (table: readonly StartRow[]): string =>
  table
    .map(
      (r) =>
        `${r.by} <=${r.by === 'add' ? r.upTo.toFixed(2) : r.upTo}${r.refraction ? ` ${r.refraction}` : ''} ${writeLens(r.dominant)} / ${writeLens(r.other)}`,
    )
    .join(' | ');

const STEPS = { '-': 'minusQuarter', '+': 'plusQuarter', '<': 'lessAdd', '>': 'moreAdd' } as const;
const stepOf = (text: string): RuleStep | null => {
  const [, eye, sign] = /^(dominant|other)([-+<>])$/.exec(text) ?? [];
  return (eye === 'dominant' || eye === 'other') && sign !== undefined ? { eye, do: STEPS[sign as keyof typeof STEPS] } : null;
};
/**
 * A family's rule of changes as one cell: `far: dominant-, dominant< | near: other+, other>`; `-` and `+` a quarter of a dioptre, `<`
 * and `>` the addition before and the next.
 * @returns null where it cannot be read
 * @example readChangeRule('far: dominant- | near: other+, other>')?.nearWeak.length → 2
 */
export function readChangeRule(text: string): ChangeRule | null {
  const [, far = '', near = ''] = /^far:\s*([^|]*?)\s*\|\s*near:\s*([^|]*?)$/.exec(text.trim()) ?? [];
  const steps = (list: string): readonly RuleStep[] | null => all(list.split(/\s*,\s*/).map(stepOf));
  const farWeak = steps(far);
  const nearWeak = steps(near);
  return farWeak && nearWeak ? { farWeak, nearWeak } : null;
}
export function writeChangeRule(rule: ChangeRule): string {
  const sign = (step: RuleStep): string => `${step.eye}${Object.entries(STEPS).find(([, does]) => does === step.do)?.[0] ?? ''}`;
  return `far: ${rule.farWeak.map(sign).join(', ')} | near: ${rule.nearWeak.map(sign).join(', ')}`;
}
