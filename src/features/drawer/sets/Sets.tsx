'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SetLens } from '@/core';
import problems from '@/i18n/messages/en/setProblems.messages.json';
import setReadyWords from '@/i18n/messages/en/setReady.messages.json';
import setsWords from '@/i18n/messages/en/sets.messages.json';
import { withWords } from '@/i18n/withWords';
import type { SetsPage } from '@/services/diagnosticSet/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { AppPage } from '../../common/AppPage';
import { useSending } from '../../common/useSending';
import { useRefusalWords } from '../../common/words';
import { SetTable } from './SetTable';
import { useReadyWords } from '../../common/setReady';

const AddSetLens = dynamic(() => import('./AddSetLens').then((m) => m.AddSetLens), { ssr: false });
const SetLensPanel = dynamic(() => import('./SetLensPanel').then((m) => m.SetLensPanel));

/** The practice's diagnostic sets: which lens is ready, which waits, and one press that disinfects all that wait. */
function SetsBody({ data }: { readonly data: Omit<SetsPage, 'session'> }) {
  const t = useTranslations('sets');
  const router = useRouter();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useSending<'disinfectLenses' | 'endSetLens' | 'addSetLenses'>(() => router.refresh());
  const ready = useReadyWords();
  const [open, setOpen] = useState<string | null>(null);
  const { lenses } = data;
  const waiting = lenses.filter((l) => ready(l).state === 'used');
  const codes = [...new Set(lenses.map((l) => l.setCode))];
  const disinfect = (of: readonly SetLens[]): void => void send('disinfectLenses', { diagnosticLensIds: of.map((l) => l.id) });
  const shown = lenses.find((l) => l.id === open);
  return (
    <AppPage
      place="drawer"
      title={t('title')}
      marginOpen={t('add')}
      margin={<AddSetLens libraryTag={data.libraryTag} lenses={lenses} />}
      bar={
        <>
          <Link className="btn" href="/drawer" prefetch={false}>
            {t('toDrawer')}
          </Link>
          <Button look="act" disabled={busy || waiting.length === 0} onClick={() => disinfect(waiting)}>
            {waiting.length === 0 ? t('noneWaits') : t('disinfectAll', { count: waiting.length })}
          </Button>
        </>
      }
    >
      {problem ? (
        <div className="px-6 pt-3">
          <ProblemLine>{refusal(problem)}</ProblemLine>
        </div>
      ) : null}
      {codes.length === 0 ? <p className="p-6 max-w-[560px]">{t('empty')}</p> : null}
      {codes.map((code) => (
        <SetTable key={code} lenses={lenses.filter((l) => l.setCode === code)} busy={busy} onDisinfect={(lens) => disinfect([lens])} onOpen={setOpen} />
      ))}
      {shown ? (
        <SetLensPanel lens={shown} busy={busy} onEnd={(why) => void send('endSetLens', { diagnosticLensId: shown.id, why })} onClose={() => setOpen(null)} />
      ) : null}
    </AppPage>
  );
}

export const Sets = withWords({ sets: setsWords, setReady: setReadyWords, problems }, SetsBody);
