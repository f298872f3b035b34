'use client';
import type { KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { dktAt, DKT_LIMITS, expectedOf, EYES, formatRefraction, type Eye, type Refraction, nameOfAdd } from '@/core';
import { formatDay, formatMoney } from '@/i18n/format';
import { LensToken } from '@/ui/LensToken';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { Figure } from '../../../common/Working';
import { useExpectWords, useReachWords } from './expected';
import { curveFor, inDrawer, needsOf } from '../../shell/candidates';
import { variantKey, whyOf, type Chosen, type Row } from './model';

/** Bars grow outward from the spine on one scale: this many px per dioptre of blur. */
const PX_PER_D = 90;
const LINE_D = 0.25;

interface RowProps {
  readonly row: Row;
  readonly picked: Readonly<Record<Eye, Chosen | null>>;
  readonly lead: boolean;
  readonly asks: Readonly<Record<Eye, boolean>>;
  readonly needs: Readonly<Record<Eye, Refraction | null>>;
  readonly meanK: Readonly<Record<Eye, number | null>>;
  readonly compared: boolean;
  readonly onChoose: () => void;
  readonly onCompare: (() => void) | null;
  readonly onPower: (eye: Eye, index: number) => void;
  readonly onVariant: (eye: Eye, key: string) => void;
}

/** One family: its nearest lens for each eye, blur as bars outward from the spine, the choices of the chosen one. */
export function CandidateRow({ row, picked, lead, asks, needs, meanK, compared, onChoose, onCompare, onPower, onVariant }: RowProps) {
  const t = useTranslations('lens');
  const ofFamily = useTranslations('family');
  const { record } = useVisit();
  const eyeWords = useEyeWords();
  const reach = useReachWords();
  const { family } = row;
  const isPicked = picked.right !== null || picked.left !== null;
  const cell = (e: Eye) => {
    const lens = picked[e]?.lens ?? row.best[e][0];
    if (!asks[e]) return null;
    if (!lens) return <span className="label">{t('notMade')}</span>;
    const variant = picked[e]?.variant ?? null;
    const count = inDrawer(record, family.code, lens, variant ?? lens.variants[0] ?? null);
    const toric = lens.power.cylinder !== 0;
    const past = needs[e] ? reach(needs[e], family) : null;
    const blur = picked[e] ? (
      <Figure id={`blur-${e}`} label={t('blurLabel', { blur: lens.blur.toFixed(2) })}>
        {lens.blur.toFixed(2)}
      </Figure>
    ) : (
      <span>{lens.blur.toFixed(2)}</span>
    );
    const bar = (
      <span className="drop-mid">
        <BlurBar blur={lens.blur} eye={e} />
      </span>
    );
    const text = (
      <div className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'} min-w-0`}>
        <span className={isPicked ? 'power' : 'value'}>{formatRefraction(lens.power)}</span>
        <span className="note">{count > 0 ? t('inDrawer', { count }) : t('notInDrawer')}</span>
        {needs[e] ? <Expect blur={expectedOf(family, needs[e], lens)} eye={e} /> : null}
        {past ? (
          <span className="note stated-watch" data-testid={`out-${e}`}>
            {past}
          </span>
        ) : null}
      </div>
    );
    const token = (
      <span className="drop-mid">
        <LensToken
          size={32}
          ring="unjudged"
          geometry={family.geometry}
          rotationLeft={0}
          axisGiven={toric ? lens.power.axis : null}
          axisAsked={null}
          label={t('tokenLabel', { eye: eyeWords.name(e), power: formatRefraction(lens.power) })}
        />
      </span>
    );
    const number = (
      <span className="flex flex-col items-center drop-narrow">
        <span className="value">{blur}</span>
        <span className="note">{t('blur')}</span>
      </span>
    );
    return (
      <div className="w-full">
        <div
          className={`grid items-center gap-3 w-full ${e === 'right' ? 'grid-cols-[auto_minmax(0,1fr)_auto_64px] max-wide:grid-cols-[minmax(0,1fr)_auto]' : 'grid-cols-[64px_auto_minmax(0,1fr)_auto] max-wide:grid-cols-[auto_minmax(0,1fr)]'}`}
        >
          {e === 'right' ? (
            <>
              {token}
              {text}
              {number}
              {bar}
            </>
          ) : (
            <>
              {bar}
              {number}
              {text}
              {token}
            </>
          )}
        </div>
        {picked[e] && lead ? <Choices row={row} eye={e} picked={picked[e]} meanK={meanK[e]} onPower={onPower} onVariant={onVariant} /> : null}
      </div>
    );
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== ' ' && event.key !== 'Enter') return;
    event.preventDefault();
    event.stopPropagation();
    onChoose();
  };
  return (
    <div id={`candidate-${family.code}`} data-testid={`candidate-${family.code}`}>
      <SpineRow
        chosen={isPicked}
        label={
          <span role="radio" aria-checked={isPicked} tabIndex={lead ? 0 : -1} onClick={onChoose} onKeyDown={onKeyDown} className="cursor-pointer block">
            <span className="font-[620]">{family.name}</span>
            <span className="block note">
              {ofFamily(`modality.${family.modality}`)} · {ofFamily(`geometry.${family.geometry}`)}
            </span>
          </span>
        }
        note={
          <span className="flex flex-col items-center gap-1">
            <WhyHere row={row} />
            {onCompare || compared ? (
              <button
                type="button"
                className="btn btn-quiet"
                aria-pressed={compared}
                aria-label={t('compareAdd', { family: family.name })}
                onClick={() => onCompare?.()}
              >
                {t('compare')}
              </button>
            ) : null}
          </span>
        }
        right={cell('right')}
        left={cell('left')}
      />
    </div>
  );
}

