'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useBlurWorking } from '../../../common/blurWorking';
import { useProblemWords, problemAt } from '../../../common/words';
import type { WorkingBlock } from '../../../common/Working';
import { DecisionLine } from '../../shell/DecisionLine';
import { DraftLine } from '../../shell/DraftLine';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame, workingsOf } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { useExpectedLines } from './expected';
import { FamilyRows } from './FamilyRows';
import { Narrow } from './Narrow';
import { useChoosing } from './useChoosing';
import blurWorkingWords from '@/i18n/messages/en/blurWorking.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import expectedWords from '@/i18n/messages/en/expected.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import familyWords from '@/i18n/messages/en/family.messages.json';
import lensWords from '@/i18n/messages/en/lens.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import rangeWords from '@/i18n/messages/en/range.messages.json';
import { withWords } from '@/i18n/withWords';

const LeftOutList = lazy(() => import('./LeftOutList').then((m) => ({ default: m.LeftOutList })));
const Reasons = lazy(() => import('./Reasons').then((m) => ({ default: m.Reasons })));
const LaterReasons = (props: Parameters<typeof Reasons>[0]) => (
  <Suspense fallback={null}>
    <Reasons {...props} />
  </Suspense>
);
const InHand = lazy(() => import('./InHand').then((m) => ({ default: m.InHand })));
const LaterInHand = (props: Parameters<typeof InHand>[0]) => (
  <Suspense fallback={null}>
    <InHand {...props} />
  </Suspense>
);
const LaterLeftOut = (props: Parameters<typeof LeftOutList>[0]) => (
  <Suspense fallback={null}>
    <LeftOutList {...props} />
  </Suspense>
);
const LeadRow = lazy(() => import('./LeadRow').then((m) => ({ default: m.LeadRow })));
const LaterLeadRow = (props: Parameters<typeof LeadRow>[0]) => (
  <Suspense fallback={<div className="min-h-[88px]" />}>
    <LeadRow {...props} />
  </Suspense>
);
const LensPanels = lazy(() => import('./LensPanels').then((m) => ({ default: m.LensPanels })));

