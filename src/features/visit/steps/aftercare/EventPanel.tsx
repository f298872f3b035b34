'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { ADVERSE_EVENTS, EYES } from '@/core';
import { formatDay } from '@/i18n/format';
import { Field } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { AftercarePage } from './useAftercare';

/** An adverse event: what, which eye, since when. The lens and its lot come from what is worn. */
export function EventPanel({ page, onClose }: { readonly page: AftercarePage; readonly onClose: () => void }) {
  const t = useTranslations('aftercare');
  const words = useProblemWords();
  const { record, problem, clearProblem, busy, run } = useVisit();
  const { draft } = page;
  const [began, setBegan] = useState(draft.body.began ?? formatDay(record.session.today));
  const eye = EYES.find((e) => e === draft.body.eventEye);
  const event = ADVERSE_EVENTS.find((e) => e === draft.body.event);
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const submit = async (form: FormEvent): Promise<void> => {
    form.preventDefault();
    if (!eye || !event) return;
    const lot = (draft.body.lot ?? '').trim();
    const done = await run(
      'recordAdverseEvent',
      { eye, event, beganOn: began, lot: lot === '' ? null : lot, note: draft.body.eventNote ?? '' },
      t('eventKept'),
    );
    if (!done?.ok) return;
    for (const key of ['eventEye', 'event', 'began', 'lot', 'eventNote'] as const) draft.set(key, '');
    close();
  };
  const at = (...path: string[]): string | null => {
    const fault = problemAt(problem, ...path);
    return fault ? words(fault.code, fault.data) : null;
  };
  return (
    <Panel open wide onClose={close} title={t('record')}>
      <form onSubmit={(form) => void submit(form)} className="flex flex-col gap-3">
        <Segment label={t('eventEye')} values={EYES} value={eye} word={(e) => t(`eyesOf.${e}`)} onChoose={(e) => draft.set('eventEye', e)} />
        <Segment
          label={t('eventLabel')}
          kind="wrapping"
          values={ADVERSE_EVENTS}
          value={event}
          word={(e) => t(`event.${e}`)}
          onChoose={(e) => draft.set('event', e)}
        />
        <div className="flex gap-4 flex-wrap">
          <Field className="w-[180px]" label={t('began')} value={began} onValue={setBegan} problem={at('beganOn')} autoComplete="off" />
          <Field
            className="w-[260px]"
            label={t('lotOf')}
            value={draft.body.lot ?? ''}
            onValue={(text) => draft.set('lot', text)}
            problem={at('lot')}
            autoComplete="off"
          />
        </div>
        <Field label={t('eventNote')} value={draft.body.eventNote ?? ''} onValue={(text) => draft.set('eventNote', text)} autoComplete="off" maxLength={400} />
        <FormEnd cancel={t('cancel')} act={t('eventKeep')} busy={busy || !eye || !event} onCancel={close} />
      </form>
    </Panel>
  );
}
