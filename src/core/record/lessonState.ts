import type { RecordedAnswer } from '../advice/healthState';
import { dayIn } from '../calendar/dates';
import type { CareSystem } from '../care/careSystem';
import type { PracticeSettings } from '../practiceSettings';
import { careTopicsFor, topicsAgain, type CareTopic } from '../teaching/careTopics';
import { failedTechniques } from '../teaching/failedTechniques';
import { lessonTime, minutesToGo, type LessonTime } from '../teaching/lessonClock';
import { lessonGate, MOVES_NEEDED, nextMove, type Attempt, type LessonGate, type Move } from '../teaching/lessonGate';
import { lessonPlan, type LessonPlan } from '../teaching/lessonPlan';
import { lessonProgress } from '../teaching/lessonProgress';
import type { OffTechnique, OnTechnique } from '../teaching/techniques';
import type { Eye, IsoDate, IsoInstant } from '../units';
import type { AnyFact } from './fact';
import type { FactChain } from './chains';
import { USUAL_WAY, type LessonRow, type LessonWay } from './lesson';
import type { AttemptFact, LessonSightFact, LessonTurnFact, LessonWayFact, TopicFact } from './visitFacts';

/** What the state of a lesson follows from. */
export interface LessonFile {
  /** All lessons of the wearer, oldest first. */
  readonly lessons: readonly LessonRow[];
  readonly attempts: readonly FactChain<AttemptFact>[];
  readonly topics: readonly FactChain<TopicFact>[];
  readonly lessonWays: readonly FactChain<LessonWayFact>[];
  readonly lessonTurns: readonly FactChain<LessonTurnFact>[];
  readonly lessonSights: readonly FactChain<LessonSightFact>[];
  /** How lenses are worn, as decided last in this visit; null while nothing is. */
  readonly wear: 'day' | 'overnight' | null;
  readonly answers: readonly Pick<RecordedAnswer, 'question' | 'value'>[];
  /** The lenses' label says how long they are worn. */
  readonly labelled: boolean;
  /** The care system prescribed last; null while none is. */
  readonly system: CareSystem | null;
  /** The wider palpebral aperture of both eyes, mm; null where it was not measured. */
  readonly apertureMm: number | null;
  readonly settings: Pick<PracticeSettings, 'removal'>;
}

/** A lesson as it stands. */
export interface LessonState<Lesson extends LessonRow = LessonRow> {
  readonly lesson: Lesson;
  /** What counts, of this lesson and of earlier days, oldest first. */
  readonly attempts: readonly AttemptFact[];
  /** Said back as they were taught. */
  readonly topics: readonly TopicFact[];
  /** Topics that must be said back, and those asked once more at the end. */
  readonly mandatory: readonly CareTopic[];
  readonly again: readonly CareTopic[];
  /** Of those, the ones that were said back again in this lesson. */
  readonly saidAgain: readonly CareTopic[];
  readonly gate: LessonGate;
  /** The move to try next on each eye: only what happened in this very lesson says whether a lens is on. */
  readonly next: Readonly<Record<Eye, Move>>;
  readonly way: LessonWay;
  readonly plan: LessonPlan;
  /** How the next attempt of a move is taught. */
  readonly technique: { readonly on: OnTechnique; readonly off: OffTechnique };
  readonly time: LessonTime;
  /** Minutes to sign-off at this pace; null before the first success. */
  readonly toGo: number | null;
  /** Eyes on which the wearer put a lens by themselves in this lesson. */
  readonly putOn: readonly Eye[];
  /** Acuity read in this lesson. */
  readonly sights: Readonly<Record<Eye, LessonSightFact | null>>;
  /** It was stopped for the day. */
  readonly stopped: boolean;
  /** The hour is over, and no prescriber let it go on. */
  readonly hourOver: boolean;
}

const standing = <Row extends AnyFact & { readonly lessonId: string }>(chains: readonly FactChain<Row>[], lessons: ReadonlySet<string>): Row[] =>
  chains.flatMap(({ current }) => (current && lessons.has(current.lessonId) ? [current] : []));

