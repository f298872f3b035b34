'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useKey } from '../../../common/keys';
import dynamic from 'next/dynamic';
import { useTranslations } from 'use-intl';
import { EYES, GRADED, MEASURES, SYMPTOMS, type Eye, type SignId } from '@/core';
import { Button } from '@/ui/Button';
import { KeyCap } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { DraftLine } from '../../shell/DraftLine';
import { healthOfRecord } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt } from '../../../common/words';
import { GradeFigures } from './GradeScale';
import { GradeRow } from './GradeRow';
import { MeasureRow } from './MeasureRow';
import { asChains, draftKey, faults, gradeAfter, openStops, trendOf, typedFindings, WALK, type FindingFault } from './model';
import { Reasons } from './Reasons';
import { SightRows, typedSight } from './SightRows';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import eyeHealthWords from '@/i18n/messages/en/eyeHealth.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';

// What is seldom there brings its own script.
const AbsoluteStop = dynamic(() => import('./AbsoluteStop').then((m) => m.AbsoluteStop));
const Pictures = dynamic(() => import('./Pictures').then((m) => m.Pictures));

/** Graded findings, symptoms and measures of both eyes, and what they mean for a lens. */
function EyeHealthStepBody() {
  const t = useTranslations('eyeHealth');
  const router = useRouter();
  const eyeWords = useEyeWords();
  const { record, health, eye, run, busy, problem } = useVisit();
  const draft = useDraft('eyeHealth');
  const [here, setHere] = useState<SignId>(WALK[0] ?? 'lidMargin');
  const [eyeHere, setEyeHere] = useState<Eye>('right');
  const { settings } = record.session;
  const closed = record.visit.closedAt !== null;
  const typed = useMemo(() => typedFindings(draft.body), [draft.body]);
  const wrong = useMemo(() => faults(typed, health.today), [typed, health.today]);
  const live = useMemo(() => {
    const needs = { right: eye('right').verdict.choosing, left: eye('left').verdict.choosing };
    return healthOfRecord(record, needs, { findings: asChains(typed, record.visit.id) });
  }, [record, eye, typed]);
  const sight = { right: typedSight(draft.body, 'right', settings.acuity), left: typedSight(draft.body, 'left', settings.acuity) };
  const waiting = typed.length > 0 || EYES.some((e) => sight[e] === null || sight[e].length > 0);
  const stopped = openStops(record);
  const referred = record.health.referrals.some((r) => stopped.some((s) => s.id === r.stopId));

  const faultOf =
    (id: string) =>
    (e: Eye): FindingFault | null => {
      const local = wrong[draftKey(e, id)];
      if (local) return local;
      const sent = typed.filter((f) => f.eye === e);
      const server = problemAt(problem, e, String(sent.findIndex((f) => f.sign === id)), 'value') ?? problemAt(problem, e, id);
      return server ? { code: server.code, data: server.data ?? {} } : null;
    };
  const put = (e: Eye, id: SignId, value: number | string): void => draft.set(draftKey(e, id), String(value));
  const recordAll = async (): Promise<void> => {
    if (Object.keys(wrong).length > 0 || sight.right === null || sight.left === null) {
      document.querySelector<HTMLElement>('.problem')?.scrollIntoView({ block: 'center' });
      return;
    }
    const list = (e: Eye) => typed.filter((f) => f.eye === e).map(({ sign, value }) => ({ sign, value }));
    const done = await run(
      'recordFindings',
      { right: list('right'), left: list('left'), rightSight: sight.right ?? [], leftSight: sight.left ?? [] },
      t('done'),
    );
    if (done?.ok) draft.clear();
  };
  const refer = async (): Promise<void> => {
    const [stop] = stopped;
    if (!stop) return;
    if (referred) router.push(`/visits/${record.visit.id}/print/referral`);
    else await run('openReferral', { stopId: stop.id }, t('referDone'));
  };
  const act = (): void => {
    if (waiting) void recordAll();
    else if (stopped.length > 0) void refer();
    else router.push(`/visits/${record.visit.id}/refraction`);
  };

  const move = (by: number): void => {
    const at = WALK.indexOf(here);
    setHere(WALK[Math.max(0, Math.min(WALK.length - 1, at + by))] ?? here);
  };
  useHotkeys('down', (e) => (e.preventDefault(), move(1)), [here]);
  useHotkeys('up', (e) => (e.preventDefault(), move(-1)), [here]);
  useKey('r', () => setEyeHere('right'), []);
  useKey('l', () => setEyeHere('left'), []);
  const grade = (key: string): void => {
    const now = live.today[eyeHere][here];
    const next = gradeAfter(key, typeof now === 'number' ? now : undefined);
    if (next !== null && !closed) put(eyeHere, here, next);
  };
  useKey('0,1,2,3,4', (e) => grade(e.key), [here, eyeHere, live, closed]);
  useKey('period', () => grade('.'), [here, eyeHere, live, closed]);
  useKey(
    'equal',
    () => {
      const right = live.today.right[here];
      // Stain is graded eye by eye, never copied.
      if (right !== undefined && !closed && here !== 'staining') put('left', here, right);
    },
    [here, live, closed],
  );
  useEffect(() => {
    document.getElementById(`sign-${here}`)?.scrollIntoView({ block: 'nearest' });
  }, [here]);

  const noteOf = (id: SignId): string => {
    const threshold = thresholdOf(id);
    if (id === 'papillae') return t('everted', { value: settings.actsPapillae });
    if (id === 'staining') return t('actsCentral', { value: settings.actsStaining, central: settings.actsCentralStaining });
    if (id === 'vessels') return t('actsAtMm', { value: settings.actsVesselsMm });
    if (id === 'infiltrates' || id === 'oedema') return t('anyActs');
    if (id === 'endothelium') return t('actsOnChange', { value: settings.actsChange });
    return threshold === null ? t('recorded') : t('actsAt', { value: threshold });
  };
  const thresholdOf = (id: SignId): number | null => {
    if (id === 'infiltrates') return 0.5;
    const graded = GRADED.find((g) => g.id === id);
    return graded && 'threshold' in graded ? settings[graded.threshold] : null;
  };
  const measure = (id: SignId) => (
    <MeasureRow key={id} id={id} health={live} body={draft.body} fault={faultOf(id)} closed={closed} onText={(e, text) => draft.set(draftKey(e, id), text)} />
  );
  const some = (id: SignId): boolean => EYES.some((e) => Number(live.today[e][id] ?? 0) > 0);
  return (
    <VisitFrame
      step="eyeHealth"
      keys={
        <>
          <span>
            <KeyCap>{'↑'}</KeyCap> <KeyCap>{'↓'}</KeyCap> {t('keySign')}
          </span>
          <span>
            <KeyCap>{'0'}</KeyCap> <KeyCap>{'4'}</KeyCap> {t('keyGrade')}
          </span>
          <span>
            <KeyCap>{'.'}</KeyCap> {t('keyHalf')}
          </span>
          <span>
            <KeyCap>{'R'}</KeyCap> <KeyCap>{'L'}</KeyCap> {t('keyEye')}
          </span>
          <span>
            <KeyCap>{'='}</KeyCap> {t('keySame')}
          </span>
        </>
      }
      margin={stopped.length > 0 ? <AbsoluteStop /> : <Reasons health={live} />}
      actions={
        <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || (closed && stopped.length === 0)} onClick={act}>
          {waiting ? t('record') : stopped.length > 0 ? (referred ? t('printReferral') : t('refer')) : t('toPower')}
        </Button>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('facing')} />
        <SpineRow
          label={<span className="note">{t('scale')}</span>}
          right={
            <div className="grade-side" data-eye="right">
              <span />
              <GradeFigures eye="right" />
            </div>
          }
          left={
            <div className="grade-side" data-eye="left">
              <span />
              <GradeFigures eye="left" />
            </div>
          }
        />
        {GRADED.map(({ id }) => (
          <GradeRow
            key={id}
            id={id}
            note={noteOf(id)}
            threshold={thresholdOf(id)}
            health={live}
            trend={(e) => trendOf(record, e, id)}
            current={id === here}
            eyeHere={eyeHere}
            fault={faultOf(id)}
            closed={closed}
            onHere={(e) => {
              setHere(id);
              setEyeHere(e);
            }}
            onGrade={(e, value) => put(e, id, value)}
          />
        ))}
        {some('staining') ? (
          <>
            {measure('stainingPlace')}
            {measure('stainingDepth')}
            {measure('stainingArea')}
          </>
        ) : null}
        {some('infiltrates') ? measure('infiltratePlace') : null}
        <SightRows body={draft.body} closed={closed} onText={(e, way, text) => draft.set(draftKey(e, way), text)} />
        {SYMPTOMS.map(({ id }) => measure(id))}
        {MEASURES.map(({ id }) => measure(id))}
      </Spine>
      <p className="note px-6 py-3 flex gap-5">
        <span>{t('last')}</span>
        <span>{t('threshold')}</span>
        <span>{t('own')}</span>
      </p>
      <DraftLine draft={draft} />
      <Pictures />
    </VisitFrame>
  );
}

export const EyeHealthStep = withWords(
  { stops: stopsWords, correct: correctWords, draft: draftWords, eyeHealth: eyeHealthWords, kind: kindWords, powerField: powerFieldWords, signs: signsWords },
  EyeHealthStepBody,
);
