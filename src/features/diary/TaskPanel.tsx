'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { parseDay, TASK_KINDS, type TaskKind } from '@/core';
import { formatDay } from '@/i18n/format';
import type { TaskRow } from '@/db/task';
import type { Bookable } from '@/services/appointment/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { Choice } from './Choice';
import { useDiaryCommand } from './useDiaryCommand';

/** A task that is made, of nobody or of a wearer; or one that gets another day or another person. */
export type TaskAct =
  { readonly kind: 'add'; readonly wearer?: { readonly id: string; readonly name: string } } | { readonly kind: 'change'; readonly task: TaskRow };

export function TaskPanel({
  act,
  staff,
  onDone,
  onClose,
}: {
  readonly act: TaskAct;
  readonly staff: readonly Bookable[];
  readonly onDone: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('tasks');
  const { session } = useServer();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDiaryCommand(onDone);
  const task = act.kind === 'change' ? act.task : null;
  const [kind, setKind] = useState<TaskKind>('call');
  const [text, setText] = useState('');
  const [dueOn, setDueOn] = useState(task?.dueOn ?? session.today);
  const [assignedTo, setAssignedTo] = useState(task?.assignedTo ?? '');
  const [note, setNote] = useState('');
  const at = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const read = parseDay(dueOn);
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const common = { dueOn, assignedTo: assignedTo === '' ? null : assignedTo };
    const done =
      act.kind === 'add'
        ? await send('addTask', { kind, text, wearerId: act.wearer?.id ?? null, ...common })
        : await send('changeTask', { taskId: act.task.id, version: act.task.version, note, ...common });
    if (done) onClose();
  };
  return (
    <Panel open onClose={onClose} title={act.kind === 'change' ? t('changeTitle') : act.wearer ? t('addTitleFor', { name: act.wearer.name }) : t('addTitle')}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2">
        {act.kind === 'add' ? (
          <>
            <Segment label={t('kind')} values={TASK_KINDS} value={kind} word={(k) => t(`kinds.${k}`)} onChoose={setKind} />
            <Field label={t('text')} value={text} onValue={setText} problem={at('text')} autoFocus autoComplete="off" />
          </>
        ) : (
          <Field label={t('note')} value={note} onValue={setNote} problem={at('note')} autoComplete="off" />
        )}
        <Field
          label={t('day')}
          value={dueOn}
          onValue={setDueOn}
          problem={at('dueOn')}
          hint={read.ok ? formatDay(read.value) : t('dayHint')}
          autoComplete="off"
        />
        <Choice label={t('who')} none={t('anybody')} of={staff} value={assignedTo} onValue={setAssignedTo} problem={at('assignedTo')} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="act" type="submit" disabled={busy}>
            {act.kind === 'add' ? t('addDo') : t('changeDo')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}