/** Acuity of an eye counts once the wearer had put that lens on. */
function sightOf(eye: Eye, sights: readonly LessonSightFact[], attempts: readonly AttemptFact[]): LessonSightFact | null {
  const on = attempts.find((a) => a.eye === eye && a.move === 'on' && a.worked && a.unaided);
  return (on && sights.findLast((s) => s.eye === eye && s.observedAt >= on.observedAt)) ?? null;
}

const wanted = (gate: LessonGate, eyes: readonly Eye[]): number =>
  eyes.reduce((sum, eye) => sum + Math.max(0, MOVES_NEEDED - gate.done[eye].on) + Math.max(0, MOVES_NEEDED - gate.done[eye].off), 0);

/**
 * A lesson as it stands: counts and topics carry over from another day, but not past a sign-off, because what was signed off
 * once does not count for the next wearer or the next need.
 * @param now the practice's day and time zone, and the moment
 */
export function lessonState<Lesson extends LessonRow>(
  lesson: Lesson,
  file: LessonFile,
  now: { readonly today: IsoDate; readonly timeZone: string; readonly at: IsoInstant },
): LessonState<Lesson> {
  const lastSigned = file.lessons.findLastIndex((l) => l.signOffId !== null && l.id !== lesson.id);
  const open = new Set(file.lessons.slice(lastSigned + 1).map((l) => l.id));
  const own = new Set([lesson.id]);
  const attempts = standing(file.attempts, open);
  const said = standing(file.topics, open);
  const { overnight, longNails } = lessonProgress(file.wear, file.answers);
  const { singleUse, eyes } = lesson;
  const mandatory = lesson.onlyTopics ?? careTopicsFor({ singleUse, overnight, longNails, labelled: file.labelled, system: file.system });
  const again = topicsAgain(mandatory);
  const saidAgain = again.filter((topic) => said.some((t) => t.atEnd && t.lessonId === lesson.id && t.topic === topic));
  const ownAttempts = standing(file.attempts, own);
  const toAttempt = (a: AttemptFact): Attempt => ({
    eye: a.eye,
    move: a.move,
    worked: a.worked,
    unaided: a.unaided,
    today: dayIn(a.observedAt, now.timeZone) === now.today,
  });
  const sights = standing(file.lessonSights, own);
  const read = { right: sightOf('right', sights, ownAttempts), left: sightOf('left', sights, ownAttempts) };
  const gate = lessonGate(
    {
      attempts: attempts.map(toAttempt),
      topicsSaidBack: said.map((t) => t.topic),
      saidAgain,
      eyes,
      sightRead: eyes.filter((eye) => read[eye] !== null),
      careNamed: singleUse || file.system !== null,
    },
    { topics: mandatory, again },
  );
  const next = (eye: Eye): Move => nextMove(ownAttempts.map(toAttempt), eye, lesson.onAtStart.includes(eye));
  const way = standing(file.lessonWays, open).at(-1) ?? USUAL_WAY;
  const failed = failedTechniques(attempts);
  const plan = lessonPlan(mandatory, eyes.length, { dexterity: way.dexterity, longNails, apertureMm: file.apertureMm, failed }, file.settings);
  const turns = standing(file.lessonTurns, own);
  const signs = [...ownAttempts, ...standing(file.topics, own), ...sights].map((fact) => fact.observedAt);
  const time = lessonTime(
    turns.map(({ turn, observedAt }) => ({ turn: turn === 'run' ? 'run' : 'pause', at: observedAt })),
    signs,
    lesson.signedAt ?? now.at,
  );
  const successes = ownAttempts.filter((a) => a.worked && a.unaided).length;
  return {
    ...{ lesson, attempts, topics: said.filter((t) => !t.atEnd), mandatory, again, saidAgain, gate, way, plan, time, sights: read },
    putOn: eyes.filter((eye) => ownAttempts.some((a) => a.eye === eye && a.move === 'on' && a.worked && a.unaided)),
    next: { right: next('right'), left: next('left') },
    technique: { on: way.onTechnique ?? plan.on.technique, off: way.offTechnique ?? plan.off.technique },
    toGo: minutesToGo(time.used, successes, wanted(gate, eyes)),
    stopped: turns.at(-1)?.turn === 'stop',
    hourOver: time.over && !turns.some((t) => t.turn === 'run' && t.note !== null),
  };
}
