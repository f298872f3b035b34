import {
  AFTERCARE_EYE_KEYS,
  AFTERCARE_PERSON_KEYS,
  DEFAULT_SETTINGS,
  DERIVED_KEYS,
  LESION_KINDS,
  MEDICINES,
  question,
  SETTINGS,
  sign,
  type AdviceFacts,
  type Condition,
  type Figure,
  type FactValue,
  type KeyRange,
  type PracticeSettings,
} from '../../src/core';

/** A rule as far as cases are made from it. */
export interface RuleLike {
  readonly id: string;
  readonly when: readonly Condition[];
}
/** A case that a rule was made to fire on, or just not to. */
export interface RuleCase {
  readonly name: string;
  readonly facts: AdviceFacts;
}

interface Draft {
  person: Record<string, FactValue>;
  eye: Record<string, FactValue>;
  baseline: Record<string, number>;
  settings: Record<string, string | number | boolean>;
}
type Leaf = Exclude<Condition, { any: unknown } | { all: unknown }>;

const empty = (): Draft => ({ person: { age: 30, guardianNamed: 'yes' }, eye: {}, baseline: {}, settings: { ...DEFAULT_SETTINGS } });
const toFacts = (d: Draft): AdviceFacts => ({
  person: d.person,
  eyes: { right: d.eye, left: {} },
  baseline: { right: d.baseline, left: {} },
  settings: d.settings as unknown as PracticeSettings,
});
const figure = (f: Figure): number => (typeof f === 'number' ? f : Number(DEFAULT_SETTINGS[f.setting]));

/** What a key can hold: its options, or its limits and step. Throws when there is no such key. */
function rangeOf(leaf: Leaf): { options: readonly string[]; many: boolean } | { min: number; max: number; step: number } {
  if (leaf.of === 'setting') {
    const d = SETTINGS[leaf.key];
    if (d.kind !== 'choice') throw new Error(`setting ${leaf.key} has no choices`);
    return { options: d.options, many: false };
  }
  const keys: Readonly<Record<string, KeyRange>> = leaf.of === 'eye' ? AFTERCARE_EYE_KEYS : AFTERCARE_PERSON_KEYS;
  const aftercare = keys[leaf.key];
  if (aftercare) return aftercare;
  if (leaf.of === 'eye' && leaf.key === 'lensesOff') return { options: ['yes', 'no'], many: false };
  if (leaf.of === 'eye' && leaf.key === 'kSteeper') return { min: 0, max: 20, step: 0.01 };
  if (leaf.of === 'eye' && leaf.key === 'corneaSeen') return { options: ['yes', 'no'], many: false };
  if (leaf.of === 'eye' && leaf.key === 'lesion') return { options: LESION_KINDS, many: false };
  if (leaf.of === 'eye') {
    const s = sign(leaf.key);
    if (!s) throw new Error(`no sign ${leaf.key}`);
    return s.kind === 'word' ? { options: s.options, many: false } : { min: s.min, max: s.max, step: s.step };
  }
  if (leaf.key === 'age') return { min: 0, max: 120, step: 1 };
  if (leaf.key === 'guardianNamed') return { options: ['yes', 'no'], many: false };
  if (leaf.key === 'medicineGroups') return { options: [...new Set(MEDICINES.map((m) => m.group))], many: true };
  if ((DERIVED_KEYS as readonly string[]).includes(leaf.key)) return { min: 0, max: 30, step: 0.25 };
  const q = question(leaf.key);
  if (!q) throw new Error(`no question ${leaf.key}`);
  if (q.options) return { options: q.options, many: q.kind === 'many' };
  if (q.min === undefined || q.max === undefined) throw new Error(`${leaf.key} cannot be compared`);
  return { min: q.min, max: q.max, step: 1 };
}

const inside = (value: number, r: { min: number; max: number }, what: string): number => {
  if (value < r.min || value > r.max) throw new Error(`unreachable: ${what} ${value} is outside ${r.min} to ${r.max}`);
  return value;
};

function put(d: Draft, leaf: Leaf, value: FactValue): void {
  if (leaf.of === 'setting') d.settings[leaf.key] = value as string;
  else if (leaf.of === 'eye') d.eye[leaf.key] = value;
  else d.person[leaf.key] = value;
}
const held = (d: Draft, leaf: Leaf): FactValue | undefined => (leaf.of === 'setting' ? undefined : leaf.of === 'eye' ? d.eye[leaf.key] : d.person[leaf.key]);

/** Makes one leaf hold, beside whatever holds already. */
function make(d: Draft, leaf: Leaf, preset: ReadonlySet<string>): void {
  const r = rangeOf(leaf);
  const id = `${leaf.of}.${leaf.key}`;
  if ('anyOf' in leaf) {
    if (!('options' in r)) throw new Error(`${id} has no options`);
    const wanted = leaf.anyOf.find((o) => r.options.includes(o));
    for (const o of leaf.anyOf) if (!r.options.includes(o)) throw new Error(`unreachable: ${id} has no option ${o}`);
    if (wanted === undefined) throw new Error(`unreachable: ${id} asks for nothing`);
    const now = held(d, leaf);
    if (r.many) put(d, leaf, [...new Set([...(Array.isArray(now) ? (now as readonly string[]) : []), wanted])]);
    else if (preset.has(id) && typeof now === 'string' && !leaf.anyOf.includes(now)) throw new Error(`contradictory: ${id} cannot be ${now} and ${wanted}`);
    else put(d, leaf, wanted);
    return;
  }
  if (!('min' in r)) throw new Error(`${id} is no number`);
  if ('rose' in leaf) {
    d.baseline[leaf.key] = r.min;
    put(d, leaf, inside(r.min + figure(leaf.rose), r, id));
    return;
  }
  const now = held(d, leaf);
  const known = preset.has(id) && typeof now === 'number' ? now : null;
  if ('atLeast' in leaf) put(d, leaf, Math.max(inside(figure(leaf.atLeast), r, id), known ?? -Infinity));
  else {
    const most = inside(figure(leaf.below) - r.step, r, id);
    if (known !== null && known > most) throw new Error(`contradictory: ${id} cannot be ${known} and under ${figure(leaf.below)}`);
    put(d, leaf, known ?? most);
  }
}

