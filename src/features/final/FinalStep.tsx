'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState, type FormEvent } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { addDays, addYears, EYES, formatAxis, formatRefraction, may, type Eye } from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { KeyCap, Stated } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useBlurWorking } from '../common/blurWorking';
import { problemAt, useProblemWords } from '../common/words';
import { Figure, OpenWorking, WorkingProvider } from '../common/Working';
import { StopsThatStay } from '../common/visit/StopsThatStay';
import { DraftLine } from '../common/visit/DraftLine';
import { useDraft } from '../common/visit/useDraft';
import { useEyeWords } from '../common/eyeWords';
import { VisitFrame } from '../common/visit/VisitFrame';
import { useVisit } from '../common/visit/VisitProvider';
import { checkOf, curveKey, toPrescribe } from './model';
import { doubledAxis, ModeChoice, RawPlan } from './OrderMode';
import { SignedPrescription } from './SignedPrescription';

/** What is prescribed, from what was read on the eye, and the signature that makes it so. */
export function FinalStep() {
  const t = useTranslations('final');
  const words = useProblemWords();
  const blurWorking = useBlurWorking();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, run, busy, problem } = useVisit();
  const { settings, practice, today, viewer } = record.house;
  const draft = useDraft('final');
  const [password, setPassword] = useState('');
  const form = useRef<HTMLFormElement>(null);
  const plans = { right: toPrescribe(record, eye('right'), 'right', draft.body), left: toPrescribe(record, eye('left'), 'left', draft.body) };
  const signed = record.prescriptions.find((p) => p.visitId === record.visit.id) ?? null;
  const before = record.prescriptions[0] ?? null;
  const [again, setAgain] = useState(false);
  const mayForm = may(viewer.roles, 'sign');
  const proposedExpiry = addDays(addYears(today, Math.max(1, Math.round(settings.prescriptionMonths / 12))), 0);
  const expires = draft.body.expires ?? formatDay(proposedExpiry);
  const days = draft.body.days ?? '7';
  const mustWait = settings.finalPrescription === 'afterAftercare' && record.visit.kind !== 'aftercare';
  const rawPossible =
    EYES.some((e) => plans[e].blocked === null && !plans[e].leftOut) && EYES.every((e) => plans[e].blocked !== null || plans[e].leftOut || plans[e].rawReady);
  const raw = draft.body.mode === 'raw' && rawPossible;
  const included = EYES.filter((e) => plans[e].blocked === null && !plans[e].leftOut);
  const zone = practice.timeZone;

  const sign = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    const of = (e: Eye) => {
      const { family, lens, variant, blocked, leftOut } = plans[e];
      const triedId = eye(e).onEye?.rootId;
      if (blocked !== null || leftOut) return null;
      if (raw) {
        const made = variant ?? plans[e].curves[0];
        return triedId && made ? { mode: 'raw' as const, triedLensOnEyeId: triedId, baseCurve: made.baseCurve, diameter: made.diameter } : null;
      }
      if (!family || !lens || !variant) return null;
      return {
        mode: 'final' as const,
        lens: {
          familyId: family.id,
          sphere: lens.power.sphere,
          cylinder: lens.power.cylinder,
          axis: lens.power.axis,
          add: variant.add,
          baseCurve: variant.baseCurve,
          diameter: variant.diameter,
        },
        triedLensOnEyeId: eye(e).onEye?.rootId ?? null,
      };
    };
    const done = await run(
      'sign',
      { right: of('right'), left: of('left'), password, expiresOn: expires, waitNote: draft.body.note ?? '', daysPerWeek: Number(days) },
      t('signedToast'),
    );
    setPassword('');
    if (done?.ok) {
      draft.clear();
      setAgain(false);
    }
  };
  useHotkeys('ctrl+enter', () => form.current?.requestSubmit(), { enableOnFormTags: true });

  const tried = (e: Eye) => {
    const onEye = eye(e).onEye;
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
  };
  const prescribed = (e: Eye) => {
    const plan = plans[e];
    if (plan.leftOut)
      return (
        <span className="label">
          {t('leftOut')}{' '}
          <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${e}Out`, '')}>
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
            value={draft.body[`${e}Family`] ?? ''}
            onChange={(event) => draft.set(`${e}Family`, event.target.value)}
            aria-label={t('familyLabel', { eye: eyeWords.name(e) })}
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
    if (plan.blocked) return <Stated state="stop">{words(plan.blocked)}</Stated>;
    if (raw) return <RawPlan eye={e} />;
    if (!plan.lens || !plan.variant) return null;
    return (
      <>
        <span className="power-read" data-testid={`prescribed-${e}`}>
          {formatRefraction(plan.lens.power)}
        </span>
        <span className="label">
          {plan.family?.name} · <Figure id={`blur-${e}`}>{t('blurLeft', { blur: plan.lens.blur.toFixed(2) })}</Figure>
        </span>
        <span className={`flex gap-3 flex-wrap items-center ${e === 'right' ? 'justify-end' : ''}`}>
          <select
            className="choice"
            aria-label={t('powerLabel', { eye: eyeWords.name(e) })}
            value={plan.offers.indexOf(plan.lens)}
            onChange={(event) => draft.set(`${e}Power`, event.target.value)}
          >
            {plan.offers.map((o, i) => (
              <option key={i} value={i}>
                {t('offer', { power: formatRefraction(o.power), blur: o.blur.toFixed(2) })}
              </option>
            ))}
          </select>
          <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${e}Out`, 'yes')}>
            {t('leave')}
          </button>
        </span>
      </>
    );
  };
  const axis = (e: Eye) => {
    const { verdict, turn: stats } = eye(e);
    const { need } = verdict;
    if (raw) return <span className="label">{t('rawPrescribed')}</span>;
    const lens = plans[e].lens;
    if (!need || !verdict.order || !lens || lens.power.cylinder === 0) return <span className="label">{t('noAxis')}</span>;
    if (!stats) return <span>{t('axisUnread', { asked: formatAxis(need.axis), made: lens.power.axis })}</span>;
    if (!plans[e].turnCounts) return <span>{t('axisOther', { asked: formatAxis(need.axis), made: lens.power.axis })}</span>;
    const turn = Math.round(stats.mean * 10) / 10;
    return (
      <span>
        {turn === 0
          ? t('axisTrue', { asked: formatAxis(need.axis), made: lens.power.axis })
          : turn > 0
            ? t('axisLeft', { asked: formatAxis(need.axis), turn, order: formatAxis(verdict.order.axis), made: lens.power.axis })
            : t('axisRight', { asked: formatAxis(need.axis), turn: -turn, order: formatAxis(verdict.order.axis), made: lens.power.axis })}
      </span>
    );
  };
  const curves = (e: Eye) => {
    const { lens, variant } = plans[e];
    const onEye = eye(e).onEye;
    const triedLens = onEye?.current.lensId ? record.lenses[onEye.current.lensId] : undefined;
    if (!lens || !variant || plans[e].leftOut) return null;
    return (
      <>
        <select
          className="choice"
          aria-label={t('curveLabel', { eye: eyeWords.name(e) })}
          value={curveKey(variant)}
          onChange={(event) => draft.set(`${e}Curve`, event.target.value)}
        >
          {plans[e].curves.map((c) => (
            <option key={curveKey(c)} value={curveKey(c)}>{`${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`}</option>
          ))}
        </select>
        {lens.variants.some((v) => v.add !== null) ? (
          <select
            className="choice"
            aria-label={t('addLabel', { eye: eyeWords.name(e) })}
            value={variant.add ?? ''}
            onChange={(event) => draft.set(`${e}Add`, event.target.value)}
          >
            {[...new Set(lens.variants.map((v) => v.add))].map((a) =>
              a ? (
                <option key={a} value={a}>
                  {t(`add.${a}`)}
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
  };

  const showSigned = signed !== null && !again;
  const fieldProblem = (path: string) => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  const blocks = EYES.flatMap((e) => {
    const { lens } = plans[e];
    const { order } = eye(e).verdict;
    return lens && order ? [blurWorking(`blur-${e}`, eyeWords.short(e), order, lens)] : [];
  });
  return (
    <WorkingProvider ids={showSigned ? [] : blocks.map((b) => b.id)} initial={null}>
      <VisitFrame
        step="final"
        keys={
          <>
            <span>
              <KeyCap>{'Ctrl ⏎'}</KeyCap> {t('keySign')}
            </span>
            <span>
              <KeyCap>{'W'}</KeyCap> {t('keyWorking')}
            </span>
          </>
        }
        margin={
          showSigned ? (
            <>
              <h2 className="mb-3">{t('afterSigning')}</h2>
              <StopsThatStay />
              <p className="mb-2">{t('afterText')}</p>
              <p className="label">{t('supersedeText')}</p>
            </>
          ) : (
            <>
              <h2 className="mb-3">{t('beforeSigning')}</h2>
              <StopsThatStay />
              {EYES.map((e) => {
                const check = checkOf(plans[e], eye(e));
                return (
                  <p key={e} className="mb-3">
                    <Stated state={check.state}>{t(`check.${check.code}`, { eye: eyeWords.short(e) })}</Stated>
                  </p>
                );
              })}
              {included.length === 1 ? (
                <p className="mb-3">
                  <Stated state="watch">{t('oneEye')}</Stated>
                </p>
              ) : null}
              <h2 className="mt-5 mb-2">{t('whatItDoes')}</h2>
              <ol className="list-decimal pl-5">
                <li>{t('does1')}</li>
                {before ? <li>{t('does2', { number: before.number })}</li> : null}
                <li>{t('does3')}</li>
                <li>{t('does4')}</li>
              </ol>
              <OpenWorking blocks={blocks} />
            </>
          )
        }
        actions={
          showSigned ? (
            <>
              {mayForm && record.visit.closedAt === null ? <Button onClick={() => setAgain(true)}>{t('signAgain')}</Button> : null}
              <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/visits/${record.visit.id}/teach`)}>
                {t('toTeach')}
              </Button>
            </>
          ) : (
            <>
              <Button onClick={() => router.push(`/visits/${record.visit.id}/teach`)}>{t('trialHome')}</Button>
              <Button
                look="act"
                keys={['Ctrl ⏎']}
                disabled={busy || !mayForm || included.length === 0 || record.visit.closedAt !== null}
                onClick={() => form.current?.requestSubmit()}
              >
                {t('sign')}
              </Button>
            </>
          )
        }
      >
        {showSigned ? (
          <SignedPrescription signed={signed} />
        ) : (
          <form ref={form} onSubmit={(event) => void sign(event)}>
            <Spine label={t('title')}>
              <SpineHead words={eyeWords.heads} label={t('toSign')} />
              <SpineRow label={t('triedLast')} right={tried('right')} left={tried('left')} />
              <SpineRow
                chosen
                tone="field"
                label={t('prescribed')}
                note={included.length > 0 && included.every((e) => plans[e].sameAsTried) ? t('same') : t('fromReadings')}
                right={prescribed('right')}
                left={prescribed('left')}
              />
              <SpineRow label={t('axis')} note={t('axisNote')} right={axis('right')} left={axis('left')} />
              <SpineRow label={t('curves')} note={t('curvesNote')} right={curves('right')} left={curves('left')} />
            </Spine>
            <div className="grid wide:grid-cols-3 border-t border-rule-2">
              <section className="p-6 border-r border-rule">
                <h2 className="border-b border-rule-2 pb-2 mb-3">{t('terms')}</h2>
                <Field
                  label={t('expires')}
                  value={expires}
                  onValue={(value) => draft.set('expires', value)}
                  problem={fieldProblem('expiresOn')}
                  hint={t('expiresHint')}
                />
                <Field
                  label={t('days')}
                  value={days}
                  onValue={(value) => draft.set('days', value)}
                  inputMode="numeric"
                  problem={fieldProblem('daysPerWeek')}
                  hint={t('daysHint')}
                />
              </section>
              <section className="p-6 border-r border-rule">
                <h2 className="border-b border-rule-2 pb-2 mb-3">{t('speaks')}</h2>
                <ModeChoice raw={raw} possible={rawPossible} doubled={doubledAxis(eye)} onChoose={(mode) => draft.set('mode', mode)} />
                {mustWait ? (
                  <div>
                    <label htmlFor="wait-note" className="field-label">
                      {t('why')}
                    </label>
                    <textarea
                      id="wait-note"
                      className="input"
                      rows={3}
                      value={draft.body.note ?? ''}
                      onChange={(event) => draft.set('note', event.target.value)}
                      aria-invalid={fieldProblem('waitNote') ? true : undefined}
                      aria-describedby="wait-note-note"
                    />
                    <div id="wait-note-note" className="field-note" aria-live="polite">
                      {fieldProblem('waitNote') ? <ProblemLine>{fieldProblem('waitNote')}</ProblemLine> : t('whyHint')}
                    </div>
                  </div>
                ) : null}
              </section>
              <section className="p-6 bg-lift">
                <h2 className="border-b border-rule-2 pb-2 mb-3">{t('signTitle')}</h2>
                {mayForm ? (
                  <>
                    <p className="mb-2">
                      <strong>{viewer.name}</strong>
                      {t('signerTail', { title: viewer.title, register: viewer.registerNumber ?? '' })}
                    </p>
                    <p className="mb-3">
                      {t('signsFor')} <strong>{t('whose', { name: record.wearer.name, day: formatDay(record.wearer.birthDate) })}</strong> {t('notEdited')}
                    </p>
                    <Field
                      label={t('password')}
                      type="password"
                      autoComplete="current-password"
                      value={password}
                      onValue={setPassword}
                      problem={fieldProblem('password')}
                      hint={t('passwordHint')}
                      className="tall"
                    />
                  </>
                ) : (
                  <p>
                    <Stated state="watch">{t('onlyPrescriber')}</Stated>
                  </p>
                )}
              </section>
            </div>
          </form>
        )}
        <DraftLine draft={draft} />
      </VisitFrame>
    </WorkingProvider>
  );
}
