'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useKey } from '../../../common/keys';
import { useTranslations } from 'use-intl';
import {
  adviceFacts,
  DKT_LIMITS,
  droppedLenses,
  firedRules,
  INFECTIONS_PER_10000,
  KIND_RULES,
  onOffer,
  powerSummary,
  recommend,
  RULE_VERSION,
  whatWouldChange,
  type Answers,
  type Kind,
  type KindChoice,
  type Modality,
  type Reason,
  type WouldChange,
} from '@/core';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated, StateMark } from '@/ui/marks';
import { Spine, SpineRow } from '@/ui/Spine';
import { DecisionLine } from '../../shell/DecisionLine';
import { useAnswerWords } from '../../shell/answerWords';
import { useEvidenceWords } from '../../shell/evidenceWords';
import { adviceOf, decisionOf } from '../../shell/health';
import { useKindName } from '../../shell/kindWords';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import { Cost } from './Cost';
import { firstFamily, placeOf, reasonRows, stopCount } from './model';
import costWords from '@/i18n/messages/en/cost.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';

/** Reasons shown before the rest is asked for: the heaviest. */
const FOLD = 5;
const MODALITIES: readonly Modality[] = ['daily', 'twoWeekly', 'monthly'];

/** One kind of lens recommended, and a second: for and against, what it rests on, what would change it; then decided. */
function KindStepBody() {
  const t = useTranslations('kind');
  const words = useProblemWords();
  const kindName = useKindName();
  const router = useRouter();
  const { record, health, eye, run, busy, problem } = useVisit();
  const needs = useMemo(() => ({ right: eye('right').verdict.choosing, left: eye('left').verdict.choosing }), [eye]);
  const advice = useMemo(() => adviceOf(record, health, needs), [record, health, needs]);
  const decision = decisionOf(record);
  const offered = [advice.recommended, advice.second, ...advice.others].filter((c): c is KindChoice => c !== null);
  const [picked, setPicked] = useState<number>(0);
  const [reason, setReason] = useState('');
  const [all, setAll] = useState(false);
  const choice = offered[picked] ?? null;
  const other = picked > 0;
  const asked = Object.keys(health.answers).length > 0;
  const closed = record.visit.closedAt !== null;

  const would = useMemo(() => {
    const again = (answers: Answers) => {
      const facts = adviceFacts({
        answers,
        age: record.wearer.age,
        guardianNamed: record.wearer.guardian !== null,
        eyes: health.findings,
        baseline: health.baseline,
        ...(health.facts.lowest ? { lowest: health.facts.lowest } : {}),
        power: powerSummary(needs, record.health.myopicShift),
        settings: record.session.settings,
      });
      return { recommendation: recommend(facts, needs, onOffer(record.families, record.session.today)), stops: stopCount(firedRules(facts)) };
    };
    return whatWouldChange(health.answers, record.wearer.age, again);
  }, [record, health, needs]);

  const decide = async (): Promise<void> => {
    if (!choice) return;
    const done = await run('decideKind', { modality: choice.kind.modality, wear: choice.kind.wear, reason: other ? reason : null }, t('decided'));
    if (done?.ok) router.push(`/visits/${record.visit.id}/lens`);
  };
  useKey(
    '1,2,3,4',
    (event) => {
      const index = Number(event.key) - 1;
      if (offered[index]) setPicked(index);
    },
    [offered.length],
  );

  const rows = reasonRows(advice);
  const reasonProblem = problemAt(problem, 'reason');
  const lead = advice.recommended;
  const firstOf = (kind: Kind): string => {
    const family = firstFamily(record, kind, needs);
    return family ? t('firstToTry', { family: family.name }) : t('noFamily');
  };
  const head = (c: KindChoice | null, size: 'power-read' | 'power', label: string) => (
    <div data-testid={size === 'power' ? 'second' : 'recommended'} data-modality={c?.kind.modality} data-wear={c?.kind.wear}>
      <div className="label">{label}</div>
      {c ? (
        <>
          <div className={size}>{kindName(c.kind)}</div>
          <div className="label">{t('worn', { material: t(`material.${c.kind.material}`), wear: t(`wear.${c.kind.wear}`) })}</div>
          <div className="label">{firstOf(c.kind)}</div>
        </>
      ) : (
        <div className="label">{size === 'power' ? t('noSecond') : t('noRecommendation')}</div>
      )}
    </div>
  );
  const night = offered.some((c) => c.kind.wear === 'overnight') ? undefined : advice.notOffered.find((n) => n.wear === 'overnight');
  const givenToday = record.handOvers.flatMap((c) => (c.current ? [record.lenses[c.current.lensId]?.familyCode ?? ''] : []));
  const dropped = droppedLenses(health.answers, [...record.givenFamilies, ...givenToday]);
  return (
    <VisitFrame
      step="lens"
      keys={
        <span>
          <KeyCap>{'1'}</KeyCap> <KeyCap>{String(Math.max(1, offered.length))}</KeyCap> {t('keyDecide')}
        </span>
      }
      margin={
        <>
          <h2 className="mb-3">{t('reasoning')}</h2>
          {lead ? (
            <p className="mb-3">
              <strong>
                {advice.second
                  ? t('leads', { kind: kindName(lead.kind), score: lead.score, other: advice.second.score })
                  : t('alone', { kind: kindName(lead.kind) })}
              </strong>
            </p>
          ) : null}
          {!asked ? (
            <p className="mb-3">
              <Stated state="watch">{t('noHistory')}</Stated>
            </p>
          ) : null}
          {dropped.length > 0 ? (
            <p className="mb-3" data-testid="dropped">
              <Stated state="watch">{t('dropped', { families: dropped.map((d) => record.families.find((f) => f.code === d)?.name ?? d).join(', ') })}</Stated>
            </p>
          ) : null}
          {decision ? (
            <p className="mb-3" data-testid="decision">
              <strong>{t('decidedStop')}</strong> <DecisionLine />
            </p>
          ) : null}
          {other ? <Stated state="watch">{t('overridden')}</Stated> : null}
          {lead ? <Cost first={lead.kind} second={advice.second?.kind ?? null} needs={needs} /> : null}
          <p className="note mt-4">{t('order', { version: RULE_VERSION })}</p>
          <p className="note mt-2">{t('marksLegend')}</p>
        </>
      }
      actions={
        asked ? (
          <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed || !choice} onClick={() => void decide()}>
            {choice ? t('do', { kind: kindName(choice.kind).toLocaleLowerCase('en') }) : t('noRecommendation')}
          </Button>
        ) : (
          <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/visits/${record.visit.id}/history`)}>
            {t('doNoHistory')}
          </Button>
        )
      }
    >
      <Spine label={t('title')} width="wide">
        <SpineRow
          label={t('said')}
          note={t('saidNote')}
          right={head(advice.recommended, 'power-read', t('recommended'))}
          left={head(advice.second, 'power', t('second'))}
        />
        {rows.slice(0, all ? rows.length : FOLD).map((row) => (
          <SpineRow
            key={`${row.rule}-${row.recommended?.target ?? ''}-${row.second?.target ?? ''}`}
            label={<EvidenceLinks row={row} />}
            right={<For reason={row.recommended} side="right" />}
            left={advice.second ? <For reason={row.second} side="left" /> : <span />}
          />
        ))}
        {rows.length > FOLD && !all ? (
          <SpineRow
            label={
              <Button look="quiet" onClick={() => setAll(true)}>
                {t('allReasons', { count: rows.length - FOLD })}
              </Button>
            }
            right={<span />}
            left={<span />}
          />
        ) : null}
        {lead ? (
          <SpineRow
            label={
              <Link href={`/visits/${record.visit.id}/refraction`} prefetch={false} className="block">
                <strong>{advice.geometry.why.map((why) => t(`geometryWhy.${why as 'cylinder'}`, { age: record.wearer.age })).join(' · ')}</strong>{' '}
                <span className="note">{t('evidence.power')}</span> <span className="note">{t('marks.T')}</span>
              </Link>
            }
            right={<GeometryMark word={t(`geometry.${advice.geometry.geometry}`)} side="right" known={!advice.geometry.why.includes('powerUnknown')} />}
            left={
              advice.second ? (
                <GeometryMark word={t(`geometry.${advice.geometry.geometry}`)} side="left" known={!advice.geometry.why.includes('powerUnknown')} />
              ) : (
                <span />
              )
            }
          />
        ) : null}
      </Spine>
      <div className="would" data-testid="would">
        {MODALITIES.filter((m) => m !== lead?.kind.modality).map((m) => (
          <div key={m} data-testid={`would-${m}`}>
            <strong>{t(`wouldBe.${m}`)}</strong>
            {would[m].length === 0 ? <p>{t('nothingWould')}</p> : null}
            <ul>
              {would[m].map((w) => (
                <li key={w.question}>
                  <Would question={w.question} to={w.to} />
                </li>
              ))}
            </ul>
          </div>
        ))}
        <div data-testid="night">
          <strong>{night ? t('overnight') : t('overnightOffered')}</strong>
          <p>
            {night ? `${t(`why.${night.why as 'notMade'}`, { limit: DKT_LIMITS[record.session.settings.oxygenSchool].overnight })}. ` : ''}
            {t('risk', {
              day: INFECTIONS_PER_10000.siliconeHydrogelDay,
              night: INFECTIONS_PER_10000.siliconeHydrogelOvernight,
              softDay: INFECTIONS_PER_10000.softDay,
              softNight: INFECTIONS_PER_10000.softOvernight,
              daily: INFECTIONS_PER_10000.dailyDisposable,
            })}
          </p>
          {night ? null : <p>{t('nightVisits')}</p>}
          <p className="note">{t('riskSource')}</p>
        </div>
      </div>
      <div className="decide" role="radiogroup" aria-label={t('decide')}>
        <div className="flex flex-col gap-1">
          {offered.map((c, i) => (
            <button
              key={`${c.kind.modality}-${c.kind.wear}`}
              type="button"
              role="radio"
              aria-checked={picked === i}
              className="decide-choice"
              disabled={closed}
              onClick={() => setPicked(i)}
              data-testid={`choose-${c.kind.modality}-${c.kind.wear}`}
            >
              <span className="check" data-done={picked === i || undefined}>
                {picked === i ? <span className="check-full" /> : null}
              </span>
              <KeyCap>{String(i + 1)}</KeyCap>
              <span className={picked === i ? 'font-[620]' : ''}>
                {i === 0 ? t('keep', { kind: kindName(c.kind).toLocaleLowerCase('en') }) : t('instead', { kind: kindName(c.kind) })}
                {c.kind.wear === 'overnight' ? `, ${t('wear.overnight')}` : ''}
              </span>
            </button>
          ))}
        </div>
        {other ? (
          <Field
            label={t('whyNot')}
            value={reason}
            onValue={setReason}
            autoFocus
            maxLength={400}
            problem={reasonProblem ? words(reasonProblem.code, reasonProblem.data) : null}
            hint={t('whyNotNote', { name: record.session.viewer.name })}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              void decide();
            }}
          />
        ) : null}
      </div>
    </VisitFrame>
  );
}

function Would({ question, to }: WouldChange) {
  const t = useTranslations('kind');
  const words = useAnswerWords();
  return <>{t('would', { question: words.name(question), answer: words.answer(question, to) })}</>;
}

function EvidenceLinks({ row }: { readonly row: ReturnType<typeof reasonRows>[number] }) {
  const t = useTranslations('kind');
  const evidence = useEvidenceWords();
  const { record } = useVisit();
  const mark = <span className="note">{KIND_RULES.find((r) => r.id === row.rule)?.source.mark ?? t('marks.P')}</span>;
  if (row.evidence.length === 0)
    return (
      <>
        <span className="note">{t('evidence.always')}</span> {mark}
      </>
    );
  return (
    <>
      {row.evidence.map((e, i) => {
        const place = placeOf(e, record.visit.id);
        return (
          <Link key={`${e.key}-${e.eye ?? ''}`} href={place.href} prefetch={false} className="block">
            <strong>{evidence(e)}</strong> <span className="note">{t(`evidence.${e.from}`, { number: place.number ?? '' })}</span> {i === 0 ? mark : null}
          </Link>
        );
      })}
    </>
  );
}

function For({ reason, side }: { readonly reason: Reason | null; readonly side: 'right' | 'left' }) {
  const t = useTranslations('kind');
  if (!reason) return <span className="label">{'·'}</span>;
  const [found] = reason.evidence;
  const word =
    reason.rule === 'oxygenLimit' ? t('dktBest', { value: Number(found?.value ?? 0) }) : t(`r.${reason.rule as 'everyDay'}.${reason.target as 'monthly'}`);
  const mark = <StateMark state={reason.points > 0 ? 'ok' : 'watch'} />;
  return (
    <span className="flex gap-2 items-baseline" data-points={reason.points}>
      {side === 'left' ? mark : null}
      <span>
        <span className="sr-only">{reason.points > 0 ? t('for') : t('against')} </span>
        {word} <span className="note">{t('weight', { points: Math.abs(reason.points) })}</span>
      </span>
      {side === 'right' ? mark : null}
    </span>
  );
}

function GeometryMark({ word, side, known }: { readonly word: string; readonly side: 'right' | 'left'; readonly known: boolean }) {
  const mark = <StateMark state={known ? 'ok' : 'watch'} />;
  return (
    <span className="flex gap-2 items-baseline">
      {side === 'left' ? mark : null}
      <span>{word}</span>
      {side === 'right' ? mark : null}
    </span>
  );
}

export const KindStep = withWords({ cost: costWords, kind: kindWords, peroxide: peroxideWords, signs: signsWords }, KindStepBody);