/** Leaves of one way to satisfy a condition; `pick` chooses the branch of each `any`. */
function leaves(c: Condition, pick: (count: number) => number): Leaf[] {
  if ('any' in c) {
    const branch = c.any[pick(c.any.length)];
    return branch ? leaves(branch, pick) : [];
  }
  if ('all' in c) return c.all.flatMap((part) => leaves(part, pick));
  return [c];
}
const branches = (c: Condition): number => ('any' in c ? c.any.length : 'all' in c ? Math.max(1, ...c.all.map(branches)) : 1);

function build(all: readonly Leaf[]): Draft {
  const d = empty();
  const preset = new Set<string>();
  // "At least" before "below": the two ends of a range are met from its lower end.
  const ordered = [...all].sort((a, b) => Number('below' in a) - Number('below' in b));
  for (const leaf of ordered) {
    make(d, leaf, preset);
    preset.add(`${leaf.of}.${leaf.key}`);
  }
  return d;
}

/** The nearest value at which a leaf no longer holds; null when there is none. */
function unmake(d: Draft, leaf: Leaf): Draft | null {
  const out: Draft = { person: { ...d.person }, eye: { ...d.eye }, baseline: { ...d.baseline }, settings: { ...d.settings } };
  const r = rangeOf(leaf);
  if ('anyOf' in leaf) {
    if (!('options' in r)) return null;
    const now = held(out, leaf);
    if (r.many) {
      const rest = (Array.isArray(now) ? (now as readonly string[]) : []).filter((o) => !leaf.anyOf.includes(o));
      put(out, leaf, rest);
      return out;
    }
    const other = r.options.find((o) => !leaf.anyOf.includes(o));
    if (other === undefined) return null;
    put(out, leaf, other);
    return out;
  }
  if (!('min' in r)) return null;
  const value = 'atLeast' in leaf ? figure(leaf.atLeast) - r.step : 'below' in leaf ? figure(leaf.below) : (d.eye[leaf.key] as number) - r.step;
  if (value < r.min - 1e-9 || value > r.max) return null;
  put(out, leaf, value);
  return out;
}

/** Every way to make a rule fire: one case for each branch of its conditions. Throws for an unreachable rule. */
export function firingCases(rule: RuleLike): RuleCase[] {
  const ways = Math.max(1, ...rule.when.map(branches));
  return Array.from({ length: ways }, (_, way) => {
    const all = rule.when.flatMap((c) => leaves(c, (count) => way % count));
    return { name: `${rule.id}, way ${way + 1}`, facts: toFacts(build(all)) };
  });
}

/** For each thing a rule asks, the case where everything else holds and this just does not. */
export function nearMisses(rule: RuleLike): RuleCase[] {
  const ways = Math.max(1, ...rule.when.map(branches));
  return Array.from({ length: ways }, (_, way) => way).flatMap((way) => {
    const all = rule.when.flatMap((c) => leaves(c, (count) => way % count));
    const full = build(all);
    return all.flatMap((leaf): RuleCase[] => {
      const missed = unmake(full, leaf);
      return missed ? [{ name: `${rule.id}, way ${way + 1}, but for ${leaf.of}.${leaf.key}`, facts: toFacts(missed) }] : [];
    });
  });
}

/** What is wrong with a set of rules as a set: twins, opposites, and rules that can never fire. */
export function ruleFaults(
  rules: readonly (RuleLike & { readonly weigh?: Readonly<Partial<Record<string, number>>>; readonly strength?: string })[],
): string[] {
  const faults: string[] = [];
  const seen = new Map<string, (typeof rules)[number]>();
  const ids = new Set<string>();
  for (const rule of rules) {
    if (ids.has(rule.id)) faults.push(`${rule.id}: twice`);
    ids.add(rule.id);
    if (rule.weigh) for (const [target, points] of Object.entries(rule.weigh)) if (!points) faults.push(`${rule.id}: no weight for ${target}`);
    try {
      firingCases(rule);
    } catch (cause) {
      faults.push(`${rule.id}: ${cause instanceof Error ? cause.message : ''}`);
    }
    const key = JSON.stringify(rule.when);
    const twin = rule.when.length > 0 ? seen.get(key) : undefined;
    if (twin && rule.strength !== undefined) faults.push(`${rule.id}: asks the same as ${twin.id}`);
    if (twin?.weigh && rule.weigh) {
      for (const [target, points] of Object.entries(rule.weigh)) {
        const against = twin.weigh[target];
        if (against !== undefined && points !== undefined && Math.sign(against) !== Math.sign(points))
          faults.push(`${rule.id}: contradicts ${twin.id} about ${target}`);
      }
    }
    seen.set(key, rule);
  }
  return faults;
}
