import {
  GEOMETRIES,
  LIMITS,
  MARK_LAYOUTS,
  lensesLost,
  mergeBlocks,
  compareAdds,
  parseLensAdd,
  readAddTable,
  readChangeRule,
  readSetTable,
  readStartTable,
  MODALITIES,
  MULTIFOCAL_DESIGNS,
  rangeCount,
  rangeValue,
  STABILISATIONS,
  type CatalogueFamily,
  type CurveDiameter,
  type LensBlock,
  type Limit,
  type MarkLayout,
  type StepRange,
} from '../core';
import { FAMILY_COLUMNS, type CatalogueColumn, type Cells } from './catalogueColumns';
import { clip, LineReader, type CatalogueFault, type Note } from './catalogueLine';

export * from './catalogueColumns';
export { FORMULA, type CatalogueFault, type CatalogueFaultCode } from './catalogueLine';

/** A family as read, with what its lines came to. */
export interface ReadFamily {
  readonly family: CatalogueFamily;
  readonly lines: number;
  readonly faults: number;
}

/** Figures of a family, and what they may be. */
const figure = (min: number, max: number, step: number | null = null): Limit => ({ min, max, step, likelyMin: min, likelyMax: max });
const FIGURES = {
  water_percent: figure(0, 100),
  dk: figure(0, 1000),
  dkt_centre: figure(0, 1000),
  dkt_thickest: figure(0, 1000),
  modulus_mpa: figure(0, 20),
  min_age: figure(1, 99, 1),
  myopia_hours: figure(1, 24, 1),
  myopia_days: figure(1, 7, 1),
  rotation_mean: figure(-45, 45),
  rotation_sd: figure(0, 45),
  settle_minutes: figure(1, 60, 1),
  pack_size: figure(1, 400, 1),
  pack_price: figure(0, 100_000),
  rebate: figure(0, 100_000),
  lead_days: figure(0, 120, 1),
  mark_spacing: figure(5, 60, 1),
  sight_minutes: figure(1, 120, 1),
  disinfect_minutes: figure(1, 1440, 1),
  sphere_step: figure(0.25, 20, 0.25),
  axis_step: figure(1, 180, 1),
} as const satisfies Partial<Record<CatalogueColumn, Limit>>;

const known = (column: keyof typeof FIGURES): Limit => FIGURES[column];
const minor = (value: number | null): number => Math.round((value ?? 0) * 100);

type Facts = Omit<CatalogueFamily, 'blocks' | 'startsOn'>;

/** What a line says of lenses that serve several people, and of irregular corneas. */
function readSet(read: LineReader, note: Note, of: { readonly toric: boolean; readonly markLayout: MarkLayout; readonly settleMinutes: number }) {
  const optional = (column: 'mark_spacing' | 'sight_minutes' | 'disinfect_minutes'): number | null => read.number(column, known(column), false);
  const [reusableTrial, irregular] = [read.flag('reusable_trial'), read.flag('irregular')];
  const [markSpacing, sightMinutes] = [optional('mark_spacing'), optional('sight_minutes')];
  const [disinfectWith, disinfectMinutes] = [read.text('disinfect_with', 60, false), optional('disinfect_minutes')];
  if ((markSpacing === null) !== (of.markLayout !== 'fiveSixSeven')) note('stop', 'catalogueSpacing', {});
  if (sightMinutes !== null && sightMinutes < of.settleMinutes) note('stop', 'catalogueSightBefore', { settle: of.settleMinutes, sight: sightMinutes });
  if (reusableTrial !== (disinfectWith !== null) || reusableTrial !== (disinfectMinutes !== null)) note('stop', 'catalogueDisinfect', {});
  if (irregular && !of.toric) note('stop', 'catalogueIrregular', {});
  return { reusableTrial, irregular, markSpacing, sightMinutes, disinfectWith, disinfectMinutes };
}

