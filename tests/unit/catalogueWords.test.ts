import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { en as messages } from '../../src/i18n/messages/en';
import { FILTERS, GEOMETRIES, MARK_LAYOUTS, MODALITIES, MULTIFOCAL_DESIGNS, SHAPES, STABILISATIONS } from '../../src/core';
import { BLOCK_COLUMNS, CATALOGUE_COLUMNS, FAMILY_COLUMNS, FORMULA, NEEDED_COLUMNS } from '../../src/schema/catalogue';
import { careProductForm } from '../../src/schema/careProduct';
import { endFamilyForm, familyForm, saveFamilyForm } from '../../src/schema/family';
import { houseListForm } from '../../src/schema/houseList';
import { takeImportForm } from '../../src/schema/catalogueImport';

const codesIn = (file: string, pattern: RegExp): string[] => [...new Set([...readFileSync(file, 'utf8').matchAll(pattern)].map((m) => m[1] ?? ''))];

describe('every code of the catalogue has its words', () => {
  const problems: Record<string, unknown> = messages.problems;
  it.each([
    ['faults of a line', codesIn('src/schema/catalogue.ts', /'(catalogue[A-Z]\w+)'/g)],
    ['broken files', codesIn('src/formats/csv.ts', /code: '(file[A-Z]\w+)'/g)],
    [
      'refusals of the library',
      [
        ...codesIn('src/services/family/commands.ts', /'((?:start|block|replaces|family)[A-Z]\w+)'\)/g),
        ...codesIn('src/services/houseList/commands.ts', /'((?:start|block|replaces|family)[A-Z]\w+)'\)/g),
      ],
    ],
    [
      'shapes of its forms',
      ['family', 'houseList', 'careProduct', 'catalogueImport'].flatMap((noun) => codesIn(`src/schema/${noun}.ts`, /, '([a-z]+[A-Z]\w+)'\)/g)),
    ],
  ])('%s', (_what, codes) => {
    expect(codes.length).toBeGreaterThan(0);
    for (const code of codes) expect(problems[code], code).toBeTypeOf('string');
  });
  it('columns, options, filters and shapes', () => {
    for (const column of CATALOGUE_COLUMNS) expect(messages.library.columns[column], column).toBeTypeOf('string');
    const options: Record<string, string> = messages.library.options;
    for (const o of [...GEOMETRIES, ...MODALITIES, ...MARK_LAYOUTS, ...STABILISATIONS, ...MULTIFOCAL_DESIGNS]) expect(options[o], o).toBeTypeOf('string');
    for (const { id } of FILTERS) expect(messages.lens.by[id], id).toBeTypeOf('string');
    for (const shape of SHAPES) expect(messages.lens.shapes[shape]).toBeTypeOf('string');
  });
  it('the documented header is the one that is read', () => {
    const documented = codesIn(
      'docs/catalogue-format.md',
      /`([a-z]+(?:_[a-z]+)+|maker|name|material|geometry|modality|irregular|dk|stabilisation|rebate|cylinders|adds|curves)`/g,
    );
    for (const column of CATALOGUE_COLUMNS) expect(documented, column).toContain(column);
    expect([...FAMILY_COLUMNS, ...BLOCK_COLUMNS]).toEqual(CATALOGUE_COLUMNS);
    for (const column of NEEDED_COLUMNS) expect(CATALOGUE_COLUMNS).toContain(column);
  });
});

describe('what a spreadsheet would run', () => {
  it.each(['=1+1', '@sum', '+cmd', '-cmd', '-1+1', '\tx', '\rx', '-', '+'])('%j is a formula', (text) => expect(FORMULA.test(text)).toBe(true));
  it.each(['-1.25', '+0.50', '-3', '1.25', 'Plover 30', "O'Hare", '8.6/14.2', '−1.25'])('%j is none', (text) => expect(FORMULA.test(text)).toBe(false));
});

describe('shapes of what is done to the library', () => {
  const codes = (form: { safeParse: (input: unknown) => { error?: { issues: readonly { message: string }[] } } }, input: unknown): string[] =>
    form.safeParse(input).error?.issues.map((i) => i.message) ?? [];
  it('codes of families are small letters, figures and dashes', () => {
    for (const code of ['plover-30', 'a', '0x']) expect(codes(familyForm, { code })).toEqual([]);
    for (const code of ['Plover', 'a b', '-a', '', 'a'.repeat(61), '../x']) expect(codes(familyForm, { code })).toEqual(['catalogueCode']);
  });
  it('a version needs a day, and a block; unknown columns are refused', () => {
    const good = { code: 'a', baseVersion: 0, startsOn: '2026-12-01', lines: [{ name: 'x' }], confirm: false };
    expect(codes(saveFamilyForm, good)).toEqual([]);
    expect(codes(saveFamilyForm, { ...good, startsOn: '' })).toEqual(['startRequired']);
    expect(codes(saveFamilyForm, { ...good, lines: [] })).toEqual(['blockRequired']);
    expect(codes(saveFamilyForm, { ...good, lines: [{ colour: 'x' }] })).toHaveLength(1);
    expect(codes(saveFamilyForm, { ...good, lines: [{ name: 'x'.repeat(401) }] })).toEqual(['tooLong']);
  });
  it('an ending needs its day and why; to take it back needs only why', () => {
    expect(codes(endFamilyForm, { code: 'a', lastOrderOn: '', replacedBy: null, reason: 'x' })).toEqual(['lastOrderRequired', 'reasonRequired']);
    expect(codes(endFamilyForm, { code: 'a', lastOrderOn: null, replacedBy: null, reason: 'it goes on' })).toEqual([]);
    // 3/4/2027 can be read two ways.
    expect(codes(endFamilyForm, { code: 'a', lastOrderOn: '3/4/2027', replacedBy: null, reason: 'maker' })).toEqual(['ambiguousDay']);
  });
  it('a house list has three places, none twice', () => {
    const list = (...names: string[]): string[] => codes(houseListForm, { modality: 'daily', geometry: 'toric', codes: names, lastId: null });
    expect([list('a', 'b', 'c'), list('a', 'b', 'c', 'd'), list('a', 'a')]).toEqual([[], ['houseListFull'], ['houseListTwice']]);
  });
  it('a care product lasts 1 to 365 days and has a price', () => {
    const good = {
      productId: null,
      version: 0,
      system: 'peroxide',
      maker: 'm',
      name: 'n',
      contents: 'c',
      lastsDays: 30,
      price: 0,
      includesCase: true,
      ended: false,
    };
    expect(codes(careProductForm, good)).toEqual([]);
    expect(codes(careProductForm, { ...good, lastsDays: 366 })).toEqual(['lastsDaysRange']);
    expect(codes(careProductForm, { ...good, lastsDays: 1.5 })).toEqual(['wholeNumber']);
    expect(codes(careProductForm, { ...good, price: -1 })).toEqual(['priceRange']);
    expect(codes(careProductForm, { ...good, price: Number.NaN })).toEqual(['notANumber']);
    expect(codes(careProductForm, { ...good, system: 'tap water' })).toEqual(['required']);
  });
  it('a file is brought in from a day on', () => {
    expect(codes(takeImportForm, { importId: '0b0f1a52-7a51-4d8e-9f10-6d6d5a3f7a11', startsOn: 'soon' })).toEqual(['notADay']);
  });
});
