'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Problem } from '@/lib/outcome';
import type { ImportPage } from '@/services/catalogueImport/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { useRefusalWords } from '../common/words';
import { ImportedFamilies, ImportFaults, ImportState } from './ImportFindings';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import { withWords } from '@/i18n/withWords';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';

const BUSY = ['waiting', 'checking', 'takeAsked', 'taking'];
const LOOK_EVERY_MS = 700;

/** A catalogue file on its way in: how far it is, every fault by line, what would be taken and what left. Nothing changes before it is said. */
function ImportFilePage({ initial }: { readonly initial: ImportPage }) {
  const t = useTranslations('library');
  const refusal = useRefusalWords();
  const { command, query, poll, session } = useServer();
  const [page, setPage] = useState(initial);
  const [startsOn, setStartsOn] = useState(session.today);
  const [problem, setProblem] = useState<Problem | null>(null);
  const { file, families, counts, faults, faultCounts } = page;
  const busy = BUSY.includes(file.state);
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => {
      void poll('readImport', { importId: file.id }).then((fresh) => (fresh?.ok ? setPage(fresh.value) : undefined));
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [busy, file.id, poll]);
  const look = async (): Promise<void> => {
    const fresh = await query('readImport', { importId: file.id });
    if (fresh?.ok) setPage(fresh.value);
  };
  const act = async (ask: 'take' | 'cancel'): Promise<void> => {
    const done = ask === 'take' ? await command('takeImport', { importId: file.id, startsOn }) : await command('cancelImport', { importId: file.id });
    setProblem(done && !done.ok ? done.error : null);
    await look();
  };
  const share = file.rowsTotal > 0 ? Math.round((100 * file.rowsDone) / file.rowsTotal) : 0;
  const notes = file.notes;
  return (
    <AppPage
      place="library"
      title={t('importTitle')}
      bar={
        <>
          <div className="frame-bar-keys">
            <Link className="btn btn-plain" href="/library" prefetch={false}>
              {t('toLibrary')}
            </Link>
          </div>
          {faultCounts.stop + faultCounts.watch > 0 ? (
            <a className="btn btn-plain" href={`/api/catalogue/faults/${file.id}`} download>
              {t('saveFaults', { count: faultCounts.stop + faultCounts.watch })}
            </a>
          ) : null}
          {busy || file.state === 'checked' ? <Button onClick={() => void act('cancel')}>{t(busy ? 'cancel' : 'drop')}</Button> : null}
          {file.state === 'checked' && counts.take.families > 0 ? (
            <Button look="act" data-enter="true" onClick={() => void act('take')}>
              {counts.left > 0 ? t('takeLeave', { ...counts.take, left: counts.left }) : t('take', counts.take)}
            </Button>
          ) : null}
        </>
      }
    >
      <div className="px-6 py-4 max-w-[860px]" data-testid="import-file">
        <p className="font-mono break-all">{file.fileName}</p>
        <ImportState file={file} />
        {busy ? (
          <div className="my-3">
            <progress className="w-full" max={100} value={share} aria-label={t('progress')} />
            <p className="note">{t('progressLine', { done: file.rowsDone, total: file.rowsTotal })}</p>
          </div>
        ) : null}
        {file.state === 'checked' ? (
          <>
            <p className="mb-2">{t('nothingYet')}</p>
            <p className="flex flex-wrap gap-4 mb-3">
              <Stated state="ok">{t('countTake', counts.take)}</Stated>
              <Stated state="watch">{t('countWatch', { count: faultCounts.watch })}</Stated>
              <Stated state="stop">{t('countStop', { count: faultCounts.stop, families: counts.left })}</Stated>
              {counts.same > 0 ? <span>{t('countSame', { count: counts.same })}</span> : null}
            </p>
            <p className="note mb-3">
              {t('readAs', { encoding: String(notes.encoding ?? ''), delimiter: String(notes.delimiter ?? '') })}{' '}
              {notes.unknown ? t('unknownColumns', { columns: String(notes.unknown) }) : ''}
            </p>
            {counts.take.families > 0 ? (
              <Field label={t('startsOn')} value={startsOn} onValue={setStartsOn} className="max-w-[220px]" hint={t('startsHint')} />
            ) : (
              <p>{t('nothingToTake')}</p>
            )}
          </>
        ) : null}
        {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      </div>
      {file.state !== 'broken' && faults.length > 0 ? <ImportFaults page={page} /> : null}
      {families.length > 0 && file.state !== 'broken' ? <ImportedFamilies families={families} of={counts.take.families + counts.left + counts.same} /> : null}
    </AppPage>
  );
}

export const ImportFile = withWords({ problems: libraryProblems, library: libraryWords }, ImportFilePage);
