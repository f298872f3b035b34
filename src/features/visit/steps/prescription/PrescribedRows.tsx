'use client';
import { useTranslations } from 'use-intl';
import { addKnown, compareAdds, formatAxis, formatRefraction, nameOfAdd, nearState, writtenAims, type Eye } from '@/core';
import { formatTime } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import { Figure } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import { curveKey } from './model';
import { RawPlan } from './OrderMode';
import type { Signing } from './useSigning';

/** Tried, prescribed, axis and curve: what the signature would stand under. */
export function PrescribedRows({ signing }: { readonly signing: Signing }) {
  const t = useTranslations('prescription');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { included, plans } = signing;
  const aims = writtenAims(nearState(record.nearFindings), addKnown(record.facts.refractions, record.addsBefore));
  const both = (make: (eye: Eye) => React.ReactNode) => ({ right: make('right'), left: make('left') });
  return (
    <>
      <SpineRow label={t('triedLast')} {...both((e) => <Tried eye={e} />)} />
      <SpineRow
        chosen
        tone="field"
        label={t('prescribed')}
        note={included.length > 0 && included.every((e) => plans[e].sameAsTried) ? t('same') : t('fromReadings')}
        {...both((e) => <Prescribed signing={signing} eye={e} />)}
      />
      {aims ? (
        <SpineRow
          label={t('aim')}
          note={t('aimNote')}
          {...both((e) => (
            <span className="value" data-testid={`aim-${e}`}>
              {eyeWords.aim(aims[e])}
            </span>
          ))}
        />
      ) : null}
      <SpineRow label={t('axis')} note={t('axisNote')} {...both((e) => <Axis signing={signing} eye={e} />)} />
      <SpineRow label={t('curves')} note={t('curvesNote')} {...both((e) => <Curves signing={signing} eye={e} />)} />
    </>
  );
}

function Tried({ eye }: { readonly eye: Eye }) {
  const t = useTranslations('prescription');
  const { record, eye: stateOf } = useVisit();
  const zone = record.session.practice.timeZone;
  const onEye = stateOf(eye).onEye;
  const lens = onEye?.current.lensId ? record.lenses[onEye.current.lensId] : undefined;
  if (!onEye) return <span className="label">{t('nothingTried')}</span>;
  return (
    <>
      <span className="value">{lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : t('unknown')}</span>
      <span className="note">
        {t('triedAt', { family: lens?.familyName ?? onEye.current.description ?? '', time: formatTime(onEye.current.putOnAt, zone) })}
      </span>
    </>
  );
}

function Prescribed({ signing, eye }: { readonly signing: Signing; readonly eye: Eye }) {
  const t = useTranslations('prescription');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { plans, draft, raw } = signing;
  const plan = plans[eye];
  if (plan.leftOut)
    return (
      <span className="label">
        {t('leftOut')}{' '}
        <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${eye}Out`, '')}>
          {t('putBack')}
        </button>
      </span>
    );
  if (plan.blocked === 'noFamily') {
    return (
      <label className="note">
        {t('chooseFamily')}{' '}
        <select
          className="choice"
          value={draft.body[`${eye}Family`] ?? ''}
          onChange={(event) => draft.set(`${eye}Family`, event.target.value)}
          aria-label={t('familyLabel', { eye: eyeWords.name(eye) })}
        >
          <option value="">{t('noneChosen')}</option>
          {record.families.map((f) => (
            <option key={f.code} value={f.code}>
              {f.name}
            </option>
          ))}
        </select>
      </label>
    );
  }
  if (plan.blocked)
    return (
      <>
        <Stated state="stop">{words(plan.blocked)}</Stated>
        {plan.overridable && signing.maySign ? (
          <button type="button" className="btn btn-plain" onClick={() => draft.set(`${eye}Despite`, 'yes')}>
            {t('despite')}
          </button>
        ) : null}
      </>
    );
  if (raw) return <RawPlan eye={eye} />;
  if (!plan.lens || !plan.variant) return null;
  return (
    <>
      <span className="power-read" data-testid={`prescribed-${eye}`}>
        {formatRefraction(plan.lens.power)}
      </span>
      <span className="label">
        {plan.family?.name} · <Figure id={`blur-${eye}`}>{t('blurLeft', { blur: plan.lens.blur.toFixed(2) })}</Figure>
      </span>
      <span className={`flex gap-3 flex-wrap items-center ${eye === 'right' ? 'justify-end' : ''}`}>
        <select
          className="choice"
          aria-label={t('powerLabel', { eye: eyeWords.name(eye) })}
          value={plan.offers.indexOf(plan.lens)}
          onChange={(event) => draft.set(`${eye}Power`, event.target.value)}
        >
          {plan.offers.map((o, i) => (
            <option key={i} value={i}>
              {t('offer', { power: formatRefraction(o.power), blur: o.blur.toFixed(2) })}
            </option>
          ))}
        </select>
        <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${eye}Out`, 'yes')}>
          {t('leave')}
        </button>
      </span>
    </>
  );
}

