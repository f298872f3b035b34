import 'server-only';
import {
  DKT_LIMITS,
  FILTERS,
  may,
  nightBar,
  OVERRIDABLE_FILTERS,
  toBePassed,
  type Eye,
  type HealthState,
  type Kind,
  type Refraction,
  type ShortlistWish,
} from '../../core';
import { insertOverride } from '../../db/stop';
import type { FamilyWithBlocks } from '../../db/family';
import { invalid, ruleBroken, type Result } from '../../lib/outcome';
import type { LockedVisit } from '../visit/lock';
import type { Context } from '../define';

/** The wearer as far as a lens is judged by it. */
export interface Fitted {
  readonly age: number;
  readonly kind: Kind | null;
  readonly health: HealthState;
  readonly fitted: readonly Eye[];
  readonly dropped: readonly string[];
}

/** Why a family must not go on this wearer's eye whoever says so: approval or oxygen for nights; null when it may. */
export function shutOut(context: Context, family: FamilyWithBlocks, power: Refraction, wearer: Fitted): Result<never> | null {
  const { settings } = context;
  // Nights: every eye that is fitted has been looked at and is clear; nobody overrides it.
  if (wearer.kind?.wear === 'overnight' && nightBar(wearer.health.facts, wearer.fitted) !== null) return ruleBroken('nightsNotClear');
  const wish = wishOf(context, power, wearer);
  const id = FILTERS.find((f) => FOR_NIGHTS.includes(f.id) && f.shuts({ ...family, rotationPrior: null }, wish))?.id;
  if (id === undefined) return null;
  return ruleBroken(`leftOut.${id}`, { family: family.name, limit: DKT_LIMITS[settings.oxygenSchool].overnight });
}
const FOR_NIGHTS: readonly string[] = ['overnightNotApproved', 'oxygenOvernight'];

/** Adds and materials are judged where a lens is chosen. */
const wishOf = (context: Context, power: Refraction, { age, kind, dropped }: Fitted): ShortlistWish => ({
  today: context.today,
  age,
  kind,
  adds: { right: 1, left: 1 },
  asks: [],
  dropped,
  powers: [power],
  withoutMaterial: null,
  settings: context.settings,
});

/**
 * Judgements that leave a family out are passed with a sentence, which is kept: a lens that failed before by whoever fits,
 * its label and too little oxygen by day by a prescriber.
 */
export async function passJudgements(
  context: Context,
  taken: LockedVisit,
  { eye, family, power, wearer, reason }: { eye: Eye; family: FamilyWithBlocks; power: Refraction; wearer: Fitted; reason: string | null },
): Promise<Result<never> | null> {
  const { tx, caller, now, settings } = context;
  for (const id of toBePassed({ ...family, rotationPrior: null }, wishOf(context, power, wearer))) {
    if (id !== 'failedBefore' && (reason === null || !may(caller.roles, 'sign')))
      return ruleBroken(`leftOut.${id}`, { family: family.name, age: family.minAge ?? 0, limit: DKT_LIMITS[settings.oxygenSchool].day });
    if (reason === null) return invalid('despiteReason', 'sameLensAgain', { family: family.name });
    const meta = { id: context.newId(), practiceId: caller.practiceId, wearerId: taken.visit.wearerId, visitId: taken.visit.id };
    const rule = OVERRIDABLE_FILTERS[id];
    taken.changed('health');
    await insertOverride(
      tx,
      { ...meta, visitVersion: taken.version, at: now, by: caller.personId },
      { rule, evidenceKey: `${rule}|${family.code}|${eye}`, reason },
    );
  }
  return null;
}
