'use client';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { Field } from '@/ui/Field';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import { handKey } from './model';
import type { Choosing } from './useChoosing';

/** A lens that the drawer does not know of, but that somebody holds: what its blister says. */
export function InHand({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  if (choosing.missing.length === 0) return null;
  const of = (eye: Eye) => (choosing.missing.includes(eye) ? <Blister eye={eye} choosing={choosing} /> : null);
  return <SpineRow label={t('handTitle')} note={t('handNote')} right={of('right')} left={of('left')} />;
}

function Blister({ eye, choosing: { draft, chosen } }: { readonly eye: Eye; readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { problem } = useVisit();
  const lens = chosen[eye];
  if (!lens) return null;
  const field = (part: 'Lot' | 'Expires', name: string) => {
    const found = problemAt(problem, eye, 'inHand', name);
    return (
      <Field
        className="flex-1 min-w-[104px]"
        label={t(`hand${part}`, { eye: eyeWords.short(eye) })}
        value={draft.body[handKey(eye, part, lens)] ?? ''}
        onValue={(value) => draft.set(handKey(eye, part, lens), value)}
        problem={found ? words(found.code, found.data) : null}
        autoComplete="off"
        maxLength={40}
      />
    );
  };
  return (
    <div className="flex gap-3 w-full max-w-[330px] text-left" data-testid={`in-hand-${eye}`}>
      {field('Lot', 'lot')}
      {field('Expires', 'expiresOn')}
    </div>
  );
}
