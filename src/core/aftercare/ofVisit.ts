import type { HealthState } from '../advice/healthState';
import type { EyeState } from '../fit/eyeState';
import type { NamedLens } from '../fit/visitPatterns';
import { patternsOfVisit } from '../fit/visitPatterns';
import type { PracticeSettings } from '../practiceSettings';
import type { FactChain } from '../record/chains';
import type { HealthFile } from '../record/healthFile';
import type { LensRow } from '../record/lens';
import type { HandOverFact, VisitFacts } from '../record/visitFacts';
import { provenance, type ProvenanceFile } from '../record/wornNow';
import { carePairOf, type CarePair } from '../care/carePair';
import { EYES, type Eye, type IsoDate } from '../units';
import { aftercareSaid } from './asked';
import { aftercareState, type AftercareOf, type AftercareState, type WornAtAftercare } from './aftercareState';
import { keptBySupply } from './replacement';
import { nextAftercare, type AftercareOutcome, type NextAftercare } from './schedule';

/** What an aftercare is made of, as a visit's page and the server both have it. */
export interface AftercareVisit {
  readonly visitId: string;
  readonly today: IsoDate;
  readonly settings: PracticeSettings;
  readonly file: Pick<HealthFile, 'aftercare' | 'decisions' | 'wearBefore'>;
  readonly health: HealthState;
  readonly eyes: Readonly<Record<Eye, EyeState>>;
  readonly facts: VisitFacts;
  readonly provenance: ProvenanceFile;
  readonly handOvers: readonly FactChain<HandOverFact>[];
  readonly lenses: Readonly<Record<string, LensRow>>;
  /** Families of these lenses, for their materials. */
  readonly materials: readonly { readonly code: string; readonly material: string }[];
  readonly carePairs: readonly CarePair[];
  readonly lensOf: (lensId: string) => NamedLens | undefined;
  readonly daysPerWeek: number;
}

/** The lens that aftercare of an eye is about: what is on it today, else what counts as worn. */
export const aftercareLens = (of: Pick<AftercareVisit, 'eyes' | 'provenance'>, eye: Eye): string | null =>
  of.eyes[eye].onEye?.current.lensId ?? provenance(of.provenance, eye).worn?.lensId ?? null;

/** Is sleeping in them prescribed: as decided in this visit, else as decided last before it. */
export const wornOvernight = ({ file, visitId }: Pick<AftercareVisit, 'file' | 'visitId'>): boolean =>
  (file.decisions.findLast((d) => d.visitId === visitId)?.chosen.wear ?? file.wearBefore) === 'overnight';

function wornAt(of: AftercareVisit, eye: Eye): WornAtAftercare | null {
  const lensId = aftercareLens(of, eye);
  const lens = lensId === null ? undefined : of.lenses[lensId];
  if (!lens) return null;
  const product = aftercareSaid(of.file.aftercare, 'solutionUsed', null, of.visitId)?.[0];
  const material = of.materials.find((m) => m.code === lens.familyCode)?.material;
  const modalityOf = (id: string) => of.lenses[id]?.modality;
  return {
    lens,
    pair: product !== undefined && material !== undefined ? (carePairOf(of.carePairs, product, material)?.effect ?? null) : null,
    kept: keptBySupply(of.handOvers, eye, modalityOf, of.daysPerWeek, of.today),
  };
}

/** An over-refraction's pattern, where one was read. */
function patternCodes(of: AftercareVisit): AftercareOf['overPattern'] {
  const patterns = patternsOfVisit(of.facts, of.lensOf, of.settings);
  const code = (eye: Eye): string | null => patterns[eye][0]?.code ?? (of.eyes[eye].overRefraction === null ? null : 'none');
  return { right: code('right'), left: code('left') };
}

/** Aftercare of a visit as it stands: in the browser and on the server alike. */
export const aftercareOfVisit = (of: AftercareVisit): AftercareState & { readonly worn: AftercareOf['worn'] } => {
  const worn = { right: wornAt(of, 'right'), left: wornAt(of, 'left') };
  const { visitId, health, eyes } = of;
  return { ...aftercareState({ visitId, health, eyes, overPattern: patternCodes(of), answers: of.file.aftercare, worn, overnight: wornOvernight(of) }), worn };
};

/** When the wearer is to be seen next, should aftercare end so; null when lens wear stops. */
export function nextAftercareOf(of: AftercareVisit, outcome: AftercareOutcome): NextAftercare | null {
  if (outcome === 'stop') return null;
  const lenses = EYES.flatMap((eye) => of.lenses[aftercareLens(of, eye) ?? ''] ?? []);
  const since = EYES.flatMap((eye) => {
    const worn = aftercareLens(of, eye);
    return of.handOvers.flatMap((c) => (c.current?.eye === eye && c.current.lensId === worn ? [c.current.handedOn] : [])).sort()[0] ?? [];
  });
  return nextAftercare({
    today: of.today,
    outcome,
    since: since.sort().at(-1) ?? null,
    reusable: lenses.some((l) => l.modality !== 'daily'),
    complex: lenses.some((l) => l.geometry !== 'sphere'),
    firstNight: wornOvernight(of) ? (aftercareSaid(of.file.aftercare, 'firstNight', null, null)?.[0] ?? null) : null,
  });
}
