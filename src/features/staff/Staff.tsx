'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import staffProblems from '@/i18n/messages/en/staffProblems.messages.json';
import staffWords from '@/i18n/messages/en/staff.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { AppPage } from '../common/AppPage';
import { StaffPanel, type StaffAct } from './StaffPanel';
import { StaffTable, type Person } from './StaffTable';

/** Who works here and what they may do: added, ended, given a new password by an admin. */
function StaffPage({ staff }: { readonly staff: readonly Person[] }) {
  const t = useTranslations('staff');
  const [act, setAct] = useState<StaffAct | null>(null);
  return (
    <AppPage
      place="staff"
      title={t('title')}
      bar={
        <Button look="act" onClick={() => setAct({ kind: 'add' })}>
          {t('add')}
        </Button>
      }
    >
      <section className="p-6">
        <StaffTable staff={staff} onAct={(kind, who) => setAct({ kind, who })} />
      </section>
      {act ? <StaffPanel act={act} onClose={() => setAct(null)} /> : null}
    </AppPage>
  );
}

export const Staff = withWords({ staff: staffWords, problems: staffProblems }, StaffPage);
