'use client';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity, type Eye, type NearTask } from '@/core';
import nearVisionProblems from '@/i18n/messages/en/nearVisionProblems.messages.json';
import pairDeskWords from '@/i18n/messages/en/pairDesk.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Segment } from '@/ui/Segment';
import { AcuityField } from '../../../common/AcuityField';
import { DraftLine } from '../../shell/DraftLine';
import { useVisit } from '../../shell/VisitProvider';
import { CentreCost } from './CentreCost';
import { Held } from './Held';
import { NextChange } from './NextChange';
import { usePair, type PairPage } from './usePair';

// The chart is half as heavy as the page.
const ThroughFocus = lazy(() => import('./ThroughFocus').then((m) => ({ default: m.ThroughFocus })));

const SAID = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

/** Both eyes together in normal light: letters and satisfaction at each task, a quarter held before each eye, the next change. */
function PairDeskPart() {
  const t = useTranslations('pairDesk');
  const page = usePair();
  return (
    <section className="pair-desk px-6 py-4 flex flex-col gap-4" aria-label={t('title')} data-testid="pair-desk">
      <p className="label">{t('how')}</p>
      <div className="self-start">
        <Segment
          label={t('open')}
          values={['none', ...EYES] as const}
          value={page.covered ?? 'none'}
          word={(e) => t(`covered.${e}`)}
          onChoose={(e) => page.draft.set('covered', e === 'none' ? '' : e)}
          disabled={page.blocked}
        />
      </div>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">{t('task')}</th>
            <th scope="col">{t('acuity')}</th>
            <th scope="col">{t('satisfaction')}</th>
            <th scope="col">{t('recordedBefore')}</th>
          </tr>
        </thead>
        <tbody>
          {page.tasks.map(({ task, cm }) => (
            <TaskRow key={task} task={task} cm={cm} page={page} />
          ))}
        </tbody>
      </table>
      <Held page={page} />
      <div className="flex gap-3 items-center">
        <Button look={page.waiting ? 'act' : 'plain'} disabled={page.blocked || !page.waiting || page.faulty} onClick={() => void page.submit()}>
          {t('record')}
        </Button>
        <DraftLine draft={page.draft} />
      </div>
      <CentreCost page={page} />
      <NextChange page={page} />
      {page.input ? (
        <Opened summary={t('chart.open')}>
          <ThroughFocus input={page.input} tasks={page.tasks} />
        </Opened>
      ) : null}
    </section>
  );
}

/** Opened when it is wanted: what is in it is fetched then. */
function Opened({ summary, children }: { readonly summary: string; readonly children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{summary}</summary>
      <Suspense fallback={null}>{open ? children : null}</Suspense>
    </details>
  );
}

function TaskRow({ task, cm, page }: { readonly task: NearTask; readonly cm: number; readonly page: PairPage }) {
  const t = useTranslations('pairDesk');
  const { record } = useVisit();
  const { draft, blocked } = page;
  const foretold = page.foretoldOf(cm);
  const sight = (logMar: number): string => formatAcuity(logMar, record.session.settings.acuity);
  const line = (covered: Eye | null): string | null => {
    const read = page.recordedOf(task, covered);
    return read ? t('before', { said: read.satisfaction, acuity: read.acuityLogMar === null ? '' : sight(read.acuityLogMar) }) : null;
  };
  const va = draft.body[`${task}Va`] ?? '';
  const said = draft.body[`${task}Said`] ?? '';
  return (
    <tr>
      <th scope="row">
        {t(`tasks.${task}`)} <span className="note">{t('cm', { cm })}</span>
      </th>
      <td>
        <AcuityField
          id={`task-${task}`}
          label={t('acuityOf', { task: t(`tasks.${task}`) })}
          text={va}
          onText={(typed) => draft.set(`${task}Va`, typed)}
          disabled={blocked}
          problem={va.trim() !== '' && said === '' ? { code: 'satisfactionRequired' } : null}
        />
      </td>
      <td>
        <Segment
          kind="scale"
          label={t('satisfactionOf', { task: t(`tasks.${task}`) })}
          values={SAID}
          value={said === '' ? null : Number(said)}
          word={(n) => String(n)}
          onChoose={(n) => draft.set(`${task}Said`, String(n))}
          disabled={blocked}
        />
      </td>
      <td className="pl-4" data-testid={`task-said-${task}`}>
        {line(null) ?? '–'}
        {foretold ? (
          <span className="note block">{t('foretold', { said: Math.round(foretold.satisfaction), acuity: sight(Math.round(foretold.then * 50) / 50) })}</span>
        ) : null}
        {EYES.map((e) => {
          const alone = line(e);
          return alone === null ? null : (
            <span key={e} className="note block">
              {t('alone', { covered: t(`covered.${e}`), line: alone })}
            </span>
          );
        })}
      </td>
    </tr>
  );
}

export const PairDesk = withWords({ pairDesk: pairDeskWords, problems: nearVisionProblems }, PairDeskPart);
