import { toCornealPlane } from '../optics/vertex';
import { EYES, type Eye } from '../units';
import { eyeState, powerOf, type EyeRules, type EyeState, type LensOfEye } from './eyeState';
import type { VisitFacts } from '../record/visitFacts';
import { overPatterns, type KnownLens, type OverPattern, type OverRead } from './overDoubts';

export type NamedLens = LensOfEye & { readonly name: string };

/** One eye as the patterns read it; null while no over-refraction through a known lens was read. */
export function overReadOf(state: EyeState, lens: LensOfEye | undefined): OverRead | null {
  const over = state.overRefraction?.current;
  if (!lens || !over || state.confirmed === null) return null;
  return {
    lens: lens.power,
    rotationLeft: state.overTurn ?? state.turn?.mean ?? 0,
    parts: state.verdict.parts ?? 'all',
    need: state.verdict.fromRefraction,
    over: toCornealPlane(powerOf(over), over.vertexMm),
    orderAxis: state.verdict.order?.axis ?? null,
  };
}

/** Lenses of the visit that could be on an eye by mistake: the other eye's, and those tried before. */
export function mistakable(facts: VisitFacts, eye: Eye, onEye: string | null, lensOf: (id: string) => NamedLens | undefined): KnownLens[] {
  const mine = facts.onEye.find((c) => c.rootId === onEye)?.current?.lensId;
  return facts.onEye.flatMap((c) => {
    const id = c.current?.lensId;
    const lens = id && id !== mine ? lensOf(id) : undefined;
    return lens ? [{ name: lens.name, power: lens.power }] : [];
  });
}

/** What the over-refractions of a visit look like, by eye. See overPatterns. */
export function patternsOfVisit(
  facts: VisitFacts,
  lensOf: (id: string) => NamedLens | undefined,
  rules: EyeRules,
): Readonly<Record<Eye, readonly OverPattern[]>> {
  const reads: Record<Eye, OverRead | null> = { right: null, left: null };
  const known: Record<Eye, KnownLens[]> = { right: [], left: [] };
  for (const eye of EYES) {
    const state = eyeState(facts, eye, lensOf, rules);
    const lensId = state.onEye?.current.lensId;
    reads[eye] = overReadOf(state, lensId ? lensOf(lensId) : undefined);
    known[eye] = mistakable(facts, eye, state.onEye?.rootId ?? null, lensOf);
  }
  return overPatterns(reads, known);
}

/** Figures a pattern's words need. */
export const patternData = (pattern: OverPattern): Readonly<Record<string, string | number>> => {
  switch (pattern.code) {
    case 'looksLike':
      return { name: pattern.name };
    case 'surprise':
      return { gap: pattern.gap.toFixed(2), limit: pattern.limit.toFixed(2) };
    case 'axisFar':
      return { by: pattern.by };
    case 'swapped':
    case 'noLens':
      return {};
  }
};
