'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, formatAcuity, type Eye } from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { powerWords } from '../../shell/worn';
import { CorneaCell } from './CorneaCell';
import { LINES, type EyePress } from './model';
import { Press, type CellProps } from './Press';
import type { AsLastTime } from './useAsLastTime';

/** What is looked at of each eye, in the order in which it is done: with the lens on, then without it. */
export function EyeRows({ page }: { readonly page: AsLastTime }) {
  const t = useTranslations('asLastTime');
  const wornNow = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  const row = (what: EyePress, Cell: (props: CellProps) => ReactNode) => (
    <div id={`press-${what}`}>
      <SpineRow
        label={t(what)}
        note={t(`${what}Note`)}
        chosen={page.next?.what === what}
        right={<Cell page={page} eye="right" />}
        left={<Cell page={page} eye="left" />}
      />
    </div>
  );
  return (
    <Spine label={t('title')}>
      <SpineHead words={eyeWords.heads} label={wornNow('facing')} />
      {row('worn', WornCell)}
      {row('sees', SeesCell)}
      {row('over', OverCell)}
      {row('fit', FitCell)}
      {row('cornea', CorneaCell)}
    </Spine>
  );
}

const side = (eye: Eye): string => (eye === 'right' ? 'items-end text-right' : 'items-start');

/** The lens that counts as worn, and the press that puts it on. */
function WornCell({ page, eye }: CellProps) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { worn, state, done } = page.eyes[eye];
  const zone = record.session.practice.timeZone;
  const lensId = state.onEye?.current.lensId ?? worn?.lensId ?? null;
  const lens = lensId === null ? undefined : record.lenses[lensId];
  return (
    <span className={`flex flex-col gap-1 ${side(eye)}`}>
      <span className="power-read" data-testid={`worn-${eye}`}>
        {lensId === null ? t('noLens') : [powerWords(record, lensId), lens?.addBand ?? ''].filter(Boolean).join(' ')}
      </span>
      {lens ? <span className="note">{[lens.familyName, lens.baseCurveMm?.toFixed(1), lens.diameterMm?.toFixed(1)].filter(Boolean).join(' / ')}</span> : null}
      {done.worn ? (
        <Stated state="ok">
          {state.takenOffAt === null
            ? t('in', { time: formatTime(state.onEye?.current.putOnAt ?? '', zone) })
            : t('off', { time: formatTime(state.takenOffAt, zone) })}
        </Stated>
      ) : worn ? (
        <>
          <Press page={page} eye={eye} what="worn" keyCap="Y" disabled={page.hour === null} label={t('yesFor', { eye: eyeWords.name(eye) })}>
            {t('yes')}
          </Press>
          {page.hour === null ? <span className="note">{t('hourFirst')}</span> : null}
        </>
      ) : null}
      {done.worn ? null : (
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/worn-now`}>
          {t('notThis')}
        </Link>
      )}
    </span>
  );
}

function SeesCell({ page, eye }: CellProps) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { acuity } = record.session.settings;
  const { state, lensOnEyeId, done } = page.eyes[eye];
  const best = record.bestBefore[eye];
  if (done.sees)
    return (
      <span className={`flex flex-col gap-1 ${side(eye)}`}>
        <Stated state="ok">
          <span data-testid={`sees-${eye}`}>{formatAcuity(state.acuities.lens ?? 0, acuity)}</span>
        </Stated>
      </span>
    );
  if (lensOnEyeId === null) return <span className="label">{t('noneIn')}</span>;
  return (
    <span className={`flex flex-col gap-1 ${side(eye)}`}>
      <Segment
        label={t('seesFor', { eye: eyeWords.name(eye) })}
        values={LINES}
        value={null}
        word={(line) => formatAcuity(line, acuity)}
        onChoose={(line) => page.ofEye('sees', eye, line)}
        disabled={page.closed}
        keyOf={(line) => String(LINES.indexOf(line) + 1)}
      />
      <span className="flex gap-3 items-center">
        {best === null ? null : <span className="note">{t('best', { acuity: formatAcuity(best, acuity) })}</span>}
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/on-eye`}>
          {t('worse')}
        </Link>
      </span>
    </span>
  );
}

function OverCell({ page, eye }: CellProps) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { state, lensOnEyeId, done } = page.eyes[eye];
  if (done.over)
    return (
      <span className={`flex flex-col gap-1 ${side(eye)}`}>
        <Stated state="ok">
          <span data-testid={`over-${eye}`}>{state.overRefraction?.current.typedText}</span>
        </Stated>
      </span>
    );
  if (lensOnEyeId === null) return <span className="label">{t('noneIn')}</span>;
  return (
    <span className={`flex flex-col gap-1 ${side(eye)}`}>
      <Press page={page} eye={eye} what="over" keyCap="P" label={t('planoFor', { eye: eyeWords.name(eye) })}>
        {t('plano')}
      </Press>
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/on-eye`}>
        {t('other')}
      </Link>
    </span>
  );
}

function FitCell({ page, eye }: CellProps) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { state, lensOnEyeId, done } = page.eyes[eye];
  const known = state.turnKnown;
  const knownAt = record.knownTurns.find((k) => k.lensOnEyeId === state.onEye?.rootId)?.at;
  if (done.fit)
    return (
      <span className={`flex flex-col gap-1 ${side(eye)}`} data-testid={`fit-${eye}`}>
        <Stated state={state.fit?.current.verdict === 'fits' ? 'ok' : 'watch'}>
          {t('fitDone', { word: t(`words.${state.fit?.current.verdict ?? 'fits'}`) })}
        </Stated>
        {state.turn ? <span className="note">{t('markRead', { turn: eyeWords.turn(Math.round(state.turn.mean)) })}</span> : null}
      </span>
    );
  if (lensOnEyeId === null) return <span className="label">{t('noneIn')}</span>;
  return (
    <span className={`flex flex-col gap-1 ${side(eye)}`}>
      <Press page={page} eye={eye} what="fit" keyCap="F" label={t('fitsFor', { eye: eyeWords.name(eye) })}>
        {t('fits')}
      </Press>
      {!state.toric ? null : known === null ? (
        <Stated state="watch">{t('markUnknown')}</Stated>
      ) : (
        <span data-testid={`mark-${eye}`}>
          {t('markAt', {
            turn: eyeWords.turn(Math.round(known)),
            day: knownAt === undefined ? '' : formatDay(dayIn(knownAt, record.session.practice.timeZone)),
          })}
        </span>
      )}
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/on-eye`}>
        {t('other')}
      </Link>
    </span>
  );
}
