import { healthState, powerSummary, type HealthState, type RecordedAnswer } from '../advice/healthState';
import type { PracticeSettings } from '../practiceSettings';
import type { Refraction } from '../optics/refraction';
import type { Eye } from '../units';
import type { FactChain } from './chains';
import type { HealthFile } from './healthFile';
import type { RecordedFinding } from './visitFacts';
import type { WearerRow } from './wearerFile';

type Needs = Readonly<Record<Eye, Refraction | null>>;
const NO_NEEDS: Needs = { right: null, left: null };

/** What is being typed, as if it were recorded: so that the rules can be shown before anything is sent. */
export interface Typing {
  readonly answers?: readonly RecordedAnswer[];
  readonly findings?: readonly FactChain<RecordedFinding>[];
}

/** Whose health, in which visit, and what the practice has set. */
export interface HealthOf {
  readonly visitId: string;
  readonly wearer: Pick<WearerRow, 'guardian'> & { readonly age: number };
  readonly settings: PracticeSettings;
}

/** History and eye health of a visit, with the rules that hold: in the browser and on the server alike. */
/** @param needs what each eye asks for at the cornea, D; null while it is not known */
export const healthOf = (file: HealthFile, of: HealthOf, needs: Needs = NO_NEEDS, typing: Typing = {}): HealthState =>
  healthState({
    visitId: of.visitId,
    answers: [...file.answers, ...(typing.answers ?? [])],
    findings: [...file.findings, ...(typing.findings ?? [])],
    lesions: file.lesions,
    adverseEvents: file.adverseEvents,
    returns: file.returns,
    lowest: file.lowest,
    flattestSteep: file.flattestSteep,
    stops: file.stops,
    overrides: file.overrides,
    age: of.wearer.age,
    guardianNamed: of.wearer.guardian !== null,
    power: powerSummary(needs, file.myopicShift),
    prescribers: file.prescribers,
    settings: of.settings,
  });
