'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, sign, type EarlierGrade, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { Press } from './Press';
import { exceptKey } from './model';
import type { AsLastTime } from './useAsLastTime';

const GRADES = ['0', '0.5', '1', '1.5', '2', '2.5', '3', '3.5', '4'] as const;
const WAS = 'was';

/** The cornea without its lens: looked at today, by one press of its own; of the rest only what is otherwise than last time is graded. */
export function CorneaCell({ page, eye }: { readonly page: AsLastTime; readonly eye: Eye }) {
  const t = useTranslations('asLastTime');
  const eyeWords = useEyeWords();
  const { record, health } = useVisit();
  const { done, grades, lensOnEyeId } = page.eyes[eye];
  const before = (['sees', 'over', 'fit'] as const).filter((what) => lensOnEyeId !== null && !done[what]);
  const align = eye === 'right' ? 'items-end text-right' : 'items-start';
  if (done.cornea) return <Seen eye={eye} />;
  const barred = grades.filter((g) => g.bar !== null);
  return (
    <span className={`flex flex-col gap-1 ${align}`}>
      <Press page={page} eye={eye} what="cornea" keyCap="C" label={t('clearFor', { eye: eyeWords.name(eye) })}>
        {t('clear')}
      </Press>
      {before.length > 0 ? <Stated state="watch">{t('firstLook', { what: before.map((what) => t(`missingPress.${what}`)).join(', ') })}</Stated> : null}
      <Chips page={page} eye={eye} />
      {barred.map((g) => (
        <Link key={g.sign} className="btn btn-quiet" href={`/visits/${record.visit.id}/eye-health`}>
          <BarWords grade={g} zone={record.session.practice.timeZone} />
        </Link>
      ))}
      {health.absolute.length > 0 ? null : (
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/eye-health`}>
          {t('other')}
        </Link>
      )}
    </span>
  );
}

function BarWords({ grade, zone }: { readonly grade: EarlierGrade; readonly zone: string }) {
  const t = useTranslations('asLastTime');
  const signs = useTranslations('signs');
  if (grade.bar === null) return null;
  return <>{t(`bar.${grade.bar}`, { sign: signs(grade.sign), grade: grade.value.toFixed(1), day: formatDay(dayIn(grade.seenAt, zone)) })}</>;
}

/** Grades of last time, each a press that opens its scale where it is otherwise today. */
function Chips({ page, eye }: { readonly page: AsLastTime; readonly eye: Eye }) {
  const t = useTranslations('asLastTime');
  const signs = useTranslations('signs');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const [open, setOpen] = useState<EarlierGrade['sign'] | null>(null);
  const grades = page.eyes[eye].grades.filter((g) => g.bar === null);
  if (grades.length === 0) return null;
  const now = (g: EarlierGrade): string => page.except[exceptKey(eye, g.sign)] ?? '';
  const chosen = grades.find((g) => g.sign === open);
  const values = [...GRADES.filter((v) => Number(v) <= maxOf(chosen)), WAS];
  return (
    <>
      <span className="note">{t('lids')}</span>
      <span className={`flex flex-wrap gap-x-3 gap-y-1 ${eye === 'right' ? 'justify-end' : ''}`}>
        {grades.map((g) => (
          <button
            key={g.sign}
            type="button"
            className={`btn btn-quiet ${now(g) === '' ? '' : 'stated-watch'}`}
            aria-expanded={open === g.sign}
            aria-label={t('chipFor', {
              eye: eyeWords.name(eye),
              sign: signs(g.sign),
              grade: g.value.toFixed(1),
              day: formatDay(dayIn(g.seenAt, record.session.practice.timeZone)),
            })}
            onClick={() => setOpen(open === g.sign ? null : g.sign)}
          >
            {now(g) === ''
              ? t('chip', { sign: signs(g.sign), grade: g.value.toFixed(1) })
              : t('chipNow', { sign: signs(g.sign), grade: Number(now(g)).toFixed(1) })}
          </button>
        ))}
      </span>
      {chosen ? (
        <Segment
          kind="wrapping"
          label={t('gradeFor', { eye: eyeWords.name(eye), sign: signs(chosen.sign) })}
          values={values}
          value={now(chosen) === '' ? WAS : now(chosen)}
          word={(v) => (v === WAS ? t('asWas') : v)}
          onChoose={(v) => {
            page.setExcept(eye, chosen.sign, v === WAS ? '' : v);
            setOpen(null);
          }}
        />
      ) : null}
    </>
  );
}

const maxOf = (grade: EarlierGrade | undefined): number => {
  const of = grade && sign(grade.sign);
  return of && of.kind !== 'word' ? of.max : 4;
};

/** What was seen of it, and what was only said to be as last time. */
function Seen({ eye }: { readonly eye: Eye }) {
  const t = useTranslations('asLastTime');
  const signs = useTranslations('signs');
  const { health } = useVisit();
  const stain = health.today[eye].staining;
  const repeated = Object.keys(health.repeated[eye]) as EarlierGrade['sign'][];
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end text-right' : 'items-start'}`} data-testid={`cornea-${eye}`}>
      <Stated state={stain === 0 ? 'ok' : 'watch'}>{`${t('corneaDone')}: ${t('stain', { grade: Number(stain).toFixed(1) })}`}</Stated>
      {repeated.length > 0 ? <span className="note">{t('repeated', { signs: repeated.map((s) => signs(s)).join(', ') })}</span> : null}
    </span>
  );
}