/** The family's own facts of a line; null where something stops it. Its geometry apart: the block is judged by it. */
function readFacts(cells: Cells, note: Note): { readonly facts: Facts | null; readonly geometry: CatalogueFamily['geometry'] | null } {
  let fine = true;
  const noted: Note = (gravity, code, data) => {
    if (gravity === 'stop') fine = false;
    note(gravity, code, data);
  };
  const read = new LineReader(cells, noted);
  const code = read.text('family_code', 60, true);
  if (code !== null && !/^[a-z0-9][a-z0-9-]*$/.test(code)) noted('stop', 'catalogueCode', { typed: code });
  const optional = (column: keyof typeof FIGURES): number | null => read.number(column, known(column), false);
  const needed = (column: keyof typeof FIGURES): number => read.number(column, known(column), true) ?? 0;
  const said = read.choice('geometry', GEOMETRIES, true);
  const geometry = said ?? 'sphere';
  const rotationMean = optional('rotation_mean');
  const rotationSd = optional('rotation_sd');
  if ((rotationMean === null) !== (rotationSd === null)) noted('stop', 'catalogueHalfPair', {});
  const [myopiaHours, myopiaDays] = [optional('myopia_hours'), optional('myopia_days')];
  if ((myopiaHours === null) !== (myopiaDays === null)) noted('stop', 'catalogueHalfLabel', {});
  const price = read.number('pack_price', FIGURES.pack_price, true);
  if (price === 0) noted('stop', 'cataloguePrice', {});
  const toric = geometry === 'toric' || geometry === 'toricMultifocal';
  const withAdd = geometry === 'multifocal' || geometry === 'toricMultifocal';
  const table = <T>(column: 'add_table' | 'start_table' | 'change_rule' | 'set_table', readTable: (text: string) => T | null): T | null => {
    const text = read.raw(column);
    const found = text === '' ? null : readTable(text);
    if (text !== '' && found === null) noted('stop', 'catalogueTable', { column, typed: clip(text) });
    return found;
  };
  const markLayout = read.choice('mark_layout', MARK_LAYOUTS, false) ?? 'none';
  if (toric && markLayout === 'none') noted('stop', 'catalogueMarks', {});
  const settleMinutes = needed('settle_minutes');
  const ofSet = readSet(read, noted, { toric, markLayout, settleMinutes });
  const facts = {
    code: code ?? '',
    maker: read.text('maker', 80, true) ?? '',
    name: read.text('name', 80, true) ?? '',
    geometry,
    modality: read.choice('modality', MODALITIES, true) ?? 'monthly',
    material: read.text('material', 60, true) ?? '',
    waterPercent: optional('water_percent'),
    dk: optional('dk'),
    dktCentre: optional('dkt_centre'),
    dktThickest: optional('dkt_thickest'),
    modulusMpa: optional('modulus_mpa'),
    ionicGroup: read.text('ionic_group', 20, false),
    overnightApproved: read.flag('overnight_approved'),
    minAge: optional('min_age'),
    myopiaHours,
    myopiaDays,
    markLayout,
    stabilisation: toric ? read.choice('stabilisation', STABILISATIONS, false) : null,
    rotationMean,
    rotationSd,
    settleMinutes,
    packSize: needed('pack_size'),
    packPriceMinor: minor(price),
    rebateMinor: minor(optional('rebate')),
    leadDays: needed('lead_days'),
    multifocalDesign: withAdd ? read.choice('multifocal_design', MULTIFOCAL_DESIGNS, false) : null,
    addTable: (withAdd ? table('add_table', readAddTable) : null) ?? [],
    startTable: (withAdd ? table('start_table', readStartTable) : null) ?? [],
    changeRule: withAdd ? table('change_rule', readChangeRule) : null,
    ...ofSet,
    setTable: (ofSet.irregular ? table('set_table', readSetTable) : null) ?? [],
  };
  return { facts: fine ? facts : null, geometry: said };
}

function readRange(read: LineReader, note: Note, of: 'sphere' | 'axis', limit: Limit, stepLimit: Limit): StepRange | null {
  const [fromColumn, toColumn, stepColumn] = [`${of}_from`, `${of}_to`, `${of}_step`] as [CatalogueColumn, CatalogueColumn, CatalogueColumn];
  const zero = of === 'axis' ? { ...limit, min: 0 } : limit;
  const from = read.number(fromColumn, zero, true);
  const to = read.number(toColumn, zero, true);
  const step = read.number(stepColumn, stepLimit, true);
  if (from === null || to === null || step === null) return null;
  if (of === 'axis' && (from === 0 || to === 0)) {
    // 0 is 180: alone it is read so, as the foot of a range it would name an axis twice.
    note('watch', 'catalogueAxisZero', {});
    return from === 0 && to === 0 ? { from: 180, to: 180, step } : { from: from === 0 ? step : from, to: to === 0 ? 180 : to, step };
  }
  if (from > to) {
    note('stop', 'catalogueOrder', { column: fromColumn, from, to });
    return null;
  }
  const range = { from, to, step };
  if (Math.abs(rangeValue(range, rangeCount(range) - 1) - to) > 1e-6) {
    note('stop', 'catalogueReach', { column: toColumn, to, step });
    return null;
  }
  return range;
}

function readCurves(read: LineReader, note: Note): CurveDiameter[] | null {
  const parts = read.list('curves');
  if (parts.length === 0) {
    note('stop', 'catalogueEmpty', { column: 'curves' });
    return null;
  }
  const curves = parts.map((part): CurveDiameter | null => {
    const [baseText, diameterText, ...more] = part.split('/');
    if (baseText === undefined || diameterText === undefined || more.length > 0) {
      note('stop', 'catalogueCurve', { typed: clip(part) });
      return null;
    }
    const baseCurve = read.figure('curves', baseText, LIMITS.baseCurveMm);
    const diameter = read.figure('curves', diameterText, LIMITS.diameterMm);
    return baseCurve === null || diameter === null ? null : { baseCurve, diameter };
  });
  return curves.every((c) => c !== null) ? curves : null;
}

