import type { CareSystem } from '../care/careSystem';
import { carePrescribed } from '../care/inUse';
import { topicsOfChange, type CareTopic, type OnceTaught } from '../teaching/careTopics';
import type { LessonRow } from './lesson';
import { wearDecided, type LessonParts } from './lessonFile';

/**
 * Topics that somebody who was signed off before must say back anew, because solution, reuse or nights changed since. Every sign-off since adds
 * what it was for: a lesson of topics alone after a changed solution leaves nothing owed.
 * @param lessons oldest first
 * @param now what the lenses are that go home
 */
export function topicsOwed(lessons: readonly LessonRow[], now: OnceTaught, system: CareSystem | null): readonly CareTopic[] {
  const last = lessons.findLast((l) => l.signOffId !== null);
  if (!last) return [];
  const before: OnceTaught = { singleUse: last.singleUse, overnight: last.overnight ?? false, productId: last.productId };
  // Sign-offs from before the product was kept: nothing is known to have changed.
  const known = last.productId === null && !last.singleUse ? { ...before, productId: now.productId } : before;
  return topicsOfChange(known, now, system);
}

/** What the lenses are that are taught or go home, as far as a change of it asks for topics anew; with the care system that they are kept in. */
export function taughtFor(
  parts: Pick<LessonParts, 'visitId' | 'health' | 'careProducts'> & { readonly supply: Pick<LessonParts['supply'], 'careSystems'> },
  singleUse: boolean,
): { readonly now: OnceTaught; readonly system: CareSystem | null } {
  const productId = singleUse ? null : (carePrescribed(parts.supply.careSystems)?.productId ?? null);
  const overnight = (wearDecided(parts) ?? parts.health.wearBefore) === 'overnight';
  return { now: { singleUse, overnight, productId }, system: parts.careProducts.find((p) => p.productId === productId)?.system ?? null };
}
