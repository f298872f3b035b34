'use client';
import { useTranslations } from 'use-intl';
import { ACUITY_WAYS, formatAcuity, latest, parseAcuity, type AcuityNotation, type AcuityWay, type Eye } from '@/core';
import { SpineRow } from '@/ui/Spine';
import { AcuityField } from '../../../common/AcuityField';
import { useEyeWords } from '../../../common/eyeWords';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { draftKey } from './model';
import type { DraftOf } from '../../shell/draftKeys';

type Body = DraftOf<'eyeHealth'>;

/** Acuities typed for an eye; null while one of them cannot be read. */
export function typedSight(body: Body, eye: Eye, notation: AcuityNotation) {
  const typed = ACUITY_WAYS.map((way) => ({ way, text: (body[draftKey(eye, way)] ?? '').trim() })).filter((s) => s.text !== '');
  const read = typed.map(({ way, text }) => ({ way, text, read: parseAcuity(text, notation) }));
  const fine = read.flatMap((s) => (s.read.ok ? [{ way: s.way, acuity: { logMar: s.read.value, typed: s.text } }] : []));
  return fine.length === read.length ? fine : null;
}

/** What each eye sees without a contact lens: it needs no power, and is open whatever stops a lens. */
export function SightRows({
  body,
  closed,
  onText,
}: {
  readonly body: Body;
  readonly closed: boolean;
  readonly onText: (eye: Eye, way: AcuityWay, text: string) => void;
}) {
  const t = useTranslations('eyeHealth');
  const cell = (way: AcuityWay) => ({
    right: <Sight way={way} eye="right" body={body} closed={closed} onText={onText} />,
    left: <Sight way={way} eye="left" body={body} closed={closed} onText={onText} />,
  });
  return (
    <>
      {ACUITY_WAYS.map((way) => (
        <SpineRow key={way} label={t(`sight.${way}`)} note={way === 'unaided' ? t('sight.note') : undefined} {...cell(way)} />
      ))}
    </>
  );
}

function Sight({
  way,
  eye,
  body,
  closed,
  onText,
}: {
  readonly way: AcuityWay;
  readonly eye: Eye;
  readonly body: Body;
  readonly closed: boolean;
  readonly onText: (eye: Eye, way: AcuityWay, text: string) => void;
}) {
  const t = useTranslations('eyeHealth');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const chain = latest(record.facts.eyeAcuities, (row) => row.eye === eye && row.way === way);
  const show = (row: { readonly acuityLogMar: number }): string => formatAcuity(row.acuityLogMar, record.session.settings.acuity);
  return (
    <span className={`flex gap-3 items-center flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
      <AcuityField
        id={`sight-${eye}-${way}`}
        label={t('sight.label', { eye: eyeWords.name(eye), way: t(`sight.${way}`) })}
        text={body[draftKey(eye, way)] ?? ''}
        onText={(text) => onText(eye, way, text)}
        disabled={closed}
        problem={null}
      />
      {chain ? (
        <span className="flex gap-2 items-baseline" data-testid={`sight-recorded-${eye}-${way}`}>
          <span className="value">{show(chain.current)}</span>
          <Correctable kind="eyeAcuity" chain={chain} show={show} textOf={(row) => row.acuityTyped} />
        </span>
      ) : null}
    </span>
  );
}