/** The block of a line; null where something stops it. */
function readBlock(read: LineReader, note: Note, geometry: CatalogueFamily['geometry'] | null): LensBlock | null {
  const toric = geometry === 'toric' || geometry === 'toricMultifocal';
  const withAdd = geometry === 'multifocal' || geometry === 'toricMultifocal';
  const spheres = readRange(read, note, 'sphere', LIMITS.sphere, FIGURES.sphere_step);
  const typed = read.list('cylinders').map((c) => read.figure('cylinders', c, LIMITS.cylinder));
  const cylinders = typed.filter((c): c is number => c !== null);
  const asked = typed.length === 0 ? [0] : cylinders;
  if (geometry !== null && typed.length === cylinders.length && (toric ? typed.length === 0 : asked.some((c) => c !== 0))) {
    note('stop', 'catalogueCylinder', { geometry });
    return null;
  }
  const turned = asked.some((c) => c !== 0);
  const axes = turned ? readRange(read, note, 'axis', LIMITS.axis, FIGURES.axis_step) : { from: 180, to: 180, step: 10 };
  // An addition may have a space in it: only bars and semicolons part them, but for bands, which may stand side by side.
  const typedAdds = read
    .raw('adds')
    .split(/\s*[|;]\s*|(?<=low|medium|high)\s+/i)
    .filter((part) => part !== '');
  const readAdds = typedAdds.map(parseLensAdd);
  const adds = [...new Set(readAdds.filter((a) => a !== null))].sort(compareAdds);
  if (readAdds.some((a) => a === null)) {
    note('stop', 'catalogueOffered', { column: 'adds', typed: clip(typedAdds.join(' ')), options: 'low, medium, high, +1.50, CN +2.00' });
    return null;
  }
  if (geometry !== null && withAdd !== adds.length > 0) {
    note('stop', 'catalogueAdd', { geometry });
    return null;
  }
  const curves = readCurves(read, note);
  if (!spheres || !axes || !curves || cylinders.length !== typed.length) return null;
  return { spheres, cylinders: [...new Set(asked)], axes, adds: withAdd ? adds : [null], curves };
}

interface Gathered {
  readonly facts: Facts | null;
  readonly geometry: CatalogueFamily['geometry'] | null;
  readonly firstLine: number;
  readonly cells: Cells;
  readonly blocks: LensBlock[];
  readonly seen: Map<string, number>;
  lines: number;
  faults: number;
}

/** Reads a catalogue line by line; what is wrong is kept by line, families are handed out at the end. */
export class CatalogueReader {
  readonly faults: CatalogueFault[] = [];
  private readonly families = new Map<string, Gathered>();

  /** Takes one line. @param line its number in the file, 1 the first */
  add(line: number, cells: Cells): void {
    const key = (cells.family_code ?? '').normalize('NFKC').trim() || `line ${line}`;
    let family = this.families.get(key);
    let stopped = 0;
    const note: Note = (gravity, code, data = {}) => {
      if (gravity === 'stop') stopped++;
      this.faults.push({ line, gravity, code, data });
    };
    const read = new LineReader(cells, note);
    if (!family) {
      family = { ...readFacts(cells, note), firstLine: line, cells, blocks: [], seen: new Map(), lines: 0, faults: 0 };
      this.families.set(key, family);
    } else {
      for (const column of FAMILY_COLUMNS) {
        const now = read.raw(column);
        const first = new LineReader(family.cells, note).raw(column);
        // A family's facts may stand on its first line alone.
        if (now !== first && now !== '') note('stop', 'catalogueContradicts', { column, typed: clip(now), line: family.firstLine, first: clip(first) });
      }
    }
    family.lines++;
    const block = readBlock(read, note, family.geometry);
    if (block && stopped === 0) {
      const blockKey = JSON.stringify(block);
      const before = family.seen.get(blockKey);
      if (before === undefined) {
        family.seen.set(blockKey, line);
        family.blocks.push(block);
      } else note('watch', 'catalogueTwice', { line: before });
    }
    family.faults += stopped;
  }

  /** A line that is no line of the table: too few or too many cells. */
  odd(line: number, found: number, expected: number): void {
    this.faults.push({ line, gravity: 'stop', code: 'catalogueColumns', data: { found, expected } });
  }

  /** Codes met, in the order of the file. */
  codes(): string[] {
    return [...this.families.keys()];
  }

  /** One family as read; its blocks in as few as say the same. Null where its facts could not be read. */
  family(code: string): ReadFamily | null {
    const found = this.families.get(code);
    if (!found?.facts) return null;
    const blocks = mergeBlocks(found.blocks);
    const lost = lensesLost(found.blocks, { ...found.facts, blocks });
    // Not one lens of the file is lost on the way into fewer blocks; if one were, the family stays out, said so.
    if (lost) {
      this.faults.push({ line: found.firstLine, gravity: 'stop', code: 'catalogueLost', data: { ...lost } });
      found.faults++;
      return null;
    }
    return { family: { ...found.facts, startsOn: null, blocks }, lines: found.lines, faults: found.faults };
  }

  /** Lines and faults of a code, readable or not. */
  countOf(code: string): { readonly lines: number; readonly faults: number } {
    const found = this.families.get(code);
    return { lines: found?.lines ?? 0, faults: found?.faults ?? 0 };
  }
}
