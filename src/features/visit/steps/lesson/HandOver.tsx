'use client';
import Link from 'next/link';
import type { FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { problemAt, useProblemWords } from '../../../common/words';
import { Correctable } from '../../shell/Correct';
import { DraftLine } from '../../shell/DraftLine';
import { DrivingFirst } from '../../shell/DrivingFirst';
import { useDraft } from '../../shell/useDraft';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';

/** The bar's button sends this form. */
export const HAND_OVER_FORM = 'hand-over';

const numberOf = (text: string): number => (/^\d{1,2}$/.test(text.trim()) ? Number(text.trim()) : -1);

/** The trial pair goes home: lot and expiry read off the pack, each eye its own. */
export function HandOver({ experienced }: { readonly experienced: boolean }) {
  const t = useTranslations('handOver');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, eye, run, busy, problem } = useVisit();
  const draft = useDraft('lesson');
  const closed = record.visit.closedAt !== null;
  const given = (e: Eye) => record.handOvers.find((c) => c.current?.eye === e && c.current.visitId === record.visit.id) ?? null;
  const trial = (e: Eye) => {
    const onEye = eye(e).onEye;
    return onEye?.current.source === 'trial' && !given(e) ? onEye : null;
  };
  const waiting = EYES.filter((e) => trial(e));
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const box = (e: Eye) => {
      const row = trial(e);
      if (!row || draft.body[`${e}Stay`] === 'yes') return null;
      return {
        lensOnEyeId: row.rootId,
        lot: draft.body[`${e}Lot`] ?? row.current.lot ?? '',
        expiresOn: draft.body[`${e}Expires`] ?? (row.current.expiresOn ? formatDay(row.current.expiresOn) : ''),
        lensCount: isDaily(e) ? numberOf(draft.body[`${e}Count`] ?? '1') : 1,
      };
    };
    const done = await run('handOver', { right: box('right'), left: box('left'), experienceNote: draft.body.experience ?? '' }, t('done'));
    if (done?.ok) draft.clear();
  };
  /** Daily lenses go home for as many days as there are. */
  const isDaily = (e: Eye): boolean => record.lenses[trial(e)?.current.lensId ?? '']?.modality === 'daily';
  /** Power prescribed for the eye where the trial is another one. */
  const differs = (e: Eye): string | null => {
    const row = record.prescriptions[0]?.eyes.find((x) => x.eye === e);
    const lens = row?.lensId ? record.lenses[row.lensId] : undefined;
    return lens && row?.lensId !== trial(e)?.current.lensId ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : null;
  };
  const cell = (e: Eye) => {
    const fact = given(e);
    if (fact?.current) {
      const lens = record.lenses[fact.current.lensId];
      return (
        <span data-testid={`handed-${e}`} className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'}`}>
          <Stated state="ok">
            {lens ? `${lens.familyName} ${formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}` : ''}
          </Stated>
          <span className="label">{t('lotLine', { lot: fact.current.lot, day: formatDay(fact.current.expiresOn) })}</span>
          <Correctable
            kind="handOver"
            chain={fact}
            show={(row) => t('lotLine', { lot: row.lot, day: formatDay(row.expiresOn) })}
            textOf={(row) => row.lot}
            expiryOf={(row) => formatDay(row.expiresOn)}
          />
        </span>
      );
    }
    const row = trial(e);
    if (!row) return <span className="label">{t('nothing')}</span>;
    if (draft.body[`${e}Stay`] === 'yes')
      return (
        <span className="label">
          {t('stays')}{' '}
          <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${e}Stay`, '')}>
            {t('goes')}
          </button>
        </span>
      );
    const lotProblem = problemAt(problem, e, 'lot');
    const expiryProblem = problemAt(problem, e, 'expiresOn');
    const other = problemAt(problem, e, 'lensOnEyeId');
    const countProblem = problemAt(problem, e, 'lensCount');
    return (
      <div className="w-full max-w-[330px]">
        <Field
          label={t('lot', { eye: eyeWords.short(e) })}
          value={draft.body[`${e}Lot`] ?? row.current.lot ?? ''}
          onValue={(value) => draft.set(`${e}Lot`, value)}
          mono
          problem={lotProblem ? words(lotProblem.code, lotProblem.data) : null}
        />
        <Field
          label={t('expires', { eye: eyeWords.short(e) })}
          value={draft.body[`${e}Expires`] ?? (row.current.expiresOn ? formatDay(row.current.expiresOn) : '')}
          onValue={(value) => draft.set(`${e}Expires`, value)}
          problem={expiryProblem ? words(expiryProblem.code, expiryProblem.data) : other ? words(other.code, other.data) : null}
        />
        {isDaily(e) ? (
          <Field
            label={t('count', { eye: eyeWords.short(e) })}
            value={draft.body[`${e}Count`] ?? '1'}
            onValue={(value) => draft.set(`${e}Count`, value)}
            inputMode="numeric"
            mono
            problem={countProblem ? words(countProblem.code, countProblem.data) : null}
          />
        ) : null}
        {differs(e) ? (
          <p>
            <Stated state="watch">{t('notPrescribed', { power: differs(e) ?? '' })}</Stated>
          </p>
        ) : null}
        <button type="button" className="btn btn-quiet" onClick={() => draft.set(`${e}Stay`, 'yes')}>
          {t('stay')}
        </button>
      </div>
    );
  };
  const experienceProblem = problemAt(problem, 'experienceNote');
  return (
    <form id={HAND_OVER_FORM} onSubmit={(event) => void submit(event)} className="border-t-2 border-ink mt-4">
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={<strong>{t('title')}</strong>} />
        <SpineRow tone="field" label={t('pair')} note={t('pairNote')} right={cell('right')} left={cell('left')} />
      </Spine>
      {waiting.length > 0 ? <DrivingFirst /> : null}
      {experienced && waiting.length > 0 ? (
        <div className="px-6 pt-4 max-w-[620px]">
          <Field
            label={t('experience')}
            value={draft.body.experience ?? ''}
            onValue={(value) => draft.set('experience', value)}
            hint={t('experienceHint')}
            problem={experienceProblem ? words(experienceProblem.code, experienceProblem.data) : null}
          />
        </div>
      ) : null}
      {experienced && EYES.some((e) => given(e)) ? <TakeHomeLink visitId={record.visit.id} /> : null}
      {waiting.length > 0 ? (
        <div className="p-6 flex gap-4 items-center">
          {experienced ? (
            <Button type="submit" disabled={busy || closed}>
              {t('do')}
            </Button>
          ) : null}
          {problemAt(problem, 'right')?.code === 'oneEyeRequired' ? (
            <ProblemLine>{words('oneEyeRequired')}</ProblemLine>
          ) : (
            <span className="label">{t('doHint')}</span>
          )}
        </div>
      ) : null}
      <DraftLine draft={draft} />
    </form>
  );
}

/** Who was taught before gets the page to take home from here. */
function TakeHomeLink({ visitId }: { readonly visitId: string }) {
  const t = useTranslations('handOver');
  return (
    <p className="px-6 pt-4">
      <Link className="btn btn-plain" href={`/take-home/${visitId}`} prefetch={false}>
        {t('takeHome')}
      </Link>
    </p>
  );
}