/** The nearest makeable lens of every family for both eyes, and one of them on the eye. */
function LensStepBody() {
  const t = useTranslations('lens');
  const words = useProblemWords();
  const blurWorking = useBlurWorking();
  const expectedLines = useExpectedLines();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, busy, problem } = useVisit();
  const choosing = useChoosing();
  const { draft, needs, adds, aims, apart, shape, without, anyway, list, compared, rows, chosen, leadRow, showAll } = choosing;
  const { setPanel, setApart, lacking, ready, despite, despiteReason, putOn, order } = choosing;

  const blocks: WorkingBlock[] = EYES.flatMap((e) => {
    const c = chosen[e];
    const need = c ? (rows.find((r) => r.family.code === c.family.code)?.needs[e] ?? needs[e]) : null;
    if (!c || !need) return [];
    const block = blurWorking(`blur-${e}`, eyeWords.short(e), need, c.lens);
    return [{ ...block, lines: [...block.lines, ...expectedLines(need, c)] }];
  });
  const asks = (e: Eye) => {
    const need = needs[e];
    if (!need) return <span className="label">{t('noNeed')}</span>;
    return (
      <span>
        <span className="power">{formatRefraction(need)}</span>
        {adds[e] === null ? null : <span className="note block">{t('asksAdd', { add: adds[e].toFixed(2) })}</span>}
        {aims[e].sees === 'both' ? null : (
          <span className="note block" data-testid={`sees-${e}`}>
            {t(`sees.${aims[e].sees}`, { plus: aims[e].plus.toFixed(2) })}
          </span>
        )}
      </span>
    );
  };
  const none = EYES.every((e) => needs[e] === null);
  const blocked = EYES.some((e) => eye(e).verdict.routes?.agree === false);

  return (
    <VisitFrame
      step="lens"
      workings={workingsOf(blocks, 'blur-right')}
      keys={[
        [['↑', '↓'], t('keyChoose')],
        [['E'], t('keyApart')],
        [['C'], t('compareKey')],
        [['M'], t('mapKey')],
        [['W'], t('keyWorking')],
      ]}
      margin={
        <>
          <h2 className="mb-3">{t('reasoning')}</h2>
          <LaterReasons choosing={choosing} />
          {lacking.length > 0 ? (
            <Button className="mb-3" disabled={busy || record.visit.closedAt !== null} onClick={() => void order()}>
              {t('orderTrials', { count: lacking.length })}
            </Button>
          ) : null}
          <p className="note">{t('basis')}</p>
        </>
      }
      actions={
        <>
          {compared.length > 0 ? (
            <Button keys={['V']} onClick={() => setPanel('compare')}>
              {t('compareOpen', { count: compared.length })}
            </Button>
          ) : null}
          <Button keys={['M']} disabled={!leadRow} onClick={() => setPanel('map')}>
            {t('map')}
          </Button>
          <Button keys={['E']} onClick={setApart} aria-pressed={apart}>
            {apart ? t('together') : t('apart')}
          </Button>
          <Button
            look="act"
            keys={['⏎']}
            data-enter="true"
            disabled={busy || ready.length === 0 || lacking.length > 0 || record.visit.closedAt !== null}
            onClick={() => void putOn()}
          >
            {ready.length === 2 ? t('putOnBoth') : ready[0] ? t('putOnOne', { eye: eyeWords.short(ready[0]) }) : t('putOnNone')}
          </Button>
        </>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('facing')} />
        <SpineRow label={t('asks')} note={t('asksNote')} right={asks('right')} left={asks('left')} />
        {apart ? <LaterLeadRow choosing={choosing} /> : null}
        <KindBand />
        {none ? null : (
          <Narrow shape={shape} without={without} onShape={(value) => draft.set('shape', value)} onWithout={(value) => draft.set('without', value)} />
        )}
        {despite ? (
          <div className="px-6 py-3 max-w-[720px]">
            <Field
              label={<Stated state="stop">{t(`despite.${despite.id}`, { family: despite.family, age: despite.age })}</Stated>}
              value={despiteReason}
              onValue={(value) => draft.set('despite', value)}
              maxLength={400}
              problem={problemAt(problem, 'despiteReason') ? words('reasonRequired') : null}
            />
          </div>
        ) : null}
        <LaterInHand choosing={choosing} />
        {none ? (
          <div className="p-8 text-center">
            <p className="mb-4">{blocked ? t('blocked') : t('nothingToRank')}</p>
            <Button onClick={() => router.push(`/visits/${record.visit.id}/${blocked ? 'on-eye' : 'refraction'}`)}>
              {blocked ? t('toOnEye') : t('toPower')}
            </Button>
          </div>
        ) : (
          <FamilyRows choosing={choosing} />
        )}
      </Spine>
      {!none && list.rows.length > rows.length ? (
        <div className="p-4 text-center">
          <Button onClick={() => showAll()}>{t('more', { count: list.rows.length - rows.length })}</Button>
        </div>
      ) : null}
      {none ? null : <LaterLeftOut leftOut={list.leftOut} onAnyway={(code) => draft.set('anyway', [anyway, code].filter((c) => c !== '').join(','))} />}
      {problem?.kind === 'invalid'
        ? EYES.map((e) => {
            const p = problemAt(problem, e);
            return p ? (
              <p key={e} className="px-6 py-1">
                <Stated state="stop">{`${eyeWords.short(e)}: ${words(p.code, p.data)}`}</Stated>
              </p>
            ) : null;
          })
        : null}
      <p className="note text-center px-8 py-3">{t('rule', { tolerance: record.session.settings.rankTolerance.toFixed(2) })}</p>
      <DraftLine draft={draft} />
      <Suspense fallback={null}>
        <LensPanels choosing={choosing} />
      </Suspense>
    </VisitFrame>
  );
}

/** The kind decided, and the ways to another: kind first, or a diagnostic set. */
function KindBand() {
  const t = useTranslations('lens');
  const kind = useTranslations('kind');
  const { record } = useVisit();
  return (
    <div className="kind-band" data-testid="kind-band">
      <span className="label">{kind('title')}</span>
      <span className="flex-1">
        <DecisionLine />
      </span>
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/diagnostic-set`} prefetch={false}>
        {t('irregular')}
      </Link>
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/kind`} prefetch={false}>
        {kind('kindFirst')}
      </Link>
    </div>
  );
}

export const LensStep = withWords(
  {
    blurWorking: blurWorkingWords,
    draft: draftWords,
    expected: expectedWords,
    kind: kindWords,
    family: familyWords,
    lens: lensWords,
    peroxide: peroxideWords,
    range: rangeWords,
  },
  LensStepBody,
);
