import type { CareSystem } from '../care/careSystem';
import { topicsOfChange, type CareTopic, type OnceTaught } from '../teaching/careTopics';
import type { LessonRow } from './lesson';

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
