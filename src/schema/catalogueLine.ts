import { onStep, type Limit } from '../core';
import type { ProblemData } from '../lib/outcome';
import type { CatalogueColumn, Cells } from './catalogueColumns';

/** Something wrong with a line (`stop`: its family stays out) or done with it (`watch`). */
export interface CatalogueFault {
  readonly line: number;
  readonly gravity: 'stop' | 'watch';
  readonly code: CatalogueFaultCode;
  readonly data: ProblemData;
}
export type CatalogueFaultCode =
  | 'catalogueEmpty'
  | 'catalogueNumber'
  | 'catalogueRange'
  | 'catalogueStep'
  | 'catalogueLost'
  | 'catalogueOffered'
  | 'catalogueLong'
  | 'catalogueCode'
  | 'catalogueFormula'
  | 'catalogueOrder'
  | 'catalogueReach'
  | 'cataloguePrice'
  | 'catalogueCylinder'
  | 'catalogueAdd'
  | 'catalogueTable'
  | 'catalogueMarks'
  | 'catalogueCurve'
  | 'catalogueContradicts'
  | 'catalogueColumns'
  | 'catalogueTwice'
  | 'catalogueAxisZero'
  | 'catalogueHalfPair'
  | 'catalogueHalfLabel'
  | 'catalogueSpacing'
  | 'catalogueSightBefore'
  | 'catalogueDisinfect'
  | 'catalogueIrregular';

/** Text that a spreadsheet would run: refused where text is wanted. `-1.25` is a number, not a formula. */
export const FORMULA = /^[=@\t\r]|^[+-](?!\d+([.,]\d+)?$)/;
const LIST = /[|;\s]+/;
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

/** The start of what was typed, for the fault: whole characters only. */
export const clip = (text: string): string => [...text].slice(0, 40).join('');

/** Tells of something wrong with a line. */
export type Note = (gravity: 'stop' | 'watch', code: CatalogueFaultCode, data?: ProblemData) => void;

/** Reads the cells of one line, each by what it may be. */
export class LineReader {
  constructor(
    private readonly cells: Cells,
    private readonly note: Note,
  ) {}

  raw(column: CatalogueColumn): string {
    const text = (this.cells[column] ?? '').normalize('NFKC').trim();
    // What was neutralised on its way out comes back as it was.
    return /^'[=@+\-\t]/.test(text) ? text.slice(1) : text;
  }

  text(column: CatalogueColumn, max: number, needed: boolean): string | null {
    const text = this.raw(column);
    if (text === '') {
      if (needed) this.note('stop', 'catalogueEmpty', { column });
      return null;
    }
    if (text.length > max) this.note('stop', 'catalogueLong', { column, max });
    else if (FORMULA.test(text)) this.note('stop', 'catalogueFormula', { column, typed: clip(text) });
    else return text;
    return null;
  }

  number(column: CatalogueColumn, limit: Limit, needed: boolean): number | null {
    const text = this.raw(column);
    if (text === '') {
      if (needed) this.note('stop', 'catalogueEmpty', { column });
      return null;
    }
    return this.figure(column, text, limit);
  }

  /** One number of a cell, checked. */
  figure(column: CatalogueColumn, text: string, limit: Limit): number | null {
    const plain = text.replace(/[‐-―−﹣]/gu, '-');
    // 1,250 may be a thousand and a quarter thousand: never guessed.
    if (!NUMBER.test(plain) || /,\d{3}$/.test(plain)) {
      this.note('stop', 'catalogueNumber', { column, typed: clip(text) });
      return null;
    }
    const value = Number(plain.replace(',', '.')) + 0;
    if (value < limit.min || value > limit.max) {
      this.note('stop', 'catalogueRange', { column, value, min: limit.min, max: limit.max });
      return null;
    }
    if (!onStep(value, limit)) {
      this.note('stop', 'catalogueStep', { column, value, step: limit.step ?? 0 });
      return null;
    }
    return value;
  }

  list(column: CatalogueColumn): string[] {
    const text = this.raw(column);
    return text === '' ? [] : text.split(LIST).filter((part) => part !== '');
  }

  choice<const O extends readonly string[]>(column: CatalogueColumn, options: O, needed: boolean): O[number] | null {
    const text = this.raw(column);
    if (text === '') {
      if (needed) this.note('stop', 'catalogueEmpty', { column });
      return null;
    }
    const found = options.find((o) => o.toLowerCase() === text.toLowerCase().replace(/[\s_-]/g, ''));
    if (found === undefined) this.note('stop', 'catalogueOffered', { column, typed: clip(text), options: options.join(', ') });
    return found ?? null;
  }

  flag(column: CatalogueColumn): boolean {
    const text = this.raw(column).toLowerCase();
    if (text === '' || ['no', 'false', '0', 'n'].includes(text)) return false;
    if (['yes', 'true', '1', 'y'].includes(text)) return true;
    this.note('stop', 'catalogueOffered', { column, typed: clip(text), options: 'yes, no' });
    return false;
  }
}
