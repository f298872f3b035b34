'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useKey } from '../common/keys';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import type { WearerListRow } from '@/db/wearer';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { WearerForm, type WearerInput } from './WearerForm';
import wearerFormWords from '@/i18n/messages/en/wearerForm.messages.json';
import wearersWords from '@/i18n/messages/en/wearers.messages.json';
import { withWords } from '@/i18n/withWords';

/** All wearers, found while typing. */
function WearersPage({ initial }: { readonly initial: readonly WearerListRow[] }) {
  const t = useTranslations('wearers');
  const router = useRouter();
  const { command, look, session } = useServer();
  const [search, setSearch] = useState('');
  const [rows, setRows] = useState(initial);
  const [adding, setAdding] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const asked = useRef(0);
  const mayAdd = may(session.viewer.roles, 'wearers');
  // By its place on the board and by what it writes: not every layout has it on the same key.
  useKey(['slash', '/'], (event) => {
    event.preventDefault();
    document.getElementById('find-wearer')?.focus();
  });
  useKey(
    'n',
    (event) => {
      if (mayAdd) {
        event.preventDefault();
        setAdding(true);
      }
    },
    [mayAdd],
  );
  useEffect(() => {
    const turn = ++asked.current;
    const timer = setTimeout(() => {
      void look('searchWearers', { search }).then((found) => {
        if (found?.ok && turn === asked.current) setRows(found.value.wearers);
      });
    }, 150);
    return () => clearTimeout(timer);
  }, [search, look]);
  const add = async (input: WearerInput, sameNameIsAnother = false): Promise<void> => {
    setBusy(true);
    const done = await command('createWearer', { ...input, sameNameIsAnother });
    setBusy(false);
    if (done?.ok) router.push(`/wearers/${done.value.wearerId}`);
    else if (done) setProblem(done.error);
  };
  return (
    <AppPage
      place="wearers"
      title={t('title')}
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'/'}</KeyCap> {t('keyFind')}
            </span>
            <span>
              <KeyCap>{'N'}</KeyCap> {t('keyNew')}
            </span>
          </div>
          {mayAdd && !adding ? (
            <Button look="act" keys={['N']} onClick={() => setAdding(true)}>
              {t('add')}
            </Button>
          ) : null}
        </>
      }
    >
      {adding ? (
        <section className="p-6">
          <h2 className="power mb-4">{t('newTitle')}</h2>
          <WearerForm
            problem={problem}
            busy={busy}
            doWords={t('addDo')}
            onSubmit={(input) => void add(input)}
            again={(input) => void add(input, true)}
            onCancel={() => {
              setAdding(false);
              setProblem(null);
            }}
          />
        </section>
      ) : (
        <section className="p-6">
          <Field id="find-wearer" label={t('find')} value={search} onValue={setSearch} autoComplete="off" className="max-w-[420px]" />
          {rows.length === 0 ? <p className="py-6">{search ? t('noneFound', { search }) : t('empty')}</p> : null}
          <table className="ledger">
            <thead>
              <tr>
                <th>{t('record')}</th>
                <th>{t('name')}</th>
                <th>{t('birth')}</th>
                <th className="drop-narrow">{t('last')}</th>
                <th>{t('state')}</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.id}>
                  <td className="font-mono">{formatRecord(row.recordNumber)}</td>
                  <td>
                    <Link href={`/wearers/${row.id}`} prefetch={false} className="value">
                      {row.name}
                    </Link>
                    <div className="label">{row.occupation}</div>
                  </td>
                  <td>{formatDay(row.birthDate)}</td>
                  <td className="drop-narrow">{row.lastVisitAt ? formatMoment(row.lastVisitAt, session.practice.timeZone) : t('never')}</td>
                  <td>
                    {row.openVisitId ? (
                      <Link href={`/visits/${row.openVisitId}/history`} prefetch={false}>
                        <Stated state="watch">{t('open')}</Stated>
                      </Link>
                    ) : null}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </AppPage>
  );
}

export const Wearers = withWords({ wearerForm: wearerFormWords, wearers: wearersWords }, WearersPage);