/** Blur to expect of the lens on this eye, and what it may cost in lines: an estimate, its turn assumed. */
function Expect({ blur, eye }: { readonly blur: number; readonly eye: Eye }) {
  const expectWords = useExpectWords();
  return (
    <span className="note" data-testid={`expect-${eye}`}>
      {expectWords(blur)}
    </span>
  );
}

/** Why this family stands where it does, and what is to be known before it is taken. */
function WhyHere({ row }: { readonly row: Row }) {
  const t = useTranslations('lens');
  const ofFamily = useTranslations('family');
  const { record, eye } = useVisit();
  const { settings, practice } = record.session;
  const { family } = row;
  const limit = DKT_LIMITS[settings.oxygenSchool].day;
  const needs = needsOf(eye);
  const each = EYES.flatMap((e) => (needs[e] ? [dktAt(family, needs[e])] : []));
  const dkt = each.some((d) => d === null) || each.length === 0 ? null : Math.min(...each.filter((d) => d !== null));
  const parts = whyOf(row).map((why) =>
    t(`why.${why.code}`, {
      tolerance: settings.rankTolerance.toFixed(2),
      behind: row.behind.toFixed(2),
      place: why.code === 'house' ? why.place : 0,
      cost: '',
    }),
  );
  return (
    <>
      <span className="block" data-testid={`why-${family.code}`}>
        {[...parts, t('why.cost', { cost: formatMoney(row.yearlyCost, practice.currency) })].join(' · ')}
      </span>
      {dkt === null || dkt < limit ? <span className="stated stated-watch">{t('oxygenLow', { dkt: dkt ?? ofFamily('unknown'), limit })}</span> : null}
      {family.lastOrderOn !== null ? <span className="stated stated-watch">{ofFamily('endsSoon', { day: formatDay(family.lastOrderOn) })}</span> : null}
    </>
  );
}

function Choices({
  row,
  eye,
  picked,
  meanK,
  onPower,
  onVariant,
}: {
  readonly row: Row;
  readonly eye: Eye;
  readonly picked: Chosen;
  readonly meanK: number | null;
  readonly onPower: RowProps['onPower'];
  readonly onVariant: RowProps['onVariant'];
}) {
  const t = useTranslations('lens');
  const ofFamily = useTranslations('family');
  const { record } = useVisit();
  const eyeWords = useEyeWords();
  return (
    <div className={`flex flex-wrap gap-3 mt-2 ${eye === 'right' ? 'justify-end' : ''}`}>
      <label className="note max-w-full">
        {t('powerChoice')}{' '}
        <select
          className="choice"
          aria-label={t('powerChoiceLabel', { eye: eyeWords.name(eye) })}
          value={row.best[eye].indexOf(picked.lens)}
          onChange={(event) => onPower(eye, Number(event.target.value))}
        >
          {row.best[eye].map((lens, index) => (
            <option key={index} value={index}>
              {t('powerOption', { power: formatRefraction(lens.power), blur: lens.blur.toFixed(2), count: inDrawer(record, row.family.code, lens, null) })}
            </option>
          ))}
        </select>
      </label>
      <label className="note">
        {t('variantChoice')}{' '}
        <select
          className="choice"
          aria-label={t('variantChoiceLabel', { eye: eyeWords.name(eye) })}
          value={variantKey(picked.variant)}
          onChange={(event) => onVariant(eye, event.target.value)}
        >
          {picked.lens.variants.map((v) => (
            <option key={variantKey(v)} value={variantKey(v)}>
              {v.add === null
                ? `${v.baseCurve.toFixed(1)} / ${v.diameter.toFixed(1)}`
                : `${v.baseCurve.toFixed(1)} / ${v.diameter.toFixed(1)} · ${nameOfAdd(v.add, (band) => ofFamily(`add.${band}`))}`}
            </option>
          ))}
        </select>
      </label>
      {picked.lens.variants.length > 1 ? (
        <span className="note" title={t('curveWeak')}>
          {t(`curveWhy.${curveFor(picked.lens, meanK)?.why ?? 'noK'}`)} · {t('curveWeak')}
        </span>
      ) : null}
    </div>
  );
}

/** Grows outward from the spine; past a quarter dioptre it is hatched, and the threshold is a dashed line. */
function BlurBar({ blur, eye }: { readonly blur: number; readonly eye: Eye }) {
  const width = 64;
  const length = Math.min(width, blur * PX_PER_D);
  const line = LINE_D * PX_PER_D;
  const solid = Math.min(length, line);
  const x = (from: number, size: number): number => (eye === 'right' ? width - from - size : from);
  return (
    <svg width={width} height="20" viewBox={`0 0 ${width} 20`} aria-hidden="true" className={eye === 'right' ? 'justify-self-end -mr-3.5' : '-ml-3.5'}>
      <pattern id={`hatch-${eye}`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0v5" stroke="var(--ink)" strokeWidth="2" />
      </pattern>
      <rect x={x(0, solid)} y="5" width={solid} height="10" fill="var(--ink)" />
      {length > line ? (
        <rect x={x(line, length - line)} y="5.5" width={length - line} height="9" fill={`url(#hatch-${eye})`} stroke="var(--ink)" strokeWidth="1" />
      ) : null}
      <line x1={x(line, 0)} x2={x(line, 0)} y1="0" y2="20" stroke="var(--ink-2)" strokeDasharray="2 2" />
    </svg>
  );
}
