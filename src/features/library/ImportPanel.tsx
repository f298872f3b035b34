'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { formatMoment } from '@/i18n/format';
import type { Result } from '@/lib/outcome';
import type { LibraryPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';

/** Looked at here before it is sent. */
const MAX_BYTES = 32 * 1024 * 1024;

/** A catalogue file is brought in here; what was brought in before stands below. */
export function ImportPanel({ imports, mayChange }: { readonly imports: LibraryPage['imports']; readonly mayChange: boolean }) {
  const t = useTranslations('library');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { session } = useServer();
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
    <section data-testid="import">
      <h2 className="mb-2">{t('importTitle')}</h2>
      {mayChange ? (
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
      ) : (
        <p className="label mb-3">{t('importAdmin')}</p>
      )}
      <p className="note mt-3">{t('importHeader')}</p>
      {imports.length > 0 ? <h2 className="mt-5 mb-2">{t('importsBefore')}</h2> : null}
      {imports.map((i) => (
        <div key={i.id} className="border-t border-rule py-2">
          {mayChange ? (
            <Link className="underline break-all" href={`/library/import/${i.id}`} prefetch={false}>
              {i.fileName}
            </Link>
          ) : (
            <span className="break-all">{i.fileName}</span>
          )}
          <span className="block note">
            {t(`importState.${i.state}`)} · {t('versionBy', { name: i.createdByName, moment: formatMoment(i.createdAt, session.practice.timeZone) })}
          </span>
        </div>
      ))}
    </section>
  );
}
