import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_SETS } from '../../demo/diagnosticSets';
import { DEMO_FAMILIES, wholeFamily } from '../../demo/families';
import { countLenses, isMade, lensesLost, mergeBlocks, rangeValues, type CatalogueFamily, type LensBlock } from '../core';
import { CATALOGUE_COLUMNS, CatalogueReader, type CatalogueColumn, type CatalogueFault } from '../schema/catalogue';
import { openCatalogue, writeCatalogue } from './catalogueCsv';
import type { CsvFile } from './csv';

const families: readonly CatalogueFamily[] = DEMO_FAMILIES.map((f) => wholeFamily(f, f.code));
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
function opened(file: Uint8Array): CsvFile<CatalogueColumn> {
  const open = openCatalogue(file);
  if (!open.ok) throw new Error(JSON.stringify(open.error));
  return open.value;
}
function read(file: Uint8Array): CatalogueReader {
  const reader = new CatalogueReader();
  for (const row of opened(file).rows) reader.add(row.line, row.cells);
  return reader;
}
/** Every lens of some blocks, curve and add included. */
const lensesOf = (blocks: readonly LensBlock[]): string[] =>
  [
    ...new Set(
      blocks.flatMap((b) =>
        rangeValues(b.spheres).flatMap((s) =>
          b.cylinders.flatMap((c) =>
            (c === 0 ? [180] : rangeValues(b.axes)).flatMap((a) =>
              b.adds.flatMap((add) => b.curves.map((k) => `${s} ${c} ${a} ${add} ${k.baseCurve}/${k.diameter}`)),
            ),
          ),
        ),
      ),
    ),
  ].sort();

const HEAD =
  'family_code,maker,name,geometry,modality,material,mark_layout,settle_minutes,pack_size,pack_price,lead_days,sphere_from,sphere_to,sphere_step,cylinders,axis_from,axis_to,axis_step,adds,curves';
const PLOVER = 'plover-30-toric,Marram,Plover 30 Toric,toric,monthly,silicone hydrogel,six,10,6,52.00,5';
const TURNSTONE = 'turnstone-30,Marram,Turnstone 30,sphere,monthly,silicone hydrogel,none,5,6,36.00,5';
const file = (...lines: readonly string[]): Uint8Array => bytes([HEAD, ...lines].join('\n'));
const faultsOf = (...lines: readonly string[]): readonly CatalogueFault[] => read(file(...lines)).faults;
const codesOf = (...lines: readonly string[]): readonly string[] => faultsOf(...lines).map((f) => `${f.line} ${f.gravity} ${f.code}`);

describe('a catalogue written and read again', () => {
  const back = read(bytes(writeCatalogue(families)));
  it('has nothing wrong with it', () => expect(back.faults).toEqual([]));
  it.each(families.map((f) => [f.name, f] as const))('%s comes back as it was, every lens of it', (_name, family) => {
    const read2 = back.family(family.code);
    if (!read2) throw new Error('not read');
    const { blocks, startsOn: _s, ...facts } = read2.family;
    for (const [key, value] of Object.entries(facts)) expect([key, value]).toEqual([key, family[key as keyof CatalogueFamily] ?? null]);
    expect(lensesOf(blocks)).toEqual(lensesOf(family.blocks));
  });
  it('names of makers cannot become formulas, minus powers stay numbers', () => {
    const odd = { ...families[0]!, maker: '=HYPERLINK("x")', name: '-1+1|calc', material: '@sum' };
    const text = writeCatalogue([odd]);
    expect(text).toContain(`"'=HYPERLINK(""x"")"`);
    expect(text).toContain(`'-1+1|calc`);
    expect(text).toContain(`'@sum`);
    expect(text).toContain(',-9.00,');
    expect(text).toContain('-0.75|-1.25');
    expect(text).not.toContain("'-9");
    expect(text).not.toContain("'-0.75");
  });
});

