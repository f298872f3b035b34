'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, formatRefraction } from '@/core';
import { formatDay } from '@/i18n/format';
import drawerMoreWords from '@/i18n/messages/en/drawerMore.messages.json';
import drawerMoreProblems from '@/i18n/messages/en/drawerMoreProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { DrawerPage } from '@/services/trialStock/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { numberOf } from './model';
import { useDrawerCommand } from './useDrawerCommand';

type Loan = DrawerPage['loans'][number];

/** Trial lenses that somebody else has, until they come back or are written off. */
function LoanList({ loans }: { readonly loans: readonly Loan[] }) {
  const t = useTranslations('drawerMore');
  return (
    <section className="px-6 pb-3" data-testid="loans">
      <h2 className="settings-group">{t('loansTitle')}</h2>
      <ul>
        {loans.map((loan) => (
          <LoanLine key={loan.id} loan={loan} />
        ))}
      </ul>
    </section>
  );
}

function LoanLine({ loan }: { readonly loan: Loan }) {
  const t = useTranslations('drawerMore');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const { send, problem, busy } = useDrawerCommand();
  const [returned, setReturned] = useState(String(loan.count));
  const { dueOn } = loan;
  const found = problemAt(problem, 'returned');
  const power = formatRefraction({ sphere: loan.sphereD, cylinder: loan.cylinderD, axis: loan.axisDeg });
  return (
    <li className="flex flex-wrap gap-x-4 items-center border-t border-rule py-1">
      <div className="grow basis-[380px] flex flex-wrap gap-x-4">
        <span className="value">{`${loan.familyName} ${power}`}</span>
        <span>{t('loanLine', { count: loan.count, lot: loan.lot, to: loan.lentTo, day: formatDay(dayIn(loan.lentAt, session.practice.timeZone)) })}</span>
        {dueOn === null ? null : (
          <Stated state={dueOn < session.today ? 'watch' : 'ok'}>{t(dueOn < session.today ? 'loanLate' : 'loanDue', { day: formatDay(dueOn) })}</Stated>
        )}
      </div>
      <Field
        className="w-40"
        label={t('loanBack')}
        value={returned}
        onValue={setReturned}
        problem={found ? words(found.code, found.data) : null}
        inputMode="numeric"
        mono
      />
      <Button disabled={busy} onClick={() => void send('endTrialLoan', { loanId: loan.id, returned: numberOf(returned) })}>
        {t('loanEnd')}
      </Button>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </li>
  );
}

export const Loans = withWords({ drawerMore: drawerMoreWords, problems: drawerMoreProblems }, LoanList);
