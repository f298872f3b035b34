'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatDay } from '@/i18n/format';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import type { FamilyPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** When a family can last be ordered, who is on it, and what replaces it. */
function EndingSection({ page, mayChange }: { readonly page: FamilyPage; readonly mayChange: boolean }) {
  const t = useTranslations('library');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const family = page.versions[0];
  const [open, setOpen] = useState(false);
  const [day, setDay] = useState('');
  const [by, setBy] = useState('');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  if (!family) return null;
  const { lastOrderOn, replacedBy } = family;
  const wearers = new Set(page.use.map((u) => u.wearerId)).size;
  const past = lastOrderOn === null ? 0 : new Set(page.use.filter((u) => u.expiresOn > lastOrderOn).map((u) => u.wearerId)).size;
  const replacement = page.others.find((o) => o.code === replacedBy);
  const save = async (end: boolean): Promise<void> => {
    const done = await command('endFamily', { code: family.code, lastOrderOn: end ? day : null, replacedBy: end && by !== '' ? by : null, reason: reason });
    if (done?.ok) {
      setOpen(false);
      setProblem(null);
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const at = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  return (
    <section className="mt-5" data-testid="ending">
      <h2 className="mb-2">{t('endingTitle')}</h2>
      {lastOrderOn === null ? (
        <p>{t('endingNone')}</p>
      ) : (
        <>
          <Stated state="stop">{t(lastOrderOn < session.today ? 'endedOn' : 'endsOn', { day: formatDay(lastOrderOn) })}</Stated>
          <p className="mt-1">{t('endingUse', { count: wearers, past })}</p>
          {replacement ? <p className="mt-1">{t('endingBy', { family: replacement.name })}</p> : null}
        </>
      )}
      {mayChange ? (
        <Button
          look="quiet"
          onClick={() => {
            setDay(lastOrderOn ?? '');
            setBy(replacedBy ?? '');
            setOpen(true);
          }}
        >
          {t(lastOrderOn === null ? 'endingSet' : 'endingChange')}
        </Button>
      ) : null}
      <Panel open={open} onClose={() => setOpen(false)} title={t('endingPanel', { family: family.name })}>
        <p className="mb-3">{t('endingFollows', { count: wearers })}</p>
        <Field label={t('lastOrder')} value={day} onValue={setDay} problem={at('lastOrderOn')} autoComplete="off" />
        <label className="field block mb-2">
          <span className="field-label">{t('replacedBy')}</span>
          <select className="choice w-full" value={by} onChange={(event) => setBy(event.target.value)}>
            <option value="">{t('nobody')}</option>
            {page.others.map((o) => (
              <option key={o.code} value={o.code}>
                {o.name}
              </option>
            ))}
          </select>
          {at('replacedBy') ? <ProblemLine>{at('replacedBy')}</ProblemLine> : null}
        </label>
        <Field label={t('why')} value={reason} onValue={setReason} problem={at('reason')} maxLength={400} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex justify-end gap-3 mt-3">
          {lastOrderOn === null ? null : <Button onClick={() => void save(false)}>{t('endingBack')}</Button>}
          <Button look="act" onClick={() => void save(true)}>
            {t('save')}
          </Button>
        </div>
      </Panel>
    </section>
  );
}

export const Ending = withWords({ problems: libraryProblems }, EndingSection);
