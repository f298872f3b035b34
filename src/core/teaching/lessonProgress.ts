import type { RecordedAnswer } from '../advice/healthState';
import type { TaughtFor } from './careTopics';

/**
 * What of the wearer decides what is taught: how lenses are worn, as decided last, and the nails, as said last.
 * @param wear as decided last in this visit; null while nothing is
 * @param answers oldest first
 * @example lessonProgress('overnight', []) → {overnight: true, longNails: false}
 */
export const lessonProgress = (
  wear: 'day' | 'overnight' | null,
  answers: readonly Pick<RecordedAnswer, 'question' | 'value'>[],
): Required<Pick<TaughtFor, 'overnight' | 'longNails'>> => ({
  overnight: wear === 'overnight',
  longNails: answers.findLast((a) => a.question === 'hygieneHands')?.value === 'longNails',
});
