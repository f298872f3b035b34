'use client';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import type { Choosing } from './useChoosing';

/** Eyes apart: which of the two is chosen for, and whether one is left out. */
export function LeadRow({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const eyeWords = useEyeWords();
  const { needs, lead, chosen, draft } = choosing;
  const of = (eye: Eye) =>
    needs[eye] ? (
      <LeadButton
        eye={eye}
        lead={lead}
        name={eyeWords.short(eye)}
        lens={chosen[eye] && `${chosen[eye].family.name} ${formatRefraction(chosen[eye].lens.power)}`}
        onLead={() => draft.set('lead', eye)}
        none={chosen[eye] === null}
        onNone={() => draft.set(`${eye}Family`, chosen[eye] === null ? '' : 'none')}
      />
    ) : null;
  return <SpineRow label={t('chooseFor')} right={of('right')} left={of('left')} />;
}

function LeadButton({
  eye,
  lead,
  name,
  lens,
  onLead,
  none,
  onNone,
}: {
  readonly eye: Eye;
  readonly lead: Eye;
  readonly name: string;
  /** What is chosen for it. */
  readonly lens: string | null;
  readonly onLead: () => void;
  readonly none: boolean;
  readonly onNone: () => void;
}) {
  const t = useTranslations('lens');
  return (
    <div className={`flex flex-wrap gap-x-3 items-center ${eye === 'right' ? 'justify-end' : ''}`}>
      <Button aria-pressed={lead === eye} onClick={onLead} keys={[name]}>
        {lead === eye ? t('choosing', { eye: name }) : t('chooseEye', { eye: name })}
      </Button>
      <button type="button" className="btn btn-quiet" aria-pressed={none} onClick={onNone}>
        {none ? t('fitIt') : t('leaveOut')}
      </button>
      {lens ? (
        <span className="note basis-full" data-testid={`chosen-${eye}`}>
          {lens}
        </span>
      ) : null}
    </div>
  );
}
