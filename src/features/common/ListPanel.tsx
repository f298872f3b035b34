'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import listWords from '@/i18n/messages/en/list.messages.json';
import listProblems from '@/i18n/messages/en/listProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Result } from '@/lib/outcome';
import { LIST_MAX_BYTES, TRIAL_COLUMNS, TRIALS_NEED, WEARER_COLUMNS, WEARERS_NEED } from '@/schema/listColumns';
import type { ListRead } from '@/services/list/read';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useProblemWords, useRefusalWords } from './words';

interface ListPanelProps {
  readonly of: 'wearers' | 'trials';
  /** Told once the list was taken in. */
  readonly onTaken: () => void;
  readonly onClose: () => void;
}

const COLUMNS = {
  wearers: { all: WEARER_COLUMNS, needed: WEARERS_NEED },
  trials: { all: TRIAL_COLUMNS, needed: TRIALS_NEED },
} as const;

/** A list as a file: first looked at, with what is wrong line by line; then taken in. */
function ListPanelBody({ of, onTaken, onClose }: ListPanelProps) {
  const t = useTranslations('list');
  const { all, needed } = COLUMNS[of];
  const missing = (c: string): boolean => !needed.some((n) => n === c);
  const refusal = useRefusalWords();
  const [file, setFile] = useState<File | null>(null);
  const [read, setRead] = useState<ListRead | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async (chosen: File, take: boolean): Promise<void> => {
    if (chosen.size > LIST_MAX_BYTES) {
      setProblem(
        refusal({
          kind: 'invalid',
          fields: [{ path: ['file'], code: 'fileTooLarge', data: { mb: Math.round(chosen.size / 1048576), max: LIST_MAX_BYTES / 1048576 } }],
        }),
      );
      return;
    }
    setBusy(true);
    setProblem(null);
    try {
      const response = await fetch(`/api/uploads/list?of=${of}${take ? '&take=1' : ''}`, {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: chosen,
      });
      const result = (await response.json()) as Result<ListRead>;
      if (result.ok) {
        setRead(result.value);
        if (result.value.taken) onTaken();
      } else setProblem(refusal(result.error));
    } catch {
      // The file may have changed on the disk, or the server be away: nothing was taken in.
      setProblem(t('away'));
    } finally {
      setBusy(false);
    }
  };
  return (
    <Panel open wide onClose={onClose} title={t(`title.${of}`)}>
      <p>{t(`line.${of}`)}</p>
      <p className="note pt-1">{t('needed', { columns: needed.join(', ') })}</p>
      <p className="note pb-2 break-words">{t('others', { columns: all.filter(missing).join(', ') })}</p>
      <input
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        aria-label={t('file')}
        className="file-input mb-2 block max-w-full"
        onChange={(event) => {
          const chosen = event.target.files?.[0] ?? null;
          setFile(chosen);
          setRead(null);
          if (chosen) void send(chosen, false);
        }}
      />
      {problem ? <ProblemLine>{problem}</ProblemLine> : null}
      <div aria-live="polite">{read ? <Findings read={read} /> : null}</div>
      <div className="flex gap-3 justify-end pt-2">
        <Button onClick={onClose}>{t('close')}</Button>
        {read && !read.taken && file ? (
          <Button look="act" disabled={busy || read.good === 0} onClick={() => void send(file, true)}>
            {t(`take.${of}`, { count: read.good })}
          </Button>
        ) : null}
      </div>
    </Panel>
  );
}

function Findings({ read }: { readonly read: ListRead }) {
  const t = useTranslations('list');
  const words = useProblemWords();
  return (
    <>
      <p className="value py-1" data-testid="list-read">
        {read.taken ? (
          <Stated state="ok">{t('taken', { count: read.good })}</Stated>
        ) : (
          t('found', { lines: read.lines, good: read.good, left: read.lines - read.good })
        )}
      </p>
      {read.unknown.length > 0 ? <p className="note">{t('unknown', { columns: read.unknown.join(', ') })}</p> : null}
      {read.faults.length > 0 ? (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">{t('lineNumber')}</th>
              <th scope="col">{t('column')}</th>
              <th scope="col">{t('fault')}</th>
            </tr>
          </thead>
          <tbody>
            {read.faults.map((fault, i) => (
              <tr key={i}>
                <td className="font-mono">{fault.line}</td>
                <td className="font-mono">{fault.column}</td>
                <td>
                  <Stated state={fault.gravity}>{words(fault.code, fault.data)}</Stated>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {read.moreFaults > 0 ? <p className="note">{t('moreFaults', { count: read.moreFaults })}</p> : null}
    </>
  );
}

export const ListPanel = withWords({ list: listWords, problems: listProblems }, ListPanelBody);
