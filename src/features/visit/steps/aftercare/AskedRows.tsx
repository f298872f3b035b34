'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { EYES, GLASSES_STATES, OTHER_SOLUTIONS, parseDay, question, wornOvernight, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt, useProblemWords } from '../../../common/words';
import { useAnswerWords } from '../../../common/answerWords';
import { useVisit } from '../../shell/VisitProvider';
import { wholeOf } from './model';
import type { AftercarePage } from './useAftercare';

interface Of {
  readonly page: AftercarePage;
}
/** Asked of the wearer by one press each; the history keeps them. */
const PRESSED = ['sleptIn', 'water'] as const;
const NUMBERS = ['hoursPerDay', 'replacedEvery'] as const;

/** What is asked of the wearer: hours, replacement beside what supply says, nights, water, solution, glasses, care said back. */
export function AskedRows({ page }: Of) {
  const t = useTranslations('aftercare');
  return (
    <section className="px-6 py-3 border-t border-rule flex flex-col gap-2" aria-label={t('asked')}>
      <h2>{t('asked')}</h2>
      <Danger page={page} />
      <div className="flex gap-6 flex-wrap">
        {NUMBERS.map((id) => (
          <NumberAsked key={id} page={page} id={id} />
        ))}
      </div>
      <BySupply page={page} />
      {PRESSED.map((id) => (
        <Pressed key={id} page={page} id={id} />
      ))}
      <Solution page={page} />
      <Row label={t('glasses')}>
        <Segment
          label={t('glasses')}
          kind="wrapping"
          values={GLASSES_STATES}
          value={page.said('glasses')?.[0]}
          word={(state) => t(`glassesStates.${state}`)}
          disabled={page.closed}
          onChoose={(state) => page.say('glasses', [state])}
        />
      </Row>
      <SaidBack page={page} />
      {wornOvernight(page.visit) ? <FirstNight page={page} /> : null}
    </section>
  );
}

function Row({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <div className="flex gap-x-4 gap-y-1 items-center flex-wrap">
      <span className="min-w-[190px]">{label}</span>
      {children}
    </div>
  );
}

