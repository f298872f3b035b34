'use client';
import { useTranslations } from 'use-intl';
import { formatRefraction } from '@/core';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import { handKey } from './model';
import type { Choosing } from './useChoosing';

/** A lens that the drawer does not know of, but that somebody holds: what its blister says. */
export function InHand({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { problem } = useVisit();
  const { draft, chosen, missing } = choosing;
  return missing.map((eye) => {
    const lens = chosen[eye];
    if (!lens) return null;
    const at = (field: string): string | null => {
      const found = problemAt(problem, eye, 'inHand', field);
      return found ? words(found.code, found.data) : null;
    };
    const field = (part: 'Lot' | 'Expires', name: string) => (
      <Field
        label={t(`hand${part}`, { eye: eyeWords.short(eye) })}
        value={draft.body[handKey(eye, part, lens)] ?? ''}
        onValue={(value) => draft.set(handKey(eye, part, lens), value)}
        problem={at(name)}
        autoComplete="off"
        maxLength={40}
      />
    );
    return (
      <div key={eye} className="px-6 py-3 max-w-[720px]" data-testid={`in-hand-${eye}`}>
        <Stated state="watch">{t('handTitle', { eye: eyeWords.short(eye), lens: `${lens.family.name} ${formatRefraction(lens.lens.power)}` })}</Stated>
        <div className="grid grid-cols-2 gap-4 mt-2">
          {field('Lot', 'lot')}
          {field('Expires', 'expiresOn')}
        </div>
      </div>
    );
  });
}
