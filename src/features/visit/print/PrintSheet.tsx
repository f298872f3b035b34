'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { LANGUAGES, PaperWords } from '@/i18n/languages';
import { useWordsOf } from '@/i18n/wordsOf';
import { evidenceKey, languageFor, LENS_PASS_RULES, OVERRIDABLE, overrideOf } from '@/core';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useEvidenceWords } from '../shell/evidenceWords';
import { useVisit } from '../shell/VisitProvider';

/**
 * Paper that leaves the practice. Whatever it says, it carries the wearer's name and birth date, and what to do when an eye is
 * red; for a colleague every stop and caution too. Without an emergency number it does not print at all.
 */
export function PrintSheet({
  title,
  children,
  onPrint,
  back = 'eye-health',
  reader = 'colleague',
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly onPrint?: () => void;
  /** Who reads it: a wearer, or whoever they show it to, reads nothing of hygiene, pregnancy, medicines or misuse. */
  readonly reader?: 'colleague' | 'wearer';
  /** The step this paper is printed from. */
  readonly back?: 'eye-health' | 'lens';
}) {
  const t = useTranslations('print');
  const { record } = useVisit();
  const { practice, viewer, now } = record.session;
  const { wearer } = record;
  // A colleague reads the practice's language, a wearer their own.
  const language = languageFor([reader === 'wearer' ? wearer.language : null, practice.locale], LANGUAGES);
  const number = practice.emergencyTelephone?.trim() ?? '';
  return (
    <div className="paper-page">
      <div className="paper-bar">
        <Link className="btn btn-plain" href={`/visits/${record.visit.id}/${back}`} prefetch={false}>
          {t('back')}
        </Link>
        {number !== '' ? (
          <Button
            look="act"
            onClick={() => {
              onPrint?.();
              window.print();
            }}
          >
            {t('do')}
          </Button>
        ) : null}
      </div>
      {number === '' ? (
        <p className="problem p-8" role="alert">
          <StateMark state="stop" /> {t('noNumber')}
        </p>
      ) : (
        <PaperWords language={language}>
          <article className="paper" data-testid="paper" lang={language}>
            <header>
              <h1 className="power">{title}</h1>
              <p>{t('from', { practice: practice.name, address: practice.address, telephone: practice.telephone })}</p>
              <p className="value">{t('wearer', { name: wearer.name, day: formatDay(wearer.birthDate), record: formatRecord(wearer.recordNumber) })}</p>
            </header>
            {children}
            {reader === 'colleague' ? <StopsAndCautions /> : null}
            <section className="paper-danger">
              <h2>{t('dangerTitle')}</h2>
              <p>{t('dangerDo', { telephone: number })}</p>
            </section>
            <p className="note">{t('written', { moment: formatMoment(now, practice.timeZone), name: viewer.name })}</p>
          </article>
        </PaperWords>
      )}
    </div>
  );
}

/** Every stop and caution of the record, with the reasons given: on everything that leaves. */
function StopsAndCautions() {
  const t = useTranslations('print');
  const stops = useTranslations('stops');
  const names = useWordsOf('ruleNames');
  const evidence = useEvidenceWords();
  const { record, health } = useVisit();
  const again = record.health.overrides.filter((p) => LENS_PASS_RULES.includes(p.rule) && p.visitId === record.visit.id);
  return (
    <section data-testid="paper-stops">
      <h2>{t('stops')}</h2>
      {health.fired.length === 0 && again.length === 0 ? <p>{t('noStops')}</p> : null}
      <ul>
        {health.fired.map((f) => {
          const pass = OVERRIDABLE.includes(f.rule.strength) ? overrideOf(f, record.health.overrides) : null;
          return (
            <li key={evidenceKey(f)}>
              <strong>{t('named', { name: stops(`strength.${f.rule.strength}`), text: names(f.rule.id) })}</strong> {f.evidence.map(evidence).join(' · ')}
              {pass ? ` (${t('reasonGiven', { name: pass.overriddenByName, reason: pass.reason })})` : ''}
            </li>
          );
        })}
        {again.map((p) => (
          <li key={p.id}>
            <strong>{names(p.rule)}</strong> {t('bracket', { text: t('reasonGiven', { name: p.overriddenByName, reason: p.reason }) })}
          </li>
        ))}
      </ul>
    </section>
  );
}
