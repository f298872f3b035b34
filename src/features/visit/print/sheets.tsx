'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import {
  answersFirst,
  answersGiven,
  EYES,
  formatRefraction,
  lensesOnPaper,
  prescriptionCopy,
  nearestToCentre,
  referralLetter,
  signedAt,
  SIGNS,
  type Eye,
  type PaperAnswer,
  type PrescriptionCopy,
  type SignId,
  nameOfAdd,
} from '@/core';
import { formatDay } from '@/i18n/format';
import { useAnswerWords } from '../../common/answerWords';
import { DecisionLine } from '../shell/DecisionLine';
import { RawFigures } from '../shell/RawFigures';
import { useFindingWords } from '../shell/evidenceWords';
import { useVisit } from '../shell/VisitProvider';
import { useEyeWords } from '../../common/eyeWords';
import { EyesTable } from './EyesTable';
import { PrintSheet } from './PrintSheet';
import { Sight } from './Sight';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import prescriptionWords from '@/i18n/messages/en/prescription.messages.json';
import printWords from '@/i18n/messages/en/print.messages.json';
import rawWords from '@/i18n/messages/en/raw.messages.json';
import redEyeWords from '@/i18n/messages/en/redEye.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';

/** The same-day referral: why, what was found, what is worn and since when. */
function ReferralSheetPage() {
  const t = useTranslations('print');
  const names = useWordsOf('ruleNames');
  const { record, run } = useVisit();
  const { practice, settings } = record.session;
  const letter = referralLetter(record.health.stops, record.health.referrals, {
    to: settings.referralTo,
    telephone: settings.referralTelephone || (practice.emergencyTelephone ?? ''),
  });
  return (
    <PrintSheet
      title={t('referral')}
      onPrint={() => {
        if (letter.referral && !letter.printed) void run('recordReferralStep', { referralId: letter.referral.id, step: 'printed' });
      }}
    >
      <p>{t('to', { to: letter.to || practice.town, telephone: letter.telephone })}</p>
      {letter.suspected.length === 0 ? <p>{t('noNames')}</p> : <p className="value">{t('sees')}</p>}
      {letter.suspected.map((s) => (
        <p key={s.stopId}>{t('suspected', { name: names(s.rule) })}</p>
      ))}
      {record.wearer.telephone ? <p>{t('wearerTelephone', { telephone: record.wearer.telephone })}</p> : null}
      <Sight />
      <WhatHappened />
      <Drawn />
      <Found />
      <WornLens />
    </PrintSheet>
  );
}

/** What was drawn on the corneas, in millimetres, what threatens sight, and what has been left undone on purpose. */
function Drawn() {
  const t = useTranslations('print');
  const red = useTranslations('redEye');
  const eyes = useEyeWords();
  const { health } = useVisit();
  const drawn = EYES.flatMap((eye) => health.lesions[eye].map((lesion) => ({ eye, lesion })));
  const threatened = EYES.filter((eye) => health.threats[eye].length > 0);
  if (drawn.length === 0 && threatened.length === 0) return null;
  return (
    <section data-testid="drawn">
      <h2>{red('drawing')}</h2>
      {threatened.map((eye) => (
        <p key={eye} className="value">
          {`${red('threat')}: ${red('threatEye', { eye: eyes.name(eye), what: health.threats[eye].map((threat) => red(`threats.${threat}`)).join('; ') })}`}
        </p>
      ))}
      {drawn.map(({ eye, lesion }) => (
        <p key={lesion.id}>
          {t('drawn', {
            eye: eyes.short(eye),
            kind: red(`kinds.${lesion.kind}`),
            long: lesion.longMm.toFixed(1),
            across: lesion.acrossMm.toFixed(1),
            distance: nearestToCentre(lesion).toFixed(1),
            sideways: Math.abs(lesion.nasalMm).toFixed(1),
            side: lesion.nasalMm >= 0 ? 'nasal' : 'temporal',
            height: Math.abs(lesion.upMm).toFixed(1),
            way: lesion.upMm >= 0 ? 'up' : 'down',
          })}
        </p>
      ))}
      <p>{t('leftUndone')}</p>
    </section>
  );
}

function WhatHappened() {
  const t = useTranslations('print');
  const { health } = useVisit();
  return (
    <section data-testid="what-happened">
      <h2>{t('whatHappened')}</h2>
      <AnswerList answers={answersFirst(health.answers)} />
    </section>
  );
}

function AnswerList({ answers }: { readonly answers: readonly PaperAnswer[] }) {
  const t = useTranslations('print');
  const words = useAnswerWords();
  return (
    <dl className="paper-list">
      {answers.map(({ question, answer }) => (
        <div key={question}>
          <dt>{words.name(question)}</dt>
          <dd>{answer ? `${words.answer(question, answer.value)} ${answer.note ?? ''}` : t('notAsked')}</dd>
        </div>
      ))}
    </dl>
  );
}

