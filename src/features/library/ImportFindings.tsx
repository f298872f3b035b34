'use client';
import { useTranslations } from 'use-intl';
import type { ImportPage } from '@/services/catalogueImport/queries';
import { Stated, StateMark } from '@/ui/marks';
import { useProblemWords } from '../common/words';

/** Where a file stands on its way in. */
export function ImportState({ file }: { readonly file: ImportPage['file'] }) {
  const t = useTranslations('library');
  const words = useProblemWords();
  const { notes } = file;
  const code = typeof notes.code === 'string' ? notes.code : null;
  return (
    <p aria-live="polite" className="my-2" data-testid="import-state">
      {file.state === 'taken' ? (
        <Stated state="ok">{t('taken', { count: Number(notes.taken ?? 0) })}</Stated>
      ) : file.state === 'broken' ? (
        <Stated state="stop">
          {t('broken')} {code ? words(code, notes) : ''}
        </Stated>
      ) : file.state === 'cancelled' ? (
        <Stated state="watch">{t('cancelled')}</Stated>
      ) : (
        t(`importState.${file.state}`)
      )}
    </p>
  );
}

/** Every fault of a file, by line. */
export function ImportFaults({ page }: { readonly page: ImportPage }) {
  const t = useTranslations('library');
  const words = useProblemWords();
  const { faults, faultCounts } = page;
  return (
    <section className="px-6 pb-4 max-w-[860px]">
      <h2 className="settings-group">{t('faults')}</h2>
      <table className="ledger" data-testid="faults">
        <thead>
          <tr>
            <th scope="col">{t('line')}</th>
            <th scope="col">{t('fault')}</th>
          </tr>
        </thead>
        <tbody>
          {faults.map((f) => (
            <tr key={f.sequence}>
              <td className="font-mono">{f.line}</td>
              <td>
                <span className="flex gap-2 items-baseline">
                  <StateMark state={f.gravity} />
                  <span>
                    {words(f.code, f.data)}
                    {f.data.column ? <span className="note font-mono"> {f.data.column}</span> : null}
                  </span>
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {faultCounts.stop + faultCounts.watch > faults.length ? (
        <p className="note">{t('moreFaults', { count: faultCounts.stop + faultCounts.watch - faults.length })}</p>
      ) : null}
    </section>
  );
}

/** The families a file names, and what would become of each; of very many those with faults first. */
export function ImportedFamilies({ families, of }: { readonly families: ImportPage['families']; readonly of: number }) {
  const t = useTranslations('library');
  return (
    <section className="px-6 pb-6 max-w-[860px]">
      <h2 className="settings-group">{t('familiesInFile')}</h2>
      <table className="ledger">
        <tbody>
          {families.map((f) => (
            <tr key={f.code}>
              <th scope="row">{f.name || f.code}</th>
              <td>{t('lines', { count: f.lineCount })}</td>
              <td>{f.faultCount > 0 ? <Stated state="stop">{t('staysOut', { count: f.faultCount })}</Stated> : t(`fileChange.${f.change}`)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {of > families.length ? <p className="note">{t('moreFamilies', { count: of - families.length })}</p> : null}
    </section>
  );
}
