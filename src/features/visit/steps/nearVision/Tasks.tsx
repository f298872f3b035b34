'use client';
import { useTranslations } from 'use-intl';
import { demandOf, NEAR_TASK_IDS, usualCm, type NearTask } from '@/core';
import { NearNumber } from './NearField';
import type { NearVision } from './useNearVision';

interface Of {
  readonly page: NearVision;
}
/** What is to be seen, at the wearer's own distances, with what each asks in dioptres. */
export function Tasks({ page }: Of) {
  const t = useTranslations('nearVision');
  return (
    <section className="px-6 py-4 border-b border-rule" aria-label={t('tasksTitle')}>
      <h2>{t('tasksTitle')}</h2>
      <p className="note mb-3">{t('tasksNote')}</p>
      <ul className="grid gap-x-4 gap-y-1 [grid-template-columns:repeat(auto-fill,minmax(200px,1fr))]">
        {NEAR_TASK_IDS.map((task) => (
          <Task key={task} task={task} page={page} />
        ))}
      </ul>
    </section>
  );
}

function Task({ task, page }: Of & { readonly task: NearTask }) {
  const t = useTranslations('nearVision');
  const has = page.near.tasks.find((one) => one.task === task);
  return (
    <li className="flex gap-2 items-start min-h-[60px]">
      <div className="segment">
        <button
          type="button"
          className="w-[104px]"
          data-state={has ? 'on' : 'off'}
          aria-pressed={has !== undefined}
          disabled={page.blocked}
          onClick={() => page.keep(task, has ? 0 : usualCm(task))}
        >
          {t(`task.${task}`)}
        </button>
      </div>
      {has ? (
        <NearNumber
          page={page}
          sign={task}
          value={has.cm}
          label={t('cm', { task: t(`task.${task}`) })}
          hideLabel
          className="w-[76px]"
          hint={<span data-testid={`demand-${task}`}>{demandOf(has.cm) === 0 ? t('far') : t('demand', { demand: demandOf(has.cm).toFixed(2) })}</span>}
        />
      ) : null}
    </li>
  );
}
