import type { RecordedAnswer } from '../advice/healthState';
import { dayIn } from '../calendar/dates';
import { careTopicsFor, lessonGate, nextMove, type Attempt, type LessonGate, type Move } from '../teaching/lessonGate';
import { lessonProgress } from '../teaching/lessonProgress';
import type { Eye, IsoDate } from '../units';
import type { FactChain } from './chains';
import type { LessonRow } from './lesson';
import type { AttemptFact, TopicFact } from './visitFacts';

/** What the state of a lesson follows from. */
export interface LessonFile {
  /** All lessons of the wearer, oldest first. */
  readonly lessons: readonly LessonRow[];
  readonly attempts: readonly FactChain<AttemptFact>[];
  readonly topics: readonly FactChain<TopicFact>[];
  /** How lenses are worn, as decided last in this visit; null while nothing is. */
  readonly wear: 'day' | 'overnight' | null;
  readonly answers: readonly Pick<RecordedAnswer, 'question' | 'value'>[];
}

/** A lesson as it stands. */
export interface LessonState<Lesson extends LessonRow = LessonRow> {
  readonly lesson: Lesson;
  /** What counts, of this lesson and of earlier days. */
  readonly attempts: readonly AttemptFact[];
  readonly topics: readonly TopicFact[];
  /** Topics that must be said back. */
  readonly mandatory: readonly string[];
  readonly gate: LessonGate;
  /** The move to try next on each eye: only what happened in this very lesson says whether a lens is on. */
  readonly next: Readonly<Record<Eye, Move>>;
}

/**
 * A lesson as it stands: counts and topics carry over from another day, but not past a sign-off, because what was signed off
 * once does not count for the next wearer or the next need.
 * @param now the practice's day and time zone
 */
export function lessonState<Lesson extends LessonRow>(
  lesson: Lesson,
  file: LessonFile,
  now: { readonly today: IsoDate; readonly timeZone: string },
): LessonState<Lesson> {
  const lastSigned = file.lessons.findLastIndex((l) => l.signOffId !== null && l.id !== lesson.id);
  const open = new Set(file.lessons.slice(lastSigned + 1).map((l) => l.id));
  const standing = <Row extends AttemptFact | TopicFact>(chains: readonly FactChain<Row>[]): Row[] =>
    chains.flatMap(({ current }) => (current && open.has(current.lessonId) ? [current] : []));
  const attempts = standing(file.attempts);
  const topics = standing(file.topics);
  const mandatory = careTopicsFor(lesson.singleUse, lessonProgress(file.wear, file.answers));
  const toAttempt = (a: AttemptFact): Attempt => ({
    eye: a.eye,
    move: a.move,
    worked: a.worked,
    unaided: a.unaided,
    today: dayIn(a.observedAt, now.timeZone) === now.today,
  });
  const gate = lessonGate({ attempts: attempts.map(toAttempt), topicsSaidBack: topics.map((t) => t.topic), eyes: lesson.eyes }, mandatory);
  const own = attempts.filter((a) => a.lessonId === lesson.id).map(toAttempt);
  const next = (eye: Eye): Move => nextMove(own, eye, lesson.onAtStart.includes(eye));
  return { lesson, attempts, topics, mandatory, gate, next: { right: next('right'), left: next('left') } };
}