/** A summary of the visit: what was said, found and decided. */
function SummarySheetPage() {
  const t = useTranslations('print');
  const { record, health } = useVisit();
  return (
    <PrintSheet title={t('summary')}>
      <section>
        <h2>{t('history')}</h2>
        <AnswerList answers={answersGiven(health.answers, record.wearer.age)} />
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
  const { record } = useVisit();
  const signed = signedAt(record.prescriptions, record.visit.id);
  return (
    <PrintSheet title={t('copy')} reader="wearer">
      {signed ? <Copy copy={prescriptionCopy(signed, record.lenses)} /> : <p>{t('noPrescription')}</p>}
    </PrintSheet>
  );
}

function Copy({ copy }: { readonly copy: PrescriptionCopy }) {
  const t = useTranslations('print');
  const final = useTranslations('prescription');
  const purposes = useTranslations('purposes');
  const eyes = useEyeWords();
  return (
    <section>
      {copy.eyes.map(({ eye, lens, raw, baseCurveMm, aim }) =>
        raw ? (
          <RawFigures key={eye} raw={raw} eye={eye} />
        ) : lens ? (
          <p key={eye} className="value" data-testid={`copy-${eye}`}>
            {t('eyeLine', {
              eye: eyes.short(eye),
              power: formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }),
              family: `${lens.maker} ${lens.familyName}`,
              curve: baseCurveMm.toFixed(1),
              diameter: lens.diameterMm?.toFixed(1) ?? '',
            })}
            {lens.addBand ? ` · ${nameOfAdd(lens.addBand, (band) => final(`add.${band}`))}` : ''}
            {aim ? ` · ${eyes.aim(aim)}` : ''}
          </p>
        ) : null,
      )}
      <p>{t('examined', { day: formatDay(copy.examinedOn) })}</p>
      {copy.purpose === null ? null : <p>{t('purpose', { purpose: purposes(copy.purpose) })}</p>}
      <p>
        {t('signed', {
          number: copy.number,
          issued: formatDay(copy.issuedOn),
          expires: formatDay(copy.expiresOn),
          prescriber: copy.prescriber.name,
          title: copy.prescriber.title,
          register: copy.prescriber.registerNumber,
        })}
      </p>
    </section>
  );
}

function Found() {
  const t = useTranslations('print');
  const signs = useWordsOf('signs');
  const finding = useFindingWords();
  const { health } = useVisit();
  const todayOf = (eye: Eye, id: string) => health.today[eye][id as SignId];
  const seen = SIGNS.filter((s) => EYES.some((e) => todayOf(e, s.id) !== undefined));
  const cell = (eye: Eye, id: string): string => finding(id, todayOf(eye, id));
  return (
    <section>
      <h2>{t('findings')}</h2>
      {seen.length === 0 ? (
        <p>{t('noFindings')}</p>
      ) : (
        <EyesTable
          title={t('findings')}
          rows={seen.map((s) => ({ key: s.id, name: signs(s.id), cells: { right: cell('right', s.id), left: cell('left', s.id) } }))}
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
  const lenses = lensesOnPaper({ right: eye('right').onEye?.current ?? null, left: eye('left').onEye?.current ?? null }, record.handOvers, record.lenses);
  const told = (['whichLens', 'replacedEvery', 'sleptIn', 'lastWorn'] as const).flatMap((id) => {
    const a = health.answers[id];
    return a ? [`${words.name(id)}: ${words.answer(id, a.value)}${a.note ? ` (${a.note})` : ''}`] : [];
  });
  const hours = health.answers.hoursPerDay?.value;
  const days = health.answers.daysPerWeek?.value;
  return (
    <section>
      <h2>{t('lensWorn')}</h2>
      {lenses.length === 0 ? <p>{t('wornNone')}</p> : null}
      {lenses.map(({ eye: e, lens, lot }) => (
        <p key={e}>
          {`${eyes.short(e)} ${lens.familyName} ${formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}, ${t('lot', { lot })}`}
        </p>
      ))}
      {told.length > 0 ? <p>{told.join(' · ')}</p> : null}
      {typeof hours === 'number' && typeof days === 'number' ? <p>{t('hours', { hours, days })}</p> : null}
    </section>
  );
}

const WORDS = {
  stops: stopsWords,
  kind: kindWords,
  prescription: prescriptionWords,
  purposes: purposesWords,
  print: printWords,
  raw: rawWords,
  redEye: redEyeWords,
  signs: signsWords,
};
export const ReferralSheet = withWords(WORDS, ReferralSheetPage);
export const SummarySheet = withWords(WORDS, SummarySheetPage);
export const CopySheet = withWords(WORDS, CopySheetPage);
