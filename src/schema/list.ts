import { z } from 'zod';
import { EARLIEST_BIRTH_DATE, parseLensAdd, type LensAdd } from '../core';
import type { FieldProblem } from '../lib/outcome';
import { FORMULA } from './catalogue';
import { dayText, lotText, nameText, optionalName, optionalText, refractionText } from './fields';
import { LENS_CELLS, type TrialColumn, type WearerColumn } from './listColumns';
import { toProblem } from './problems';

export * from './listColumns';

/** A spreadsheet's formula is no name. */
const noFormula = (text: string): boolean => !FORMULA.test(text.trim());
const millimetres = z
  .string()
  .default('')
  .transform((text, ctx): number | null => {
    const plain = text.trim().replace(',', '.');
    if (plain === '') return null;
    if (/^\d{1,2}(\.\d{1,2})?$/.test(plain)) return Number(plain);
    ctx.addIssue({ code: 'custom', message: 'notANumber', params: { data: { typed: text.trim().slice(0, 40) } } });
    return z.NEVER;
  });
const addBand = z
  .string()
  .default('')
  .transform((text, ctx): LensAdd | null => {
    const plain = text.trim();
    if (plain === '') return null;
    const add = parseLensAdd(plain);
    if (add) return add;
    ctx.addIssue({ code: 'custom', message: 'addBandUnknown', params: { data: { typed: plain.slice(0, 40) } } });
    return z.NEVER;
  });

/** The lens of one line, whatever its columns are called. */
const lensCells = z.object({ family: z.string().trim().min(1), power: refractionText, add: addBand, base_curve: millimetres, diameter: millimetres });
export type ListLens = z.output<typeof lensCells>;

const identity = z.object({
  name: nameText(120, 'nameRequired').refine(noFormula, 'cellFormula'),
  birth_date: dayText('birthDateRequired').superRefine((day, ctx) => {
    if (day < EARLIEST_BIRTH_DATE) ctx.addIssue({ code: 'custom', message: 'birthDateTooEarly' });
  }),
  telephone: optionalText(40),
  occupation: optionalText(80).refine((text) => text === null || noFormula(text), 'cellFormula'),
  guardian: optionalName(120).refine((text) => text === null || noFormula(text), 'cellFormula'),
  worn_as_of: dayText('dayRequired')
    .or(z.literal('').transform(() => null))
    .optional(),
});

export interface WearerLine {
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string | null;
  readonly occupation: string | null;
  readonly guardian: string | null;
  readonly wornAsOf: string | null;
  readonly right: ListLens | null;
  readonly left: ListLens | null;
}
type Read<Line> = { readonly ok: true; readonly value: Line } | { readonly ok: false; readonly fields: readonly FieldProblem[] };

function faultsOf(error: z.ZodError, prefix = ''): readonly FieldProblem[] {
  const problem = toProblem(error);
  return problem.kind === 'invalid' ? problem.fields.map((f) => ({ ...f, path: [`${prefix}${f.path[0] ?? ''}`] })) : [];
}

/** One eye's lens of a wearer's line; null where its cells are empty. */
function eyeLens(eye: 'right' | 'left', cells: Readonly<Partial<Record<WearerColumn, string>>>): Read<ListLens | null> {
  const own = Object.fromEntries(LENS_CELLS.map((cell) => [cell, cells[`${eye}_${cell}`] ?? '']));
  if (Object.values(own).every((cell) => cell.trim() === '')) return { ok: true, value: null };
  if (own['family']?.trim() === '') return { ok: false, fields: [{ path: [`${eye}_family`], code: 'listFamilyNeeded' }] };
  const read = lensCells.safeParse(own);
  return read.success ? { ok: true, value: read.data } : { ok: false, fields: faultsOf(read.error, `${eye}_`) };
}

/** One wearer of a list, with the lens worn on each eye. */
export function readWearerLine(cells: Readonly<Partial<Record<WearerColumn, string>>>): Read<WearerLine> {
  const who = identity.safeParse(cells);
  const right = eyeLens('right', cells);
  const left = eyeLens('left', cells);
  if (who.success && right.ok && left.ok) {
    const { name, birth_date: birthDate, telephone, occupation, guardian, worn_as_of: wornAsOf } = who.data;
    return { ok: true, value: { name, birthDate, telephone, occupation, guardian, wornAsOf: wornAsOf ?? null, right: right.value, left: left.value } };
  }
  return { ok: false, fields: [...(who.success ? [] : faultsOf(who.error)), ...(right.ok ? [] : right.fields), ...(left.ok ? [] : left.fields)] };
}

const trialLine = lensCells.extend({
  lot: lotText.refine(noFormula, 'cellFormula'),
  expires_on: dayText('expiryRequired'),
  count: z
    .string()
    .trim()
    .regex(/^\d{1,3}$/, 'trialCount')
    .transform(Number)
    .refine((n) => n >= 1 && n <= 500, 'trialCount'),
});
export type TrialLine = z.output<typeof trialLine>;

/** The trial lenses of one lot in a list. */
export function readTrialLine(cells: Readonly<Partial<Record<TrialColumn, string>>>): Read<TrialLine> {
  if ((cells.family ?? '').trim() === '') return { ok: false, fields: [{ path: ['family'], code: 'listFamilyNeeded' }] };
  const read = trialLine.safeParse({ add: '', base_curve: '', diameter: '', ...cells });
  return read.success ? { ok: true, value: read.data } : { ok: false, fields: faultsOf(read.error) };
}

/** A file, and whether it is taken in or only looked at. */
export const listForm = z.object({ bytes: z.instanceof(Uint8Array, { error: 'required' }), take: z.boolean() });
