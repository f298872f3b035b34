'use client';
import { useTranslations } from 'use-intl';
import { askedQuestions, EYES, formatRefraction, SIGNS, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { useAnswerWords } from '../shell/answerWords';
import { DecisionLine } from '../shell/DecisionLine';
import { RawFigures } from '../shell/RawFigures';
import { useFindingWords } from '../shell/evidenceWords';
import { useVisit } from '../shell/VisitProvider';
import { useEyeWords } from '../../common/eyeWords';
import { EyesTable } from './EyesTable';
import { PrintSheet } from './PrintSheet';
import { Sight } from './Sight';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import prescriptionWords from '@/i18n/messages/en/prescription.messages.json';
import printWords from '@/i18n/messages/en/print.messages.json';
import rawWords from '@/i18n/messages/en/raw.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';

/** The same-day referral: why, what was found, what is worn and since when. */
function ReferralSheetPage() {
  const t = useTranslations('print');
  const names = useTranslations('ruleNames');
  const { record, run } = useVisit();
  const open = record.health.stops.filter((s) => s.endedAt === null);
  const referral = record.health.referrals.find((r) => open.some((s) => s.id === r.stopId)) ?? null;
  const { practice, settings } = record.session;
  const to = referral?.addressedTo ?? settings.referralTo;
  const telephone = referral?.telephone ?? (settings.referralTelephone || (practice.emergencyTelephone ?? ''));
  const printed = referral?.steps.some((s) => s.step === 'printed');
  return (
    <PrintSheet
      title={t('referral')}
      onPrint={() => {
        if (referral && !printed) void run('recordReferralStep', { referralId: referral.id, step: 'printed' });
      }}
    >
      <p>{t('to', { to: to || practice.town, telephone })}</p>
      {open.length === 0 ? <p>{t('noNames')}</p> : <p className="value">{t('sees')}</p>}
      {open.map((s) => (
        <p key={s.id}>{t('suspected', { name: names(s.rule as 'dust') })}</p>
      ))}
      {record.wearer.telephone ? <p>{t('wearerTelephone', { telephone: record.wearer.telephone })}</p> : null}
      <Sight />
      <WhatHappened />
      <Found />
      <WornLens />
    </PrintSheet>
  );
}

/** What a colleague asks first: since when, lenses last worn, solution, medicines, water and sleep. */
const ASKED_FIRST = ['onset', 'danger', 'lastWorn', 'solution', 'medicines', 'drops', 'water', 'sleptIn', 'headache'] as const;

function WhatHappened() {
  const t = useTranslations('print');
  const words = useAnswerWords();
  const { health } = useVisit();
  return (
    <section data-testid="what-happened">
      <h2>{t('whatHappened')}</h2>
      <dl className="paper-list">
        {ASKED_FIRST.map((id) => {
          const answer = health.answers[id];
          return (
            <div key={id}>
              <dt>{words.name(id)}</dt>
              <dd>{answer ? `${words.answer(id, answer.value)} ${answer.note ?? ''}` : t('notAsked')}</dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}

/** A summary of the visit: what was said, found and decided. */
function SummarySheetPage() {
  const t = useTranslations('print');
  const words = useAnswerWords();
  const { record, health } = useVisit();
  const asked = askedQuestions(health.answers, record.wearer.age).filter((q) => health.answers[q.id] !== undefined);
  return (
    <PrintSheet title={t('summary')}>
      <section>
        <h2>{t('history')}</h2>
        <dl className="paper-list">
          {asked.map((q) => (
            <div key={q.id}>
              <dt>{words.name(q.id)}</dt>
              <dd>
                {words.answer(q.id, health.answers[q.id]?.value ?? '')} {health.answers[q.id]?.note}
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <Sight />
      <Found />
      <section>
        <h2>{t('kind')}</h2>
        <p>
          <DecisionLine />
        </p>
      </section>
      <WornLens />
    </PrintSheet>
  );
}

/** A copy of the prescription signed at this visit: for the wearer, and for whoever they take it to. */
function CopySheetPage() {
  const t = useTranslations('print');
  const final = useTranslations('prescription');
  const { record } = useVisit();
  const eyes = useEyeWords();
  const signed = record.prescriptions.find((p) => p.visitId === record.visit.id);
  return (
    <PrintSheet title={t('copy')} reader="wearer">
      {signed ? (
        <section>
          {EYES.flatMap((eye) => signed.eyes.filter((e) => e.eye === eye)).map((e) => {
            const lens = e.lensId ? record.lenses[e.lensId] : undefined;
            if (e.raw) return <RawFigures key={e.eye} raw={e.raw} eye={e.eye} />;
            return lens ? (
              <p key={e.eye} className="value" data-testid={`copy-${e.eye}`}>
                {t('eyeLine', {
                  eye: eyes.short(e.eye),
                  power: formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }),
                  family: `${lens.maker} ${lens.familyName}`,
                  curve: e.baseCurveOrderedMm.toFixed(1),
                  diameter: lens.diameterMm?.toFixed(1) ?? '',
                })}
                {lens.addBand ? ` · ${final(`add.${lens.addBand}`)}` : ''}
              </p>
            ) : null;
          })}
          <p>{t('examined', { day: formatDay(signed.examinedOn) })}</p>
          {signed.purpose === 'everyday' ? null : <p>{t('purpose', { purpose: final(`purposes.${signed.purpose}`) })}</p>}
          <p>
            {t('signed', {
              number: signed.number,
              issued: formatDay(signed.issuedOn),
              expires: formatDay(signed.expiresOn),
              prescriber: signed.prescriber.name,
              title: signed.prescriber.title,
              register: signed.prescriber.registerNumber,
            })}
          </p>
        </section>
      ) : (
        <p>{t('noPrescription')}</p>
      )}
    </PrintSheet>
  );
}

function Found() {
  const t = useTranslations('print');
  const signs = useTranslations('signs');
  const finding = useFindingWords();
  const { health } = useVisit();
  const seen = SIGNS.filter((s) => EYES.some((e) => health.today[e][s.id as 'pain'] !== undefined));
  const cell = (eye: Eye, id: string): string => finding(id, health.today[eye][id as 'pain']);
  return (
    <section>
      <h2>{t('findings')}</h2>
      {seen.length === 0 ? (
        <p>{t('noFindings')}</p>
      ) : (
        <EyesTable
          title={t('findings')}
          rows={seen.map((s) => ({ key: s.id, name: signs(s.id as 'pain'), cells: { right: cell('right', s.id), left: cell('left', s.id) } }))}
        />
      )}
    </section>
  );
}

/** The lens of each eye with its lot, and how long it is worn. */
function WornLens() {
  const t = useTranslations('print');
  const words = useAnswerWords();
  const eyes = useEyeWords();
  const { record, health, eye } = useVisit();
  const given = record.handOvers.map((c) => c.current).filter((h) => h !== null);
  const lines = EYES.flatMap((e) => {
    const on = eye(e).onEye?.current;
    const last = given.filter((h) => h.eye === e).at(-1);
    const row = on?.lensId ? on : last;
    const lens = row?.lensId ? record.lenses[row.lensId] : undefined;
    return lens && row
      ? [
          {
            e,
            text: `${eyes.short(e)} ${lens.familyName} ${formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}, ${t('lot', { lot: row.lot ?? '' })}`,
          },
        ]
      : [];
  });
  const told = (['whichLens', 'replacedEvery', 'sleptIn', 'lastWorn'] as const).flatMap((id) => {
    const a = health.answers[id];
    return a ? [`${words.name(id)}: ${words.answer(id, a.value)}${a.note ? ` (${a.note})` : ''}`] : [];
  });
  const hours = health.answers.hoursPerDay?.value;
  const days = health.answers.daysPerWeek?.value;
  return (
    <section>
      <h2>{t('lensWorn')}</h2>
      {lines.length === 0 ? <p>{t('wornNone')}</p> : lines.map((l) => <p key={l.e}>{l.text}</p>)}
      {told.length > 0 ? <p>{told.join(' · ')}</p> : null}
      {typeof hours === 'number' && typeof days === 'number' ? <p>{t('hours', { hours, days })}</p> : null}
    </section>
  );
}

const WORDS = { stops: stopsWords, kind: kindWords, prescription: prescriptionWords, print: printWords, raw: rawWords, signs: signsWords };
export const ReferralSheet = withWords(WORDS, ReferralSheetPage);
export const SummarySheet = withWords(WORDS, SummarySheetPage);
export const CopySheet = withWords(WORDS, CopySheetPage);