describe('encodings, quotes and decimal commas', () => {
  const line = `${TURNSTONE},-6.00,6.00,0.25,,,,,,8.4/14.2`;
  const utf16 = (text: string, big: boolean): Uint8Array => {
    const out = new Uint8Array(2 + text.length * 2);
    new DataView(out.buffer).setUint16(0, 0xfeff, !big);
    for (let i = 0; i < text.length; i++) new DataView(out.buffer).setUint16(2 + i * 2, text.charCodeAt(i), !big);
    return out;
  };
  const accented = `${HEAD}\n${line.replace('Marram', 'Márråm')}`;
  it.each([
    ['utf-8', bytes(accented)],
    ['utf-16le', utf16(accented, false)],
    ['utf-16be', utf16(accented, true)],
    ['windows-1252', Uint8Array.from([...accented].map((c) => c.charCodeAt(0)))],
  ] as const)('%s', (encoding, data) => {
    expect(opened(data).encoding).toBe(encoding);
    expect(read(data).family('turnstone-30')?.family.maker).toBe('Márråm');
  });
  it('semicolons with decimal commas, tabs, quotes, a mark at the start, empty lines', () => {
    const semicolons = `${HEAD.replaceAll(',', ';')}\r\n\r\n${TURNSTONE.replaceAll(',', ';').replace('36.00', '36,00')};-6,00;6,00;0,25;;;;;;8,4/14,2\r\n`;
    const found = read(bytes(`\uFEFF${semicolons}`));
    expect(found.faults).toEqual([]);
    expect(found.family('turnstone-30')?.family).toMatchObject({
      packPriceMinor: 3600,
      blocks: [{ spheres: { from: -6, to: 6, step: 0.25 }, curves: [{ baseCurve: 8.4, diameter: 14.2 }] }],
    });
    expect(read(bytes(`${HEAD}\n${line}`.replaceAll(',', '\t'))).faults).toEqual([]);
    const quoted = read(
      file(line.replace('Marram', '"Marram, and sons\nof the quay"'), `${TURNSTONE.replace('Marram', '"Marram, and sons\nof the quay"')},7,8,0.5,,,,,,8.4`),
    );
    expect(quoted.family('turnstone-30')?.family.maker).toBe('Marram, and sons\nof the quay');
    // The second record begins on the file's fourth line.
    expect(quoted.faults).toEqual([{ line: 4, gravity: 'stop', code: 'catalogueCurve', data: { typed: '8.4' } }]);
  });
  it('1,250 is never guessed', () => {
    const semicolons = `${HEAD.replaceAll(',', ';')}\n${TURNSTONE.replaceAll(',', ';').replace('36.00', '1,250')};-6;6;0,25;;;;;;8.4/14.2`;
    expect(read(bytes(semicolons)).faults.map((f) => f.code)).toEqual(['catalogueNumber']);
  });
});

describe('a broken file changes nothing', () => {
  it.each([
    ['nothing in it', bytes(''), 'fileEmpty'],
    ['names only', bytes(HEAD), 'fileEmpty'],
    ['binary', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]), 'fileNotText'],
    ['a quote never closed', bytes(`${HEAD}\n${TURNSTONE.replace('Marram', '"Marram')},-6,6,0.25,,,,,,8.4/14.2`), 'fileQuote'],
    ['columns missing', bytes('family_code,name\nx,y'), 'fileColumns'],
    ['a column named twice', bytes(`${HEAD},adds\n${TURNSTONE},-6,6,0.25,,,,,,8.4/14.2,`), 'fileTwiceNamed'],
  ] as const)('%s', (_what, data, code) => {
    expect(openCatalogue(data)).toMatchObject({ ok: false, error: { code } });
  });
  it('unknown columns are left aside and named', () => {
    expect(opened(bytes(`${HEAD},colour\n${TURNSTONE},-6,6,0.25,,,,,,8.4/14.2,blue`)).unknown).toEqual(['colour']);
  });
});

