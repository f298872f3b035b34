'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { firstStep, may, mayOpenVisit, stepSlug, VISIT_KINDS, type WearerFile } from '@/core';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import todayWords from '@/i18n/messages/en/today.messages.json';
import wearerWords from '@/i18n/messages/en/wearer.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Frame } from '@/ui/Frame';
import { KeyCap } from '@/ui/marks';
import { useKey } from '../common/keys';
import { Rail } from '../common/Rail';
import { useServer } from '../common/ServerProvider';
import { WearerStrip } from '../common/WearerStrip';
import { Provenance } from './Provenance';

// Opened now and then: they bring their own scripts.
const Contradictions = lazy(() => import('./Contradictions').then((m) => ({ default: m.Contradictions })));
const WearerMargin = lazy(() => import('./WearerMargin').then((m) => ({ default: m.WearerMargin })));
const Visits = lazy(() => import('./Visits').then((m) => ({ default: m.Visits })));
const NewVisit = lazy(() => import('./NewVisit').then((m) => ({ default: m.NewVisit })));
const OutsideFiles = lazy(() => import('./OutsideFiles').then((m) => ({ default: m.OutsideFiles })));
const TriagePanel = lazy(() => import('../common/triage/TriagePanel').then((m) => ({ default: m.TriagePanel })));
const EditWearer = lazy(() => import('./EditWearer').then((m) => ({ default: m.EditWearer })));

/** A wearer: what is worn now and how we know, the visits, the prescriptions. */
function WearerRecord({ file }: { readonly file: WearerFile }) {
  const t = useTranslations('wearer');
  const frame = useTranslations('frame');
  const kinds = useTranslations('today.kind');
  const router = useRouter();
  const { session } = useServer();
  const [panel, setPanel] = useState<'visit' | 'edit' | 'redEye' | 'files' | null>(null);
  const { wearer } = file;
  const openNow = file.visits.find((v) => v.closedAt === null) ?? null;
  const book = async (): Promise<void> => {
    // Fetched when it is asked for.
    const { proposedFor } = await import('./proposedFor');
    router.push(`/diary?for=${wearer.id}&visit=${proposedFor(file, session).kind}`);
  };
  const mayOpen = VISIT_KINDS.some((kind) => mayOpenVisit(session.viewer.roles, kind));
  const mayOrder = may(session.viewer.roles, 'orders') && file.prescriptions.length > 0;
  const reorder = (): void => router.push(`/wearers/${wearer.id}/reorder`);
  const close = (): void => setPanel(null);
  useKey('o', () => (mayOrder ? reorder() : undefined), [mayOrder]);
  useKey(
    'n',
    (event) => {
      if (!mayOpen) return;
      event.preventDefault();
      setPanel('visit');
    },
    [mayOpen],
  );
  const telephone = wearer.telephone ? (
    <div className="strip-cell drop-narrow">
      <div className="label">{t('telephone')}</div>
      <div>{wearer.telephone}</div>
    </div>
  ) : null;
  return (
    <Frame
      rail={<Rail place="wearers" />}
      strip={<WearerStrip wearer={wearer} lines={telephone} />}
      marginWords={{ open: frame('marginOpen'), close: frame('marginClose'), label: frame('margin') }}
      margin={
        <Suspense fallback={null}>
          <WearerMargin file={file} onFiles={() => setPanel('files')} />
        </Suspense>
      }
      bar={
        <>
          <div className="frame-bar-keys">
            {mayOpen ? (
              <span>
                <KeyCap>{'N'}</KeyCap> {t('keyVisit')}
              </span>
            ) : null}
          </div>
          {may(session.viewer.roles, 'wearers') ? (
            <>
              <Button onClick={() => setPanel('redEye')}>{kinds('redEye')}</Button>
              <Button onClick={() => setPanel('edit')}>{t('edit')}</Button>
              <Button onClick={() => void book()}>{t('book')}</Button>
            </>
          ) : null}
          {mayOrder ? (
            <Button keys={['O']} onClick={reorder}>
              {t('reorder')}
            </Button>
          ) : null}
          {openNow ? (
            <Button look="act" onClick={() => router.push(`/visits/${openNow.id}/${stepSlug(firstStep(openNow.kind))}`)}>
              {t('goOn', { kind: kinds(openNow.kind) })}
            </Button>
          ) : mayOpen ? (
            <Button look="act" keys={['N']} onClick={() => setPanel('visit')}>
              {t('newVisit')}
            </Button>
          ) : null}
        </>
      }
    >
      <Provenance file={file} />
      <Suspense fallback={null}>
        <Contradictions file={file} />
      </Suspense>
      <Suspense fallback={null}>
        <Visits file={file} zone={session.practice.timeZone} />
      </Suspense>
      <Suspense fallback={null}>
        {panel === 'visit' ? <NewVisit file={file} onClose={close} /> : panel === 'edit' ? <EditWearer wearer={wearer} onClose={close} /> : null}
        {panel === 'files' ? <OutsideFiles wearer={wearer} onClose={close} /> : null}
        {panel === 'redEye' ? <TriagePanel wearer={wearer} onDone={() => router.refresh()} onClose={close} /> : null}
      </Suspense>
    </Frame>
  );
}

export const WearerPage = withWords({ purposes: purposesWords, today: todayWords, wearer: wearerWords }, WearerRecord);