function Axis({ signing, eye }: { readonly signing: Signing; readonly eye: Eye }) {
  const t = useTranslations('prescription');
  const { plans, raw, states } = signing;
  const { verdict, turn: stats } = states[eye];
  const { need } = verdict;
  if (raw) return <span className="label">{t('rawPrescribed')}</span>;
  const lens = plans[eye].lens;
  const order = verdict.order ?? verdict.orderDespite;
  if (!need || !order || !lens || lens.power.cylinder === 0) return <span className="label">{t('noAxis')}</span>;
  if (!stats) return <span>{t('axisUnread', { asked: formatAxis(need.axis), made: lens.power.axis })}</span>;
  if (!plans[eye].turnCounts) return <span>{t('axisOther', { asked: formatAxis(need.axis), made: lens.power.axis })}</span>;
  const turn = Math.round(stats.mean * 10) / 10;
  if (verdict.rotation?.code === 'leave' && turn !== 0) return <span>{t('axisLeave', { asked: formatAxis(need.axis), made: lens.power.axis })}</span>;
  return (
    <span>
      {turn === 0
        ? t('axisTrue', { asked: formatAxis(need.axis), made: lens.power.axis })
        : turn > 0
          ? t('axisLeft', { asked: formatAxis(need.axis), turn, order: formatAxis(order.axis), made: lens.power.axis })
          : t('axisRight', { asked: formatAxis(need.axis), turn: -turn, order: formatAxis(order.axis), made: lens.power.axis })}
    </span>
  );
}

function Curves({ signing, eye }: { readonly signing: Signing; readonly eye: Eye }) {
  const t = useTranslations('prescription');
  const eyeWords = useEyeWords();
  const { record, eye: stateOf } = useVisit();
  const { plans, draft } = signing;
  const { lens, variant } = plans[eye];
  const onEye = stateOf(eye).onEye;
  const triedLens = onEye?.current.lensId ? record.lenses[onEye.current.lensId] : undefined;
  if (!lens || !variant || plans[eye].leftOut) return null;
  return (
    <>
      <select
        className="choice"
        aria-label={t('curveLabel', { eye: eyeWords.name(eye) })}
        value={curveKey(variant)}
        onChange={(event) => draft.set(`${eye}Curve`, event.target.value)}
      >
        {plans[eye].curves.map((c) => (
          <option key={curveKey(c)} value={curveKey(c)}>{`${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`}</option>
        ))}
      </select>
      {lens.variants.some((v) => v.add !== null) ? (
        <select
          className="choice"
          aria-label={t('addLabel', { eye: eyeWords.name(eye) })}
          value={variant.add ?? ''}
          onChange={(event) => draft.set(`${eye}Add`, event.target.value)}
        >
          {[...new Set((plans[eye].family?.blocks ?? []).flatMap((b) => b.adds))].sort(compareAdds).map((a) =>
            a ? (
              <option key={a} value={a}>
                {nameOfAdd(a, (band) => t(`add.${band}`))}
              </option>
            ) : null,
          )}
        </select>
      ) : null}
      {triedLens?.baseCurveMm ? (
        <span className="note">{t('triedCurve', { curve: triedLens.baseCurveMm.toFixed(1), diameter: triedLens.diameterMm?.toFixed(1) ?? '' })}</span>
      ) : null}
    </>
  );
}
