'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { aimsOfVisit, EYES, geometryOfEyes, KIND_RULES, nearState, setsApart, type KindChoice, type Reason } from '@/core';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { Spine, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useEvidenceWords } from '../../shell/evidenceWords';
import { useKindName } from '../../shell/kindWords';
import { useVisit } from '../../shell/VisitProvider';
import { placeOf, reasonRows } from './model';
import type { KindAdvice } from './useKind';

/** Reasons shown before the rest is asked for: the heaviest. */
const FOLD = 5;

/** The kind recommended and the second, reason by reason, with what each rests on. */
export function KindRows({ kind }: { readonly kind: KindAdvice }) {
  const t = useTranslations('kind');
  const [all, setAll] = useState(false);
  const { advice } = kind;
  const rows = reasonRows(advice);
  return (
    <Spine label={t('title')} width="wide">
      <SpineRow
        label={t('said')}
        note={t('saidNote')}
        right={<Recommended kind={kind} choice={advice.recommended} />}
        left={<Recommended kind={kind} choice={advice.second} second />}
      />
      {rows.slice(0, all ? rows.length : FOLD).map((row) => (
        <SpineRow
          key={`${row.rule}-${row.recommended?.target ?? ''}-${row.second?.target ?? ''}`}
          label={<EvidenceLinks row={row} />}
          right={<For reason={row.recommended} side="right" />}
          left={advice.second ? <For reason={row.second} side="left" /> : <span />}
        />
      ))}
      {rows.length > FOLD && !all ? (
        <SpineRow
          label={
            <Button look="quiet" onClick={() => setAll(true)}>
              {t('allReasons', { count: rows.length - FOLD })}
            </Button>
          }
          right={<span />}
          left={<span />}
        />
      ) : null}
      {advice.recommended ? <GeometryRow kind={kind} /> : null}
    </Spine>
  );
}

function Recommended({ kind, choice, second = false }: { readonly kind: KindAdvice; readonly choice: KindChoice | null; readonly second?: boolean }) {
  const t = useTranslations('kind');
  const kindName = useKindName();
  const family = choice ? kind.firstOf(choice.kind) : null;
  return (
    <div data-testid={second ? 'second' : 'recommended'} data-modality={choice?.kind.modality} data-wear={choice?.kind.wear}>
      <div className="label">{t(second ? 'second' : 'recommended')}</div>
      {choice ? (
        <>
          <div className={second ? 'power' : 'power-read'}>{kindName(choice.kind)}</div>
          <div className="label">{t('worn', { material: t(`material.${choice.kind.material}`), wear: t(`wear.${choice.kind.wear}`) })}</div>
          <div className="label">{family ? t('firstToTry', { family: family.name }) : t('noFamily')}</div>
        </>
      ) : (
        <div className="label">{second ? t('noSecond') : t('noRecommendation')}</div>
      )}
    </div>
  );
}

function GeometryRow({ kind }: { readonly kind: KindAdvice }) {
  const t = useTranslations('kind');
  const { record, eye } = useVisit();
  const { geometry, second } = kind.advice;
  const eyeWords = useEyeWords();
  const needs = { right: eye('right').verdict.need, left: eye('left').verdict.need };
  const own = setsApart(nearState(record.nearFindings).way) ? geometryOfEyes(needs, aimsOfVisit(record, record.facts.refractions)) : null;
  const word = own ? EYES.map((e) => `${eyeWords.short(e)} ${t(`geometry.${own[e]}`)}`).join(', ') : t(`geometry.${geometry.geometry}`);
  const known = !geometry.why.includes('powerUnknown');
  return (
    <SpineRow
      label={
        <Link href={`/visits/${record.visit.id}/refraction`} prefetch={false} className="block">
          <strong>{geometry.why.map((why) => t(`geometryWhy.${why}`, { age: record.wearer.age })).join(' · ')}</strong>{' '}
          <span className="note">{t('evidence.power')}</span> <span className="note">{t('marks.T')}</span>
        </Link>
      }
      right={<GeometryMark word={word} side="right" known={known} />}
      left={second ? <GeometryMark word={word} side="left" known={known} /> : <span />}
    />
  );
}

function EvidenceLinks({ row }: { readonly row: ReturnType<typeof reasonRows>[number] }) {
  const t = useTranslations('kind');
  const evidence = useEvidenceWords();
  const { record } = useVisit();
  const mark = <span className="note">{KIND_RULES.find((r) => r.id === row.rule)?.source.mark ?? t('marks.P')}</span>;
  if (row.evidence.length === 0)
    return (
      <>
        <span className="note">{t('evidence.always')}</span> {mark}
      </>
    );
  return (
    <>
      {row.evidence.map((e, i) => {
        const place = placeOf(e, record.visit.id);
        return (
          <Link key={`${e.key}-${e.eye ?? ''}`} href={place.href} prefetch={false} className="block">
            <strong>{evidence(e)}</strong> <span className="note">{t(`evidence.${e.from}`, { number: place.number ?? '' })}</span> {i === 0 ? mark : null}
          </Link>
        );
      })}
    </>
  );
}

function For({ reason, side }: { readonly reason: Reason | null; readonly side: 'right' | 'left' }) {
  const t = useTranslations('kind');
  const tOf = useWordsOf('kind');
  if (!reason) return <span className="label">{'·'}</span>;
  const [found] = reason.evidence;
  const word = reason.rule === 'oxygenLimit' ? t('dktBest', { value: Number(found?.value ?? 0) }) : tOf(`r.${reason.rule}.${reason.target}`);
  const mark = <StateMark state={reason.points > 0 ? 'ok' : 'watch'} />;
  return (
    <span className="flex gap-2 items-baseline" data-points={reason.points}>
      {side === 'left' ? mark : null}
      <span>
        <span className="sr-only">{reason.points > 0 ? t('for') : t('against')} </span>
        {word} <span className="note">{t('weight', { points: Math.abs(reason.points) })}</span>
      </span>
      {side === 'right' ? mark : null}
    </span>
  );
}

function GeometryMark({ word, side, known }: { readonly word: string; readonly side: 'right' | 'left'; readonly known: boolean }) {
  const mark = <StateMark state={known ? 'ok' : 'watch'} />;
  return (
    <span className="flex gap-2 items-baseline">
      {side === 'left' ? mark : null}
      <span>{word}</span>
      {side === 'right' ? mark : null}
    </span>
  );
}
