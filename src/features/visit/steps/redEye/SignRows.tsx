'use client';
import { useTranslations } from 'use-intl';
import { provenance, provenanceInVisit, sign, type Eye, type SignId } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { powerWords } from '../../shell/worn';
import { GRADES, PRESSED } from './model';
import type { RedEye } from './useRedEye';

/** What is looked for in each eye: one press, kept at once. */
export function SignRows({ page }: { readonly page: RedEye }) {
  const signs = useWordsOf('signs');
  return (
    <>
      {PRESSED.map((id) => (
        <SpineRow key={id} label={signs(id)} right={<Pressed page={page} eye="right" id={id} />} left={<Pressed page={page} eye="left" id={id} />} />
      ))}
    </>
  );
}

function Pressed({ page, eye, id }: { readonly page: RedEye; readonly eye: Eye; readonly id: SignId }) {
  const t = useTranslations('redEye');
  const signs = useWordsOf('signs');
  const eyeWords = useEyeWords();
  const seen = page.health.today[eye][id];
  const label = t('signLabel', { eye: eyeWords.name(eye), sign: signs(id) });
  const grades = GRADES[id];
  if (grades)
    return (
      <Segment kind="scale" label={label} values={grades} value={seen} word={String} disabled={page.closed} onChoose={(value) => page.see(eye, id, value)} />
    );
  const of = sign(id);
  if (of?.kind !== 'word') return null;
  return (
    <Segment
      kind="wrapping"
      label={label}
      values={of.options}
      value={seen}
      word={(option) => signs(`words.${option}`)}
      disabled={page.closed}
      onChoose={(option) => page.see(eye, id, option)}
    />
  );
}

/** The lens last worn, whose lot a laboratory may ask for. */
export function LensRow() {
  const t = useTranslations('redEye');
  const { record } = useVisit();
  const file = provenanceInVisit(record);
  const cell = (eye: Eye) => {
    const { worn } = provenance(file, eye);
    if (!worn) return <span className="label">{t('lensNone')}</span>;
    const lens = record.lenses[worn.lensId];
    return (
      <span className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`last-worn-${eye}`}>
        <span className="value">{powerWords(record, worn.lensId)}</span>
        <span className="note">{t('lensLine', { family: lens?.familyName ?? '', lot: worn.lot ?? '' })}</span>
      </span>
    );
  };
  return <SpineRow label={t('lensWorn')} right={cell('right')} left={cell('left')} />;
}

/** The eye that is not red is looked at as well: it says how much is old. */
export function FellowRow({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  const cell = (eye: Eye) => {
    const stain = page.health.today[eye].staining;
    return stain === undefined ? (
      <Stated state="watch">{t('fellowOpen')}</Stated>
    ) : (
      <Stated state="ok">{t('fellowDone', { grade: Number(stain).toFixed(1) })}</Stated>
    );
  };
  return <SpineRow label={t('fellow')} note={t('fellowNote')} right={cell('right')} left={cell('left')} />;
}
