'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { formatAcuity, formatRefraction, optionsOf, lensSign, powerOf, secondsBetween, TROUBLES, type Eye } from '@/core';
import { formatTime } from '@/i18n/format';
import { useWordsOf } from '@/i18n/wordsOf';
import { Button } from '@/ui/Button';
import { Segment } from '@/ui/Segment';
import { SpineRow } from '@/ui/Spine';
import { useNow } from '../../../common/Clock';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { COMFORT, LENS_PRESSED } from './model';
import type { AftercarePage } from './useAftercare';

interface OfEye {
  readonly page: AftercarePage;
  readonly eye: Eye;
}

/** What is reported and seen of each eye with its lens. */
export function EyeRows({ page }: { readonly page: AftercarePage }) {
  const t = useTranslations('aftercare');
  const signs = useTranslations('lensSigns');
  const row = (label: string, note: ReactNode, Cell: (of: OfEye) => ReactNode) => (
    <SpineRow label={label} note={note} right={<Cell page={page} eye="right" />} left={<Cell page={page} eye="left" />} />
  );
  const nobody = (['right', 'left'] as const).every((eye) => page.said('trouble', eye) === null);
  return (
    <>
      <SpineRow
        label={t('reported')}
        note={
          nobody ? (
            <Button look="act" keys={['N']} disabled={page.closed} onClick={page.allFine}>
              {t('allFine')}
            </Button>
          ) : (
            t('troubleNote')
          )
        }
        right={<Troubles page={page} eye="right" />}
        left={<Troubles page={page} eye="left" />}
      />
      {row(t('comfort'), t('comfortNote'), Comfort)}
      {LENS_PRESSED.map((id) => (
        <SpineRow
          key={id}
          label={signs(`${id}.name`)}
          right={<LensSign page={page} eye="right" id={id} />}
          left={<LensSign page={page} eye="left" id={id} />}
        />
      ))}
      {row(t('seen'), null, Seen)}
    </>
  );
}

function Troubles({ page, eye }: OfEye) {
  const t = useTranslations('aftercare');
  const eyeWords = useEyeWords();
  const said = page.said('trouble', eye) ?? [];
  if (page.state.worn[eye] === null) return <span className="label">{t('noLens')}</span>;
  return (
    <div className="segment flex-wrap" role="group" aria-label={t('troubleLabel', { eye: eyeWords.name(eye) })}>
      {TROUBLES.map((trouble) => (
        <button
          key={trouble}
          type="button"
          data-state={said.includes(trouble) ? 'on' : 'off'}
          aria-pressed={said.includes(trouble)}
          disabled={page.closed}
          onClick={() => page.trouble(eye, trouble)}
        >
          {t(`trouble.${trouble}`)}
        </button>
      ))}
    </div>
  );
}

function Comfort({ page, eye }: OfEye) {
  const t = useTranslations('aftercare');
  const eyeWords = useEyeWords();
  const { onEye, findings } = page.visit.eyes[eye];
  if (onEye === null) return <span className="label">{t('noLens')}</span>;
  return (
    <Segment
      kind="scale"
      label={t('signLabel', { eye: eyeWords.name(eye), sign: t('comfort') })}
      values={COMFORT}
      value={findings.comfort}
      word={String}
      disabled={page.closed}
      onChoose={(value) => page.seeOnLens(eye, 'comfort', value)}
    />
  );
}

function LensSign({ page, eye, id }: OfEye & { readonly id: (typeof LENS_PRESSED)[number] }) {
  const t = useTranslations('aftercare');
  const words = useTranslations('lensSigns');
  const option = useWordsOf('lensSigns');
  const eyeWords = useEyeWords();
  const { onEye, findings } = page.visit.eyes[eye];
  const sign = lensSign(id);
  if (onEye === null || !sign) return <span className="label">{t('noLens')}</span>;
  return (
    <Segment
      kind="wrapping"
      label={t('signLabel', { eye: eyeWords.name(eye), sign: words(`${id}.name`) })}
      values={optionsOf(sign)}
      value={findings[id]}
      word={(value) => option(`${id}.o.${value}`)}
      disabled={page.closed}
      onChoose={(value) => page.seeOnLens(eye, id, value)}
    />
  );
}

/** What the other pages have of this eye, and the way to them. */
function Seen({ page, eye }: OfEye) {
  const t = useTranslations('aftercare');
  const { record } = useVisit();
  const now = useNow(60_000);
  const { onEye, overRefraction, fit, fitVerdict, acuities } = page.visit.eyes[eye];
  const stain = page.visit.health.today[eye].staining;
  const through = acuities.lens ?? acuities.over;
  const fits = fit?.current.verdict ?? fitVerdict.verdict;
  const lines: readonly (readonly [string, string | null])[] = [
    [t('look.acuity'), through === null ? null : formatAcuity(through, record.session.settings.acuity)],
    [t('look.over'), overRefraction === null ? null : formatRefraction(powerOf(overRefraction.current))],
    [t('look.fit'), fits === null ? null : t(`fits.${fits}`)],
    [t('look.cornea'), stain === undefined ? null : Number(stain).toFixed(1)],
  ];
  const hours = onEye === null ? 0 : Math.floor(secondsBetween(onEye.current.putOnAt, new Date(now).toISOString()) / 3600);
  return (
    <div className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      {onEye === null ? null : (
        <span className="note">{t('onSince', { time: formatTime(onEye.current.putOnAt, record.session.practice.timeZone), hours })}</span>
      )}
      <dl className="grid grid-cols-[max-content_1fr] gap-x-3">
        {lines.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="label">{name}</dt>
            <dd className={value === null ? 'note' : 'value'}>{value ?? t('unread')}</dd>
          </div>
        ))}
      </dl>
      <span className="flex gap-3">
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/on-eye`}>
          {t('toOnEye')}
        </Link>
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/eye-health`}>
          {t('toEyes')}
        </Link>
      </span>
    </div>
  );
}
