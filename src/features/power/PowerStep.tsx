'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import {
  EYES,
  formatPower,
  formatRefraction,
  linesLost,
  LIMITS,
  parseAcuity,
  parseAdd,
  parseRefraction,
  powerOf,
  toCornealPlane,
  withinLimit,
  type Eye,
  type Refraction,
} from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated, StateMark } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { powerReady, PowerField } from '../common/PowerField';
import { problemAt, useProblemWords } from '../common/words';
import { Figure, OpenWorking, WorkingProvider } from '../common/Working';
import { Correctable, SwapEyes } from '../common/visit/Correct';
import { decisionOf } from '../common/visit/health';
import { DraftLine } from '../common/visit/DraftLine';
import { useDraft } from '../common/visit/useDraft';
import { useEyeWords } from '../common/eyeWords';
import { VisitFrame } from '../common/visit/VisitFrame';
import { useVisit } from '../common/visit/VisitProvider';
import { AcuityRow } from './AcuityRow';
import { AddRow } from './AddRow';
import { CrossEntry } from './CrossEntry';
import { Doubts } from './Doubts';
import { addsTyped, asSphere, doubtsOf, thumbOf } from './model';
import { SoFar, type Asked } from './SoFar';
import { cornealWorking } from './working';

/** A near add is asked for from this many years before a practice counts people as presbyopes. */
const YEARS_BEFORE = 5;

