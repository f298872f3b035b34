'use client';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { addMonths, PURPOSES } from '@/core';
import { formatDay } from '@/i18n/format';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import { doubledAxis, ModeChoice } from './OrderMode';
import type { Signing } from './useSigning';

// What is asked beside the eyes comes with the look at them.
const Sentence = lazy(() => import('./LastLook').then((m) => ({ default: m.Sentence })));

/** How long prescriptions usually run, months: common practice; any other day is typed. */
const MONTHS = [6, 12, 18, 24] as const;

/** How long it holds, how it speaks to the maker, and who signs. */
export function SignSections({ signing }: { readonly signing: Signing }) {
  const t = useTranslations('prescription');
  const purposes = useTranslations('purposes');
  const words = useProblemWords();
  const { record, problem } = useVisit();
  const { viewer } = record.session;
  const { draft, expires, days, purpose, raw, rawPossible, mustWait, maySign, password, setPassword } = signing;
  const inMonths = (months: number) => formatDay(addMonths(record.session.today, months));
  const fieldProblem = (path: string) => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  return (
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
        <div className="flex gap-2 items-center mb-3">
          <span className="note">{t('inMonths')}</span>
          <Segment
            label={t('months')}
            values={MONTHS}
            value={MONTHS.find((months) => expires === inMonths(months))}
            word={String}
            onChoose={(months) => draft.set('expires', inMonths(months))}
          />
        </div>
        {fieldProblem('expiryReason') || draft.body.expiryReason ? (
          <Field
            label={t('expiryReason')}
            value={draft.body.expiryReason ?? ''}
            onValue={(value) => draft.set('expiryReason', value)}
            problem={fieldProblem('expiryReason')}
            maxLength={300}
          />
        ) : null}
        <Field
          label={t('days')}
          value={days}
          onValue={(value) => draft.set('days', value)}
          inputMode="numeric"
          problem={fieldProblem('daysPerWeek')}
          hint={t('daysHint')}
        />
        <div className="field-label">{t('purpose')}</div>
        <Segment label={t('purpose')} values={PURPOSES} value={purpose} word={(p) => purposes(p)} onChoose={(p) => draft.set('purpose', p)} />
        <p className="field-note">{t('purposeHint')}</p>
      </section>
      <section className="p-6 border-r border-rule">
        <h2 className="border-b border-rule-2 pb-2 mb-3">{t('speaks')}</h2>
        <ModeChoice raw={raw} possible={rawPossible} doubled={doubledAxis((e) => signing.states[e])} onChoose={(mode) => draft.set('mode', mode)} />
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
        <Suspense fallback={null}>
          {signing.wearerLook.map((line) => (line.state === 'asks' ? <Sentence key={line.code} signing={signing} eye={null} line={line} /> : null))}
        </Suspense>
        {maySign ? (
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
  );
}
