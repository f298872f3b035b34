'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { firstStep, stepSlug, type VisitKind, type WearerFile } from '@/core';
import visitKindWords from '@/i18n/messages/en/visitKind.messages.json';
import { formatDay } from '@/i18n/format';
import visitKindProblems from '@/i18n/messages/en/visitKindProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { KindChoice } from '../common/visitKind/KindChoice';
import { problemAt, useProblemWords } from '../common/words';
import { proposedFor } from './proposedFor';

/** Which kind of visit is opened: one is proposed, with its fee and its reason; a person decides. */
function NewVisitPanel({ file, onClose }: { readonly file: WearerFile; readonly onClose: () => void }) {
  const t = useTranslations('visitKind');
  const router = useRouter();
  const { session, command } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const proposal = proposedFor(file, session);
  const begin = async (kind: VisitKind, fee: number | null): Promise<void> => {
    setBusy(true);
    const done = await command('openVisit', { wearerId: file.wearer.id, kind, fee });
    setBusy(false);
    if (done?.ok) router.push(`/visits/${done.value.visitId}/${stepSlug(firstStep(kind))}`);
    else if (done) setProblem(done.error);
  };
  return (
    <Panel open wide onClose={onClose} title={t('newTitle')}>
      <KindChoice proposal={proposal} problem={problem} busy={busy} onChoose={(kind, fee) => void begin(kind, fee)} />
      <Examined file={file} />
    </Panel>
  );
}

/** A full examination somewhere else, which a lens-only annual may rest on. */
function Examined({ file }: { readonly file: WearerFile }) {
  const t = useTranslations('visitKind');
  const router = useRouter();
  const words = useProblemWords();
  const [day, setDay] = useState('');
  const [whom, setWhom] = useState('');
  const { send, problem, busy } = useSending<'recordExamined'>(() => router.refresh());
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!(await send('recordExamined', { wearerId: file.wearer.id, examinedOn: day, byWhom: whom }))) return;
    setDay('');
    setWhom('');
  };
  const wrong = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const known = file.examinedElsewhere;
  return (
    <form className="border-t border-rule mt-3 pt-3" onSubmit={(event) => void submit(event)} data-testid="examined">
      {known ? <p className="pb-2">{t('examinedLine', { day: formatDay(known.examinedOn), whom: known.byWhom })}</p> : null}
      <div className="flex flex-wrap gap-3 items-start">
        <Field
          className="w-[190px]"
          label={t('examined')}
          value={day}
          onValue={setDay}
          hint={t('examinedHint')}
          problem={wrong('examinedOn')}
          autoComplete="off"
        />
        <Field className="w-[220px]" label={t('byWhom')} value={whom} onValue={setWhom} problem={wrong('byWhom')} autoComplete="off" />
        <Button type="submit" className="mt-[18px]" disabled={busy || day.trim() === ''}>
          {t('examinedDo')}
        </Button>
      </div>
    </form>
  );
}

export const NewVisit = withWords({ visitKind: visitKindWords, problems: visitKindProblems }, NewVisitPanel);