describe('faults by line', () => {
  const good = `${PLOVER},-6,4,0.25,-0.75|-1.25,10,180,10,,8.6/14.2`;
  it('a good line has none', () => expect(faultsOf(good)).toEqual([]));
  it.each([
    ['letters in a number', good.replace('-6,4', '-6x,4'), ['2 stop catalogueNumber']],
    ['a sphere off its step', good.replace('-6,4', '-6.1,4'), ['2 stop catalogueStep']],
    ['a sphere past all limits', good.replace('-6,4', '-60,4'), ['2 stop catalogueRange']],
    ['from past to', good.replace('-6,4', '4,-6'), ['2 stop catalogueOrder']],
    ['a step that never reaches the end', good.replace('-6,4,0.25', '-6,4.25,0.5'), ['2 stop catalogueReach']],
    ['axis 181', good.replace('10,180,10', '10,181,10'), ['2 stop catalogueRange']],
    ['axis 0, read as 180', good.replace('10,180,10', '0,0,10'), ['2 watch catalogueAxisZero']],
    ['a word that is not offered', good.replace(',monthly,', ',weekly,'), ['2 stop catalogueOffered']],
    ['an empty cell that is needed', good.replace(',Marram,', ',,'), ['2 stop catalogueEmpty']],
    ['price nothing', good.replace('52.00', '0.00'), ['2 stop cataloguePrice']],
    ['a formula for a name', good.replace('Plover 30 Toric', '=1+1'), ['2 stop catalogueFormula']],
    ['a formula that begins like a number', good.replace('Plover 30 Toric', '-1+cmd'), ['2 stop catalogueFormula']],
    ['a code with spaces', good.replace('plover-30-toric', 'Plover 30'), ['2 stop catalogueCode']],
    ['a toric without cylinders', good.replace('-0.75|-1.25', ''), ['2 stop catalogueCylinder']],
    ['a toric without marks', good.replace(',six,', ',none,'), ['2 stop catalogueMarks']],
    ['an add on a single vision lens', good.replace(',,8.6', ',low,8.6'), ['2 stop catalogueAdd']],
    ['a curve without a diameter', good.replace('8.6/14.2', '8.6'), ['2 stop catalogueCurve']],
    ['a diameter of a coin', good.replace('8.6/14.2', '8.6/24'), ['2 stop catalogueRange']],
    ['a plus cylinder', good.replace('-0.75|-1.25', '0.75'), ['2 stop catalogueRange']],
  ] as const)('%s', (_what, line, expected) => expect(codesOf(line)).toEqual(expected));
  it('the same line twice is kept once; what contradicts the family’s first line is a fault with that line', () => {
    expect(codesOf(good, good)).toEqual(['3 watch catalogueTwice']);
    const found = faultsOf(good, good.replace('52.00', '54.00').replace('-6,4', '4.25,6'));
    expect(found).toEqual([
      { line: 3, gravity: 'stop', code: 'catalogueContradicts', data: { column: 'pack_price', typed: '54.00', line: 2, first: '52.00' } },
    ]);
  });
  it('a family’s facts may stand on its first line alone', () => {
    const reader = read(file(good, 'plover-30-toric,,,,,,,,,,,4.50,6,0.5,-0.75,10,180,10,,8.6/14.2'));
    expect(reader.faults).toEqual([]);
    expect(reader.family('plover-30-toric')).toMatchObject({ lines: 2, faults: 0 });
  });
  it('never throws, whatever the cells hold', () => {
    const cell = fc.string({ unit: 'binary', maxLength: 20 });
    fc.assert(
      fc.property(fc.array(fc.record(Object.fromEntries(CATALOGUE_COLUMNS.map((c) => [c, cell])), { requiredKeys: [] }), { maxLength: 4 }), (rows) => {
        const reader = new CatalogueReader();
        rows.forEach((cells, i) => reader.add(i + 2, cells));
        for (const code of reader.codes()) reader.family(code);
      }),
    );
    fc.assert(fc.property(fc.uint8Array({ maxLength: 300 }), (data) => void openCatalogue(data)));
  });
});

