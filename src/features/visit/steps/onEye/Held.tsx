'use client';
import { useTranslations } from 'use-intl';
import { EYES, HELD_ANSWERS } from '@/core';
import { EyeBadge } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../common/eyeWords';
import { HELD_AT, HELD_BY, type PairPage } from './usePair';

/** A quarter held before each eye with both open: plus pushed at far, then near. */
export function Held({ page }: { readonly page: PairPage }) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  const { draft, blocked, farTask, nearTask } = page;
  return (
    <details>
      <summary>{t('held')}</summary>
      <p className="note py-1">{t('heldNote')}</p>
      <table className="table">
        <thead>
          <tr>
            <th scope="col">{t('heldLens')}</th>
            {HELD_AT.map((at) => (
              <th key={at} scope="col">
                {t(`tasks.${(at === 'Far' ? farTask : nearTask).task}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {EYES.flatMap((e) =>
            HELD_BY.map(([sign, by]) => (
              <tr key={`${e}${sign}`}>
                <th scope="row">
                  <EyeBadge eye={e} /> {by > 0 ? '+0.25' : '−0.25'}
                </th>
                {HELD_AT.map((at) => (
                  <td key={at}>
                    <Segment
                      label={t('heldOf', {
                        eye: eyeWords.name(e),
                        by: by > 0 ? '+0.25' : '−0.25',
                        task: t(`tasks.${(at === 'Far' ? farTask : nearTask).task}`),
                      })}
                      values={HELD_ANSWERS}
                      value={draft.body[`held${e}${sign}${at}`] ?? null}
                      word={(a) => t(`answer.${a}`)}
                      onChoose={(a) => draft.set(`held${e}${sign}${at}`, a)}
                      disabled={blocked}
                    />
                  </td>
                ))}
              </tr>
            )),
          )}
        </tbody>
      </table>
    </details>
  );
}
