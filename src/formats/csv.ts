import Papa from 'papaparse';
import { err, ok, type ProblemData, type Result } from '../lib/outcome';

export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** Why a file cannot be read at all: nothing of it is taken. */
export interface BrokenFile {
  readonly code: 'fileEmpty' | 'fileNotText' | 'fileQuote' | 'fileColumns' | 'fileTwiceNamed' | 'fileLong';
  readonly data: ProblemData;
}

/** A line as cells by column, with the line of the file on which it begins and how many cells it has. */
export interface CsvRow<Column extends string> {
  readonly line: number;
  readonly cells: Readonly<Partial<Record<Column, string>>>;
  readonly count: number;
}
/** A file opened. */
export interface CsvFile<Column extends string> {
  readonly encoding: Encoding;
  readonly delimiter: string;
  /** Columns that mean nothing here and were left aside. */
  readonly unknown: readonly string[];
  readonly rows: readonly CsvRow<Column>[];
  /** How many cells a whole line has. */
  readonly width: number;
}

/** What a file of some kind must look like. */
export interface CsvShape<Column extends string> {
  readonly columns: readonly Column[];
  /** Columns without which nothing can be read. */
  readonly needed: readonly Column[];
  readonly maxLines: number;
}

/** The characters of a file: by its mark, else UTF-8, else the old Western code page. Binary files are refused. */
function decode(bytes: Uint8Array): Result<{ readonly text: string; readonly encoding: Encoding }, BrokenFile> {
  const marked: readonly (readonly [Encoding, readonly number[]])[] = [
    ['utf-8', [0xef, 0xbb, 0xbf]],
    ['utf-16le', [0xff, 0xfe]],
    ['utf-16be', [0xfe, 0xff]],
  ];
  const found = marked.find(([, mark]) => mark.every((byte, i) => bytes[i] === byte));
  if (found) {
    const text = new TextDecoder(found[0]).decode(bytes);
    return text.includes('\0') ? err({ code: 'fileNotText', data: {} }) : ok({ text, encoding: found[0] });
  }
  if (bytes.includes(0)) return err({ code: 'fileNotText', data: {} });
  try {
    return ok({ text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' });
  } catch {
    return ok({ text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' });
  }
}

/** What parts the cells: whatever finds most column names in the first line. Decimal commas mislead any guess from the data. */
function delimiterOf(text: string, columns: readonly string[]): string {
  const first = /^[^\r\n]*/.exec(text)?.[0] ?? '';
  const found = (delimiter: string): number => first.split(delimiter).filter((name) => columns.includes(name.replaceAll('"', '').trim().toLowerCase())).length;
  return [',', ';', '\t'].reduce((best, d) => (found(d) > found(best) ? d : best));
}

const LINE_FEED = 10;
const CARRIAGE_RETURN = 13;
/** Lines of a file as an editor counts them, whatever its encoding: before anything is parsed. */
function lineBreaks(bytes: Uint8Array): number {
  let feeds = 0;
  let returns = 0;
  for (const byte of bytes) {
    if (byte === LINE_FEED) feeds += 1;
    else if (byte === CARRIAGE_RETURN) returns += 1;
  }
  return Math.max(feeds, returns);
}

const newlines = (cells: readonly string[]): number => cells.reduce((sum, cell) => sum + (cell.match(/\r\n|\n|\r/g)?.length ?? 0), 0);

/**
 * Opens a file of separated values: comma, semicolon or tab, with a line of column names first. What is wrong with single
 * lines is found when they are read; what is wrong with the whole file is said here, and nothing of it is taken. A file of far
 * too many lines, were they all blank, is refused before it is parsed.
 */
export function openCsv<Column extends string>(bytes: Uint8Array, { columns, needed, maxLines }: CsvShape<Column>): Result<CsvFile<Column>, BrokenFile> {
  const breaks = lineBreaks(bytes);
  // A cell may hold line breaks of its own, and a file some blank lines.
  if (breaks > 2 * maxLines + 100) return err({ code: 'fileLong', data: { lines: breaks, max: maxLines } });
  const decoded = decode(bytes);
  if (!decoded.ok) return decoded;
  const { text, encoding } = decoded.value;
  const plain = text.replace(/^\uFEFF/, '');
  const parsed = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain, columns), skipEmptyLines: false });
  const quote = parsed.errors.find((e) => e.type === 'Quotes');
  const data = parsed.data;
  const [header] = data;
  if (!header || header.every((h) => h.trim() === '')) return err({ code: 'fileEmpty', data: {} });
  const starts: number[] = [];
  let line = 1;
  for (const row of data) {
    starts.push(line);
    line += 1 + newlines(row);
  }
  if (quote) return err({ code: 'fileQuote', data: { line: starts[quote.row ?? 0] ?? 1 } });
  const isColumn = (name: string): name is Column => (columns as readonly string[]).includes(name);
  const names = header.map((h) => h.trim().toLowerCase());
  const missing = needed.filter((c) => !names.includes(c));
  if (missing.length > 0) return err({ code: 'fileColumns', data: { columns: missing.join(', ') } });
  const twice = names.find((n, i) => isColumn(n) && names.indexOf(n) !== i);
  if (twice !== undefined) return err({ code: 'fileTwiceNamed', data: { column: twice } });
  const rows = data.flatMap((row, i) => {
    if (i === 0 || row.every((cell) => cell.trim() === '')) return [];
    const cells: Partial<Record<Column, string>> = {};
    for (const [at, name] of names.entries()) if (isColumn(name)) cells[name] = row[at] ?? '';
    return [{ line: starts[i] ?? i + 1, cells, count: row.length }];
  });
  if (rows.length === 0) return err({ code: 'fileEmpty', data: {} });
  if (rows.length > maxLines) return err({ code: 'fileLong', data: { lines: rows.length, max: maxLines } });
  return ok({ encoding, delimiter: parsed.meta.delimiter, unknown: names.filter((n) => n !== '' && !isColumn(n)), rows, width: names.length });
}