function Danger({ page }: Of) {
  const t = useTranslations('aftercare');
  const words = useAnswerWords();
  const { record } = useVisit();
  const said = page.visit.health.said.danger;
  return (
    <Row label={t('danger')}>
      {said ? (
        <Stated state={words.answer('danger', said.value) === words.option('danger', 'none') ? 'ok' : 'stop'}>{words.answer('danger', said.value)}</Stated>
      ) : null}
      {said ? null : (
        <Button disabled={page.closed} onClick={() => page.sayHistory('danger', ['none'])}>
          {t('noDanger')}
        </Button>
      )}
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/red-eye`}>
        {t('someDanger')}
      </Link>
    </Row>
  );
}

/** A number of the history: what was said last stands beside it until it is said again. */
function NumberAsked({ page, id }: Of & { readonly id: (typeof NUMBERS)[number] }) {
  const t = useTranslations('aftercare');
  const words = useAnswerWords();
  const problemWords = useProblemWords();
  const { draft } = page;
  const { min = 1, max = 365 } = question(id) ?? {};
  const typed = draft.body[id] ?? '';
  const value = wholeOf(typed, min, max);
  const keep = (): void => {
    if (value !== null && !page.closed) page.sayHistory(id, value, () => draft.set(id, ''));
  };
  const [said, before] = [page.visit.health.said[id], page.visit.health.before[id]];
  return (
    <form
      className="w-[260px]"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      onBlur={keep}
    >
      <Field
        label={t(id)}
        value={typed}
        onValue={(text) => draft.set(id, text)}
        hint={said ? words.answer(id, said.value) : before ? t('carried', { answer: words.answer(id, before.value) }) : undefined}
        problem={typed.trim() === '' || value !== null ? null : problemWords('settingOutOfRange', { min, max })}
        inputMode="numeric"
        autoComplete="off"
        maxLength={3}
      />
    </form>
  );
}

function BySupply({ page }: Of) {
  const t = useTranslations('aftercare');
  const eyeWords = useEyeWords();
  const of = EYES.flatMap((eye) => {
    const kept = page.state.worn[eye]?.kept;
    return kept ? [{ eye, kept }] : [];
  });
  if (of.length === 0) return <p className="note">{t('noSupply')}</p>;
  return (
    <ul data-testid="by-supply">
      {of.map(({ eye, kept }) => (
        <li key={eye}>
          <Stated state={kept.daysPerLens > kept.labelDays * 1.1 ? 'watch' : 'ok'}>
            {t('bySupply', {
              eye: eyeWords.name(eye),
              days: kept.daysPerLens.toFixed(1),
              atLeast: kept.atLeast ? 'yes' : 'no',
              label: kept.labelDays,
              lenses: kept.lenses,
              span: kept.days,
            })}
          </Stated>
        </li>
      ))}
    </ul>
  );
}

function Pressed({ page, id }: Of & { readonly id: (typeof PRESSED)[number] }) {
  const t = useTranslations('aftercare');
  const words = useAnswerWords();
  const { said, before } = page.visit.health;
  const value = said[id]?.value;
  return (
    <Row label={words.name(id)}>
      <Segment
        label={words.name(id)}
        kind="wrapping"
        values={question(id)?.options ?? []}
        value={typeof value === 'string' ? value : null}
        word={(option) => words.option(id, option)}
        disabled={page.closed}
        onChoose={(option) => page.sayHistory(id, option)}
      />
      {value === undefined && before[id] ? <span className="note">{t('carried', { answer: words.answer(id, before[id].value) })}</span> : null}
    </Row>
  );
}

/** The practice's products first, then what is none of them; a pair that irritates is said at once. */
function Solution({ page }: Of) {
  const t = useTranslations('aftercare');
  const eyeWords = useEyeWords();
  const { record, hasLibrary } = useVisit();
  const said = page.said('solutionUsed')?.[0];
  const products = hasLibrary ? record.careProducts.filter((p) => !p.ended || p.productId === said) : [];
  const name = (value: string): string =>
    products.find((p) => p.productId === value)?.name ?? t(`solutions.${OTHER_SOLUTIONS.find((other) => other === value) ?? 'otherProduct'}`);
  const bad = (eye: Eye): 'irritates' | 'avoid' | null => {
    const pair = page.state.worn[eye]?.pair;
    return pair === 'irritates' || pair === 'avoid' ? pair : null;
  };
  return (
    <Row label={t('solutionUsed')}>
      <Segment
        label={t('solutionUsed')}
        kind="wrapping"
        values={[...products.map((p) => p.productId), ...OTHER_SOLUTIONS]}
        value={said}
        word={name}
        disabled={page.closed}
        onChoose={(value) => page.say('solutionUsed', [value])}
      />
      {EYES.map((eye) => {
        const pair = bad(eye);
        return pair ? (
          <Stated key={eye} state="watch">
            {t(`pairs.${pair}`, { eye: eyeWords.name(eye) })}
          </Stated>
        ) : null;
      })}
    </Row>
  );
}

/** Topics are pressed as they are said back, then kept together: what is not pressed was not known. */
function SaidBack({ page }: Of) {
  const t = useTranslations('aftercare');
  const { draft, state } = page;
  const kept = page.said('saidBack');
  const typed = draft.body.saidBack;
  const known: readonly string[] = typed === undefined || typed === '' ? (kept ?? []) : typed.split(' ').filter((topic) => topic !== '');
  return (
    <Row label={t('saidBack')}>
      <span className="segment flex-wrap" role="group" aria-label={t('saidBack')}>
        {state.topics.map((topic) => (
          <button
            key={topic}
            type="button"
            data-state={known.includes(topic) ? 'on' : 'off'}
            aria-pressed={known.includes(topic)}
            disabled={page.closed}
            onClick={() => draft.set('saidBack', (known.includes(topic) ? known.filter((k) => k !== topic) : [...known, topic]).join(' ') || ' ')}
          >
            {t(`topics.${topic}`)}
          </button>
        ))}
      </span>
      {typed === undefined || typed === '' ? (
        kept === null ? (
          <span className="note">{t('saidBackNote')}</span>
        ) : null
      ) : (
        <Button disabled={page.closed} onClick={() => page.say('saidBack', known, null, () => draft.set('saidBack', ''))}>
          {t('keepSaidBack')}
        </Button>
      )}
    </Row>
  );
}

function FirstNight({ page }: Of) {
  const t = useTranslations('aftercare');
  const words = useProblemWords();
  const { problem } = useVisit();
  const { draft, state } = page;
  const typed = draft.body.firstNight ?? '';
  const read = parseDay(typed);
  const fault = problemAt(problem, 'answers', '0', 'said');
  const keep = (): void => {
    if (read.ok && !page.closed) page.say('firstNight', [read.value], null, () => draft.set('firstNight', ''));
  };
  return (
    <form
      className="w-[260px]"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Field
        label={t('firstNight')}
        value={typed}
        onValue={(text) => draft.set('firstNight', text)}
        hint={state.firstNight === null ? t('firstNightHint') : formatDay(state.firstNight)}
        problem={fault?.code === 'dayAhead' ? words(fault.code, fault.data) : null}
        autoComplete="off"
      />
    </form>
  );
}
