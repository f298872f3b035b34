'use client';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye, type PrescriptionRow } from '@/core';
import { formatDay, formatMoney } from '@/i18n/format';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { Figure } from '../../../common/Working';
import { problemAt, useProblemWords } from '../../../common/words';
import { RawFigures } from '../../shell/RawFigures';
import { useVisit } from '../../shell/VisitProvider';
import { Runway } from './Runway';
import type { Supply } from './useSupply';

interface Cell {
  readonly supply: Supply;
  readonly eye: Eye;
}

/** What is prescribed, how many boxes, and the days they last to. */
export function SupplyRows({ supply, prescription }: { readonly supply: Supply; readonly prescription: PrescriptionRow }) {
  const t = useTranslations('supply');
  const eyeWords = useEyeWords();
  const { settings, practice } = useVisit().record.session;
  const { order, total } = supply;
  const both = (Of: (cell: Cell) => React.ReactNode) => ({ right: <Of supply={supply} eye="right" />, left: <Of supply={supply} eye="left" /> });
  return (
    <Spine label={t('title')}>
      <SpineHead words={eyeWords.heads} label={t('prescriptionLine', { number: prescription.number })} />
      <SpineRow label={t('lens')} {...both(LensCell)} />
      <SpineRow
        tone="field"
        chosen={!order}
        label={t('boxes')}
        note={order ? t('orderLine', { number: order.number }) : t('boxesNote')}
        {...both(PacksField)}
      />
      <SpineRow label={t('runway')} note={t('runwayNote')} {...both(RunwayCell)} />
      <SpineRow label={t('runOut')} note={t('lastDay')} {...both(RunOut)} />
      <SpineRow label={t('reorderBy')} note={t('reorderNote', { margin: settings.reorderMarginDays })} {...both(Reorder)} />
      <SpineRow
        label={t('cost')}
        right={<span />}
        left={
          <Figure id="cost">
            <span className="value">{formatMoney(total, practice.currency)}</span>
          </Figure>
        }
      />
    </Spine>
  );
}

function PacksField({ supply, eye }: Cell) {
  const t = useTranslations('supply');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, problem } = useVisit();
  const { waitsFor, draft, typed, mayOrder, closed } = supply;
  const s = supply.supplies[eye];
  if (!s) return <span className="label">{t('notPrescribed')}</span>;
  const line = waitsFor(eye)?.lines.find((l) => l.eye === eye);
  if (line) return <span className="value">{t('ordered', { packs: line.packs, size: line.packSize })}</span>;
  const p = problemAt(problem, `${eye}Packs`);
  return (
    <Field
      label={t('packs', { eye: eyeWords.short(eye) })}
      value={draft.body[`${eye}Packs`] ?? String(s.proposed)}
      onValue={(value) => draft.set(`${eye}Packs`, value)}
      inputMode="numeric"
      disabled={!mayOrder || closed}
      className="w-full max-w-[240px]"
      problem={p ? words(p.code, p.data) : Number.isNaN(typed(eye)) ? words('wholeNumber') : null}
      hint={t('packsHint', { size: s.packSize, price: formatMoney(s.packPriceMinor, record.session.practice.currency) })}
    />
  );
}

function LensCell({ supply, eye }: Cell) {
  const t = useTranslations('supply');
  const eyeWords = useEyeWords();
  const s = supply.supplies[eye];
  if (!s) return <span className="label">{t('notPrescribed')}</span>;
  const { lens } = s;
  const aim = eyeWords.aim(supply.prescription?.eyes.find((e) => e.eye === eye)?.aim);
  return (
    <>
      {s.raw ? <RawFigures raw={s.raw} /> : null}
      {lens ? (
        <>
          <span className="power">{formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}</span>
          <span className="note">
            {[t('lensLine', { family: lens.familyName, curve: lens.baseCurveMm?.toFixed(1) ?? '', diameter: lens.diameterMm?.toFixed(1) ?? '' }), aim]
              .filter(Boolean)
              .join(' · ')}
          </span>
        </>
      ) : null}
    </>
  );
}

function RunwayCell({ supply, eye }: Cell) {
  const t = useTranslations('supply');
  const eyeWords = useEyeWords();
  const { today } = useVisit().record.session;
  const { prescription } = supply;
  const s = supply.supplies[eye];
  if (!s || !prescription) return null;
  return (
    <>
      {Number.isFinite(s.packs) ? (
        <Runway supply={s} eye={eye} today={today} expiresOn={prescription.expiresOn} label={t('runwayLabel', { eye: eyeWords.name(eye) })} />
      ) : null}
      <span className="note">{s.plan.inHandUntil ? t('inHand', { day: formatDay(s.plan.inHandUntil) }) : t('nothingInHand')}</span>
    </>
  );
}

function RunOut({ supply, eye }: Cell) {
  const t = useTranslations('supply');
  const plan = supply.supplies[eye]?.plan;
  if (!plan?.runOut) return <span className="label">{t('noDate')}</span>;
  return (
    <>
      <Figure id={`supply-${eye}`}>
        <span className="power" data-testid={`run-out-${eye}`}>
          {formatDay(plan.runOut)}
        </span>
      </Figure>
      <span className="note">{plan.ifOpened ? t('ifOpened', { day: formatDay(plan.orderOpens) }) : t('opened')}</span>
    </>
  );
}

function Reorder({ supply, eye }: Cell) {
  const t = useTranslations('supply');
  const { today } = useVisit().record.session;
  const by = supply.supplies[eye]?.plan.reorderBy;
  if (!by) return <span className="label">{t('noDate')}</span>;
  return (
    <span className="power" data-testid={`reorder-${eye}`}>
      {by <= today ? <Stated state="watch">{formatDay(by)}</Stated> : formatDay(by)}
    </span>
  );
}