/** Spectacle powers in, powers at the cornea out, with the way between them. */
export function PowerStep() {
  const t = useTranslations('power');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, health, run, problem, busy } = useVisit();
  const { settings, practice } = record.house;
  const draft = useDraft('power');
  const [asked, setAsked] = useState(false);
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const textOf = (e: Eye): string => draft.body[e] ?? '';
  const vaText = (e: Eye): string => draft.body[`${e}Va`] ?? '';
  const adds = addsTyped(draft.body, record.wearer.age);
  const addsRead = EYES.every((e) => adds.text[e].trim() === '' || parseAdd(adds.text[e]).ok);
  const asCross = draft.body.asCross === 'yes';
  // Asked of everybody near the age; of others only where it is wanted or was recorded.
  const addShown =
    record.wearer.age >= settings.presbyopiaAge - YEARS_BEFORE ||
    draft.body.addOpen === 'yes' ||
    EYES.some((e) => adds.text[e].trim() !== '' || (eye(e).refraction?.current.addD ?? null) !== null);

  /** What the eye reads as now: being typed, else recorded. */
  const shown = (e: Eye): { power: Refraction; vertexMm: number } | null => {
    const read = parseRefraction(textOf(e));
    if (read.ok) return vertexFine ? { power: read.value, vertexMm } : null;
    const recorded = eye(e).refraction;
    return recorded ? { power: powerOf(recorded.current), vertexMm: recorded.current.vertexMm } : null;
  };

  const now = { right: shown('right'), left: shown('left') };
  const cornealOf = (e: Eye): Refraction | null => now[e] && toCornealPlane(now[e].power, now[e].vertexMm);
  const needs = { right: cornealOf('right'), left: cornealOf('left') };
  const addOf = (e: Eye): number | null => adds.value[e] ?? eye(e).refraction?.current.addD ?? null;
  /** What would be sent for an eye: typed, or the recorded power again where only its add is new. */
  const sentOf = (e: Eye): string => {
    const recordedText = eye(e).refraction?.current.typedText ?? '';
    return textOf(e).trim() !== '' ? textOf(e) : adds.text[e].trim() !== '' || vaText(e).trim() !== '' ? recordedText : '';
  };
  /** What goes with a power that is sent again unchanged: its own add and sight stay, unless typed anew. */
  const kept = (e: Eye) => (textOf(e).trim() === '' ? eye(e).refraction?.current : undefined);
  const addSent = (e: Eye): string | null => {
    if (sentOf(e) === '') return null;
    const before = kept(e)?.addD ?? null;
    return adds.text[e].trim() !== '' ? adds.text[e] : before === null ? null : `+${before.toFixed(2)}`;
  };
  const acuitySent = (e: Eye) => {
    if (sentOf(e) === '') return null;
    const read = parseAcuity(vaText(e), settings.acuity);
    if (read.ok) return { logMar: read.value, typed: vaText(e).trim() };
    const before = kept(e);
    return before && before.acuityLogMar !== null && before.acuityTyped !== null ? { logMar: before.acuityLogMar, typed: before.acuityTyped } : null;
  };
  const addSourceSent = EYES.some((e) => adds.text[e].trim() !== '')
    ? adds.source
    : (EYES.map((e) => kept(e)?.addSource).find((s) => s !== null && s !== undefined) ?? adds.source);
  const typedNow = EYES.some((e) => sentOf(e) !== '');
  const doubts = doubtsOf(
    record,
    { right: now.right?.power ?? null, left: now.left?.power ?? null },
    { right: textOf('right'), left: textOf('left') },
    { right: eye('right').refraction?.current.prismText ?? null, left: eye('left').refraction?.current.prismText ?? null },
  );
  const swapTyped = (): void => {
    const [right, left] = [textOf('right'), textOf('left')];
    draft.set('right', left);
    draft.set('left', right);
  };

  /** Once a history was asked, the kind of lens is decided before the lens. */
  const onward = Object.keys(health.answers).length > 0 && decisionOf(record) === null ? 'kind' : 'lens';

  const submit = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    setAsked(true);
    if (!addsRead) return;
    const badVa = EYES.find((e) => vaText(e).trim() !== '' && !parseAcuity(vaText(e), settings.acuity).ok);
    if (badVa) {
      document.getElementById(`va-${badVa}`)?.focus();
      return;
    }
    const sent = EYES.filter((e) => sentOf(e) !== '');
    const typed = EYES.filter((e) => textOf(e).trim() !== '');
    if (sent.length === 0) {
      if (EYES.some((e) => eye(e).refraction)) router.push(`/visits/${record.visit.id}/${onward}`);
      else document.getElementById('power-right')?.focus();
      return;
    }
    const bad = typed.find((e) => !powerReady(textOf(e), draft.body[`${e}Kept`] ?? null));
    if (bad) {
      document.getElementById(`power-${bad}`)?.focus();
      return;
    }
    const done = await run(
      'recordRefraction',
      {
        right: sentOf('right') || null,
        left: sentOf('left') || null,
        vertexMm,
        rightAdd: addSent('right'),
        leftAdd: addSent('left'),
        addSource: addSourceSent,
        rightAcuity: acuitySent('right'),
        leftAcuity: acuitySent('left'),
      },
      t('recorded'),
    );
    if (done?.ok) {
      draft.clear();
      router.push(`/visits/${record.visit.id}/${onward}`);
    }
  };

  const copy = (event: KeyboardEvent): void => {
    if (event.key !== '=' || textOf('left') !== '') return;
    event.preventDefault();
    draft.set('left', textOf('right'));
  };

  const vertexProblem = !vertexFine ? words('vertexMmOutOfRange', { value: vertexText, min: LIMITS.vertexMm.min, max: LIMITS.vertexMm.max }) : null;
  const serverVertex = problemAt(problem, 'vertexMm');
  const field = (e: Eye) => (
    <PowerField
      id={`power-${e}`}
      label={t('fieldLabel', { eye: eyeWords.name(e) })}
      eye={e}
      value={textOf(e)}
      onValue={(value) => draft.set(e, value)}
      problem={problemAt(problem, e)}
      kept={draft.body[`${e}Kept`] ?? null}
      onKeep={(value) => draft.set(`${e}Kept`, value)}
      notation={settings.notation}
      asked={asked}
      autoFocus={e === 'right' && !eye('right').refraction}
      disabled={record.visit.closedAt !== null}
    />
  );
  const corneal = (e: Eye) => {
    const s = shown(e);
    if (!s) return <span className="label">{textOf(e).trim() === '' ? t('nothingYet') : t('notReadable')}</span>;
    const thumb = thumbOf(s.power);
    return (
      <>
        <Figure id={`corneal-${e}`}>
          <span className="power-read" data-testid={`corneal-${e}`}>
            {formatRefraction(toCornealPlane(s.power, s.vertexMm), { notation: settings.notation })}
          </span>
        </Figure>
        {thumb ? (
          <span className="note" title={t('thumbWhy')} data-testid={`thumb-${e}`}>
            {t('thumb', { power: formatRefraction(thumb, { notation: settings.notation }) })}
          </span>
        ) : null}
      </>
    );
  };
  const sphereOnly = (e: Eye) => {
    const need = needs[e];
    if (!need) return <span />;
    const alone = asSphere(need);
    return (
      <>
        <span className="power" data-testid={`sphere-${e}`}>
          {formatPower(alone.sphere)}
        </span>
        <span className="note">
          {alone.cylinder < 0.005
            ? t('leavesNothing')
            : t('leaves', { cylinder: alone.cylinder.toFixed(2), blur: alone.blur.toFixed(2), lines: linesLost(alone.blur).toFixed(1) })}
        </span>
      </>
    );
  };
  const recorded = (e: Eye) => {
    const fact = eye(e).refraction;
    const gone = record.facts.refractions.filter((c) => c.rows[0]?.eye === e && (c.current === null || c.rootId !== fact?.rootId));
    return (
      <>
        {fact ? (
          <>
            <span className="power" data-testid={`recorded-${e}`}>
              {formatRefraction(powerOf(fact.current), { notation: settings.notation })}
            </span>
            <span className="note">
              {t('recordedBy', {
                name: fact.current.recordedByName,
                time: formatTime(fact.current.recordedAt, practice.timeZone),
                vertex: fact.current.vertexMm,
              })}
            </span>
            <Correctable
              kind="refraction"
              chain={fact}
              show={(row) => formatRefraction(powerOf(row))}
              typed="power"
              textOf={(row) => formatRefraction(powerOf(row))}
              vertexOf={(row) => row.vertexMm}
            />
          </>
        ) : (
          <span className="label">{t('notRecorded')}</span>
        )}
        {gone.map((chain) => (
          <span key={chain.rootId} className="note">
            {chain.current ? (
              t('earlierToday', { power: formatRefraction(powerOf(chain.current)), time: formatTime(chain.current.recordedAt, practice.timeZone) })
            ) : (
              <Correctable kind="refraction" chain={chain} show={(row) => formatRefraction(powerOf(row))} typed={null} />
            )}
          </span>
        ))}
      </>
    );
  };
  const earlier = (e: Eye) => {
    const before = record.earlierRefractions.find((r) => r.eye === e);
    if (!before) return <span className="label">{t('noEarlier')}</span>;
    const text = formatRefraction(powerOf(before));
    return (
      <>
        <span className="value">{text}</span>
        <button type="button" className="btn btn-quiet" onClick={() => draft.set(e, text)}>
          {t('useEarlier', { day: formatDay(before.observedAt.slice(0, 10)) })}
        </button>
      </>
    );
  };

  const blocks = EYES.flatMap((e) => {
    const s = shown(e);
    if (!s) return [];
    const workingWords = {
      title: t('workingTitle', { eye: eyeWords.short(e) }),
      formula: t('workingFormula'),
      along: (axis: number) => t('workingAlong', { axis: Math.round(axis) }),
      foot: t('workingFoot'),
    };
    return [cornealWorking(`corneal-${e}`, s.power, s.vertexMm, eyeWords.short(e), workingWords)];
  });
  const hasBoth = EYES.every((e) => eye(e).refraction);
  const anyRecorded = EYES.some((e) => eye(e).refraction);
  return (
    <WorkingProvider ids={blocks.map((b) => b.id)} initial="corneal-right">
      <VisitFrame
        step="power"
        keys={
          <>
            <span>
              <KeyCap>{'Tab'}</KeyCap> {t('keyOther')}
            </span>
            <span>
              <KeyCap>{'='}</KeyCap> {t('keyCopy')}
            </span>
            <span>
              <KeyCap>{'W'}</KeyCap> {t('keyWorking')}
            </span>
          </>
        }
        margin={
          <>
            <h2 className="mb-3">{t('reasoning')}</h2>
            <p className="mb-3">{t('bothMeridians')}</p>
            {EYES.some((e) => (shown(e)?.power.sphere ?? 0) <= -4 || (shown(e)?.power.sphere ?? 0) >= 4) ? (
              <p className="mb-3">
                <Stated state="watch">{t('strong')}</Stated>
              </p>
            ) : null}
            <Doubts doubts={doubts} onSwap={EYES.every((e) => textOf(e).trim() !== '') ? swapTyped : null} />
            <OpenWorking blocks={blocks} />
            <SoFar asked={JSON.stringify({ needs, adds: { right: addOf('right'), left: addOf('left') } } satisfies Asked)} />
          </>
        }
        actions={
          <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || record.visit.closedAt !== null} onClick={() => void submit()}>
            {typedNow || !anyRecorded ? t('record') : t('toLens')}
          </Button>
        }
      >
        <form onSubmit={(event) => void submit(event)}>
          <Spine label={t('title')}>
            <SpineHead words={eyeWords.heads} label={t('facing')} />
            <SpineRow
              tone="field"
              chosen
              label={t('glasses')}
              note={
                <>
                  {t('glassesNote')} <span className="font-mono whitespace-nowrap">{t('glassesExample')}</span>
                </>
              }
              right={field('right')}
              left={
                <div onKeyDown={copy} className="w-full">
                  {field('left')}
                </div>
              }
            />
            <SpineRow
              label={
                <Field
                  label={t('vertex')}
                  value={vertexText}
                  onValue={(value) => draft.set('vertex', value)}
                  mono
                  inputMode="decimal"
                  problem={vertexProblem ?? (serverVertex ? words(serverVertex.code, serverVertex.data) : null)}
                  hint={t('vertexHint')}
                />
              }
              right={<span className="label">{t('vertexBoth')}</span>}
              left={
                !vertexFine ? (
                  <button type="button" className="btn btn-quiet" onClick={() => draft.set('vertex', String(settings.vertexMm))}>
                    {t('vertexRepair', { value: settings.vertexMm })}
                  </button>
                ) : vertexMm < LIMITS.vertexMm.likelyMin || vertexMm > LIMITS.vertexMm.likelyMax ? (
                  <Stated state="watch">{t('vertexUnlikely')}</Stated>
                ) : (
                  <span className="flex flex-wrap gap-4">
                    <button type="button" className="btn btn-quiet" aria-expanded={asCross} onClick={() => draft.set('asCross', asCross ? '' : 'yes')}>
                      {asCross ? t('crossClose') : t('crossOpen')}
                    </button>
                    {addShown ? null : (
                      <button type="button" className="btn btn-quiet" onClick={() => draft.set('addOpen', 'yes')}>
                        {t('addOpen')}
                      </button>
                    )}
                  </span>
                )
              }
            />
            {asCross ? (
              <SpineRow
                label={t('crossRow')}
                note={t('crossNote')}
                right={<CrossEntry eye="right" draft={draft} />}
                left={<CrossEntry eye="left" draft={draft} />}
              />
            ) : null}
            <SpineRow label={t('cornea')} note={t('corneaNote')} right={corneal('right')} left={corneal('left')} />
            <SpineRow label={t('asSphere')} note={t('asSphereNote')} right={sphereOnly('right')} left={sphereOnly('left')} />
            {addShown ? <AddRow draft={draft} /> : null}
            <AcuityRow draft={draft} />
            <SpineRow label={t('recordedRow')} note={hasBoth ? <SwapEyes kind="refraction" /> : undefined} right={recorded('right')} left={recorded('left')} />
            {record.earlierRefractions.length > 0 ? <SpineRow label={t('earlier')} right={earlier('right')} left={earlier('left')} /> : null}
          </Spine>
          {/* Enter in a field sends the form only where there is a submit button. */}
          <button type="submit" hidden aria-hidden="true" tabIndex={-1} />
        </form>
        <DraftLine draft={draft} />
        {problem?.kind === 'invalid' && problemAt(problem, 'right')?.code === 'oneEyeRequired' ? (
          <p className="problem px-6">
            <StateMark state="stop" />
            {words('oneEyeRequired')}
          </p>
        ) : null}
      </VisitFrame>
    </WorkingProvider>
  );
}
