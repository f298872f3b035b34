'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { dayIn, EYES, type ReorderOutcome } from '@/core';
import { formatDay } from '@/i18n/format';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import reorderProblems from '@/i18n/messages/en/reorderProblems.messages.json';
import reorderWords from '@/i18n/messages/en/reorder.messages.json';
import supplyProblems from '@/i18n/messages/en/supplyProblems.messages.json';
import visitProblems from '@/i18n/messages/en/visitProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { ReorderPage } from '@/services/reorder/queries';
import { Button } from '@/ui/Button';
import { Frame } from '@/ui/Frame';
import { KeyCap, Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { useKey } from '../common/keys';
import { OnceAlive } from '../common/OnceAlive';
import { useEyeWords } from '../common/eyeWords';
import { Rail } from '../common/Rail';
import { useServer } from '../common/ServerProvider';
import { WearerStrip } from '../common/WearerStrip';
import { WorkingProvider } from '../common/Working';
import { useRefusalWords } from '../common/words';
import { Asked } from './Asked';
import { Offers } from './Offers';
import { ReorderMargin } from './ReorderMargin';
import { Supply } from './Supply';
import { Runways } from './Runways';
import { powerOf, useReorder, type ReorderPageState } from './useReorder';
import { useReorderWorking } from './useReorderWorking';

const TriagePanel = lazy(() => import('../common/triage/TriagePanel').then((m) => ({ default: m.TriagePanel })));
const LogLoss = lazy(() => import('./LogLoss').then((m) => ({ default: m.LogLoss })));
const Bridge = lazy(() => import('./Bridge').then((m) => ({ default: m.Bridge })));
const CareWarning = lazy(() => import('../common/CareWarning').then((m) => ({ default: m.CareWarning })));
const OldBoxes = lazy(() => import('../common/orderStory/OldBoxes').then((m) => ({ default: m.OldBoxes })));
const EndCall = lazy(() => import('./EndCall').then((m) => ({ default: m.EndCall })));

export interface ReorderProps {
  readonly data: Omit<ReorderPage, 'session'>;
}

type PanelOpen = 'redEye' | 'loss' | Exclude<ReorderOutcome, 'ordered'> | null;

/** Lenses ordered on the telephone: what the wearer has, what is asked first, what is offered, and the order. */
function ReorderBody({ data }: ReorderProps) {
  const t = useTranslations('reorder');
  const frame = useTranslations('frame');
  const router = useRouter();
  const [panel, setPanel] = useState<PanelOpen>(null);
  const page = useReorder(data, () => router.push(`/wearers/${data.file.wearer.id}`));
  const blocks = useReorderWorking(page);
  const { asked, setAsked } = page;
  useKey('n', () => setAsked({ ...asked, noDanger: true }), [asked]);
  useKey('s', () => setAsked({ ...asked, sightSame: true }), [asked]);
  useKey('b', () => router.push(`/diary?for=${data.file.wearer.id}&visit=fullAnnual`), []);
  useKey('m', () => setPanel('message'), []);
  useKey('t', () => setPanel('loss'), []);
  useKey(
    '1,2,3,4',
    (event) => {
      const offer = page.offers[Number(event.key) - 1];
      if (offer) page.choose(offer.packs);
    },
    [page],
  );
  useHotkeys('ctrl+enter', () => void page.order(), { enableOnFormTags: true }, [page]);
  const { wearer } = data.file;
  return (
    <WorkingProvider ids={blocks.map((b) => b.id)} initial={null}>
      <Frame
        rail={<Rail place="wearers" />}
        strip={<WearerStrip wearer={wearer} lines={<Telephone telephone={wearer.telephone} word={t('telephone')} />} />}
        marginWords={{ open: frame('marginOpen'), close: frame('marginClose'), label: frame('margin') }}
        margin={<ReorderMargin page={page} blocks={blocks} />}
        bar={
          <>
            <div className="frame-bar-keys">
              <span>
                <KeyCap>{'1'}</KeyCap> {t('keys.offers')}
              </span>
              <span>
                <KeyCap>{'W'}</KeyCap> {t('keys.working')}
              </span>
            </div>
            <Button look="quiet" keys={['T']} onClick={() => setPanel('loss')}>
              {t('loss.log')}
            </Button>
            <Button onClick={() => setPanel('later')}>{t('notNow')}</Button>
            <Button keys={['M']} onClick={() => setPanel('message')}>
              {t('leftMessage')}
            </Button>
            <Button
              look={asked.noDanger && asked.sightSame && page.bar === null ? 'act' : 'plain'}
              keys={['Ctrl ⏎']}
              disabled={page.busy || page.bar !== null}
              onClick={() => void page.order()}
            >
              {t('order')}
            </Button>
          </>
        }
      >
        <div className="grid grid-cols-1 wide:grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-x-6 px-6">
          <Runways page={page} />
          <div className="min-w-0">
            <Prescribed page={page} />
            {data.care ? (
              <OnceAlive>
                <CareWarning warning={data.care} />
              </OnceAlive>
            ) : null}
            <OnceAlive>
              <OldBoxes boxes={page.old} onDone={() => router.refresh()} />
            </OnceAlive>
            {page.bar === null ? (
              <>
                <Asked page={page} onRedEye={() => setPanel('redEye')} onSight={() => setPanel('sightChanged')} />
                <OnceAlive>
                  <Bridge page={page} onDone={() => router.refresh()} />
                </OnceAlive>
                <Offers page={page} />
                <Supply page={page} />
              </>
            ) : (
              <Barred page={page} />
            )}
            <Refused page={page} />
          </div>
        </div>
        <Suspense fallback={null}>
          {panel === 'redEye' ? <TriagePanel wearer={wearer} onDone={() => router.refresh()} onClose={() => setPanel(null)} /> : null}
          {panel === 'loss' ? <LogLoss file={data.file} onDone={() => router.refresh()} onClose={() => setPanel(null)} /> : null}
          {panel !== null && panel !== 'redEye' && panel !== 'loss' ? <EndCall page={page} first={panel} onClose={() => setPanel(null)} /> : null}
        </Suspense>
      </Frame>
    </WorkingProvider>
  );
}

function Telephone({ telephone, word }: { readonly telephone: string | null; readonly word: string }) {
  return telephone === null ? null : (
    <div className="strip-cell">
      <div className="label">{word}</div>
      <div>{telephone}</div>
    </div>
  );
}

/** Which prescription is ordered under, and to when it runs. */
function Prescribed({ page }: { readonly page: ReorderPageState }) {
  const t = useTranslations('reorder');
  const purposes = useTranslations('purposes');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { prescription, held, file } = page;
  if (!prescription) return null;
  const [last] = file.orders;
  return (
    <div className="py-3 border-b border-rule flex items-center gap-x-4 gap-y-1 flex-wrap">
      <span>{t('prescription', { number: prescription.number, day: formatDay(prescription.expiresOn) })}</span>
      {last ? (
        <span className="label">
          {t('lastOrder', {
            number: last.number,
            day: formatDay(dayIn(last.placedAt, session.practice.timeZone)),
            count: last.lines.reduce((sum, l) => sum + l.packs, 0),
          })}
        </span>
      ) : null}
      {EYES.map((eye) => {
        const other = page.wornOther(eye);
        return other ? (
          <Stated key={eye} state="watch">
            {t('wornOther', { eye: eyeWords.name(eye), power: powerOf(other), family: other.familyName })}
          </Stated>
        ) : null;
      })}
      {held.length > 1 ? (
        <Segment label={t('purpose')} values={held.map((p) => p.purpose)} value={prescription.purpose} word={(p) => purposes(p)} onChoose={page.setPurpose} />
      ) : null}
    </div>
  );
}

/** Nothing may be ordered: why, and what would free it. */
function Barred({ page }: { readonly page: ReorderPageState }) {
  const t = useTranslations('reorder');
  if (page.bar === null) return null;
  const books = page.bar === 'expired' || page.bar === 'noPrescription' || page.bar === 'familyEnded';
  return (
    <section className="py-6 max-w-[520px]" data-testid="barred">
      <p className="pb-3">
        <Stated state="stop">{t(`bar.${page.bar}`, { day: page.prescription ? formatDay(page.prescription.expiresOn) : '' })}</Stated>
      </p>
      <p className="pb-4">{t(`frees.${page.bar}`)}</p>
      {books ? (
        <Link className="btn btn-act" href={`/diary?for=${page.file.wearer.id}&visit=fullAnnual`} prefetch={false}>
          {t('book')}
        </Link>
      ) : null}
    </section>
  );
}

/** A refusal that belongs to no field. */
function Refused({ page }: { readonly page: ReorderPageState }) {
  const refusal = useRefusalWords();
  const { problem } = page;
  return problem === null || problem.kind === 'invalid' ? null : (
    <p role="alert" className="py-2">
      <Stated state="stop">{refusal(problem)}</Stated>
    </p>
  );
}

export const Reorder = withWords(
  {
    eyes: eyesWords,
    purposes: purposesWords,
    reorder: reorderWords,
    problems: { ...visitProblems, ...supplyProblems, ...reorderProblems },
  },
  ReorderBody,
);
