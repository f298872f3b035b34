'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, kindAsked } from '@/core';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import type { Chosen, Row } from './model';
import type { Choosing } from './useChoosing';

const rowOf = (rows: readonly Row[], chosen: Chosen): Row | undefined => rows.find((r) => r.family.code === chosen.family.code);

/** What each eye asks for, twins among the powers, what leads, and what is not in the drawer. */
export function ChoosingReasons({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const eyeWords = useEyeWords();
  const { needs, rows, chosen, list, first, missing } = choosing;
  const behind = first && list.rows[0] && first !== list.rows[0] ? first : null;
  return (
    <>
      {EYES.map((e) => {
        const need = needs[e];
        return need ? (
          <p key={e} className="mb-3">
            <strong>{t(`kind.${kindAsked(need)}`, { eye: eyeWords.short(e), cylinder: Math.abs(need.cylinder).toFixed(2) })}</strong>
          </p>
        ) : (
          <p key={e} className="mb-3 label">
            {t('eyeNotAsked', { eye: eyeWords.short(e) })}
          </p>
        );
      })}
      {EYES.map((e) =>
        chosen[e] && chosen[e].lens.tiesWithPrevious === false && rowOf(rows, chosen[e])?.best[e][1]?.tiesWithPrevious ? (
          <p key={`tie-${e}`} className="mb-3">
            {t('twin', { eye: eyeWords.short(e), power: formatRefraction(rowOf(rows, chosen[e])?.best[e][1]?.power ?? chosen[e].lens.power) })}
          </p>
        ) : null,
      )}
      {behind ? (
        <p className="mb-3" data-testid="behind">
          <Stated state="watch">
            {t('leads', { place: list.rows.indexOf(behind) + 1, behind: behind.behind.toFixed(2) })} {t('leadsFirst')}
          </Stated>
        </p>
      ) : null}
      {missing.map((e) => (
        <p key={`m-${e}`} className="mb-3">
          <Stated state="stop">{t('noneInDrawer', { eye: eyeWords.short(e) })}</Stated>
        </p>
      ))}
    </>
  );
}