describe('a family listed power by power', () => {
  it.each(families.filter((f) => lensesOf(f.blocks).length < 30_000).map((f) => [f.name, f] as const))(
    '%s becomes the ranges it is made in',
    (_name, family) => {
      const lone = family.blocks.flatMap((b) =>
        rangeValues(b.spheres).flatMap((s) =>
          b.cylinders.flatMap((c) =>
            (c === 0 ? [180] : rangeValues(b.axes)).map((a): LensBlock => ({
              ...b,
              spheres: { from: s, to: s, step: 0.25 },
              cylinders: [c],
              axes: { from: a, to: a, step: 10 },
            })),
          ),
        ),
      );
      const merged = mergeBlocks(lone);
      expect(lensesOf(merged)).toEqual(lensesOf(family.blocks));
      expect(merged.length).toBeLessThanOrEqual(family.blocks.length + 4);
      for (const b of merged.slice(0, 3)) {
        const lens = { sphere: b.spheres.from, cylinder: b.cylinders[0] ?? 0, axis: b.axes.from, add: b.adds[0] ?? null, ...b.curves[0]! };
        expect(isMade(lens, family)).toBe(true);
      }
    },
  );
  it('random blocks stay the same lenses', () => {
    const block = fc.record({
      spheres: fc
        .record({ from: fc.integer({ min: -8, max: 0 }), n: fc.integer({ min: 0, max: 3 }), step: fc.constantFrom(0.25, 0.5) })
        .map(({ from, n, step }) => ({ from, to: from + n * step, step })),
      cylinders: fc.uniqueArray(fc.constantFrom(0, -0.75, -1.25, -1.75), { minLength: 1 }),
      axes: fc
        .record({ from: fc.integer({ min: 1, max: 9 }), n: fc.integer({ min: 0, max: 3 }), step: fc.constantFrom(5, 10) })
        .map(({ from, n, step }) => ({ from: from * 10, to: from * 10 + n * step, step })),
      adds: fc.constant([null]),
      curves: fc.uniqueArray(fc.constantFrom(8.4, 8.8), { minLength: 1 }).map((list) => list.map((baseCurve) => ({ baseCurve, diameter: 14 }))),
    });
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 6 }), (blocks) => {
        expect(lensesOf(mergeBlocks(blocks))).toEqual(lensesOf(blocks));
        expect(countLenses(blocks)).toBe(lensesOf(blocks).length);
        expect(lensesLost(blocks, { ...families[0]!, blocks: mergeBlocks(blocks) })).toBeNull();
      }),
    );
  });
  it('a line that lists cylinder 0 beside others keeps its toric lenses: −3.00/−1.25×90 is still made', () => {
    const line = (cylinders: readonly number[], from: number): LensBlock => ({
      spheres: { from: -6, to: 0, step: 0.25 },
      cylinders,
      axes: { from, to: from + 80, step: 10 },
      adds: [null],
      curves: [{ baseCurve: 8.6, diameter: 14.2 }],
    });
    const blocks = [line([0, -0.75, -1.25], 10), line([0, -0.75, -1.25], 100)];
    const made = { ...families[0]!, blocks: mergeBlocks(blocks) };
    expect(isMade({ sphere: -3, cylinder: -1.25, axis: 90, add: null, baseCurve: 8.6, diameter: 14.2 }, made)).toBe(true);
    expect(countLenses(made.blocks)).toBe(25 * (1 + 2 * 18));
    // What the file lists and the library would keep is compared: a lost axis is found.
    expect(lensesLost(blocks, { ...made, blocks: [line([0, -0.75, -1.25], 10)] })).toEqual({ file: 925, library: 475 });
    const moved = blocks.map((b) => ({ ...b, axes: { ...b.axes, from: b.axes.from + 5, to: b.axes.to + 5 } }));
    expect(lensesLost(blocks, { ...made, blocks: moved })).toEqual({ file: 925, library: 925 });
  });
});

describe('diagnostic sets', () => {
  const sets = DEMO_SETS.map((f) => wholeFamily(f, f.code));
  it('go through the file without loss: marks, clocks, start table, how they are disinfected', () => {
    const file = read(bytes(writeCatalogue(sets)));
    expect(file.faults).toEqual([]);
    for (const set of sets) {
      const { irregular, reusableTrial, modality, markLayout, markSpacing, sightMinutes, setTable, disinfectWith, disinfectMinutes } = set;
      expect(file.family(set.code)?.family).toMatchObject({
        ...{ irregular, reusableTrial, modality, markLayout, markSpacing, sightMinutes, setTable, disinfectWith, disinfectMinutes },
      });
    }
  });
  const [head = '', first = ''] = writeCatalogue(sets.slice(1)).split('\r\n');
  const changed = (column: string, value: string): string => {
    const cells = first.match(/("([^"]|"")*"|[^,]*)(,|$)/g)!.map((c) => c.replace(/,$/, ''));
    cells[head.replace('\uFEFF', '').split(',').indexOf(column)] = value;
    return `${head}\r\n${cells.slice(0, head.split(',').length).join(',')}\r\n`;
  };
  it.each([
    ['mark_spacing', '', 'catalogueSpacing'],
    ['mark_layout', 'six', 'catalogueSpacing'],
    ['sight_minutes', '5', 'catalogueSightBefore'],
    ['disinfect_minutes', '', 'catalogueDisinfect'],
    ['reusable_trial', 'no', 'catalogueDisinfect'],
    ['set_table', 'oblate nine', 'catalogueTable'],
  ])('%s: %j → %s', (column, value, code) => expect(read(bytes(changed(column, value))).faults.map((f) => f.code)).toContain(code));
});
