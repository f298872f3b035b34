'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Result } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { useRefusalWords } from '../common/words';

/** Looked at here before it is sent. */
const MAX_BYTES = 32 * 1024 * 1024;

/** A catalogue file is put by here, to be checked. */
function Form() {
  const t = useTranslations('library');
  const refusal = useRefusalWords();
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!file || sending) return;
    if (file.size > MAX_BYTES) {
      const data = { mb: Math.round(file.size / 1048576), max: MAX_BYTES / 1048576 };
      setProblem(refusal({ kind: 'invalid', fields: [{ path: ['file'], code: 'fileTooLarge', data }] }));
      return;
    }
    setSending(true);
    setProblem(null);
    try {
      const response = await fetch(`/api/uploads/catalogue?name=${encodeURIComponent(file.name)}`, {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: file,
      });
      const result = (await response.json()) as Result<{ importId: string }>;
      if (result.ok) router.push(`/library/import/${result.value.importId}`);
      else setProblem(refusal(result.error));
    } catch {
      setProblem(t('away'));
    } finally {
      setSending(false);
    }
  };
  return (
    <form onSubmit={(event) => void send(event)}>
      <p className="mb-3">{t('importLine')}</p>
      <input
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        aria-label={t('importFile')}
        className="file-input mb-3 block max-w-full"
        onChange={(event) => {
          setProblem(null);
          setFile(event.target.files?.[0] ?? null);
        }}
      />
      <Button type="submit" disabled={!file || sending}>
        {sending ? t('importSending') : t('importGo')}
      </Button>
      {problem ? <ProblemLine>{problem}</ProblemLine> : null}
    </form>
  );
}

export const ImportForm = withWords({ problems: libraryProblems }, Form);
