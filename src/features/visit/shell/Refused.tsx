'use client';
import { useTranslations } from 'use-intl';
import { allProblems } from '@/i18n/messages/en/allProblems';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useRefusalWords } from '../../common/words';

/** What was refused, in words; a command of any part of a visit may end here, so it brings the words of all. */
function RefusedPart({ problem, onClear }: { readonly problem: Problem; readonly onClear: () => void }) {
  const t = useTranslations('visit');
  const refusal = useRefusalWords();
  return (
    <div className="refusal" role="alert">
      <StateMark state="stop" size={16} />
      <span>{refusal(problem)}</span>
      <Button look="quiet" onClick={onClear}>
        {t('settled')}
      </Button>
    </div>
  );
}

export const Refused = withWords({ problems: allProblems }, RefusedPart);
