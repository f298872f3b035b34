'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { EYES, stepsOf } from '@/core';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Spine, SpineHead } from '@/ui/Spine';
import { OnceAlive } from '../../../common/OnceAlive';
import { useBlurWorking } from '../../../common/blurWorking';
import { StopsThatStay } from '../../shell/StopsThatStay';
import { DraftLine } from '../../shell/DraftLine';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame, workingsOf } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { checkOf } from './model';
import { PrescribedRows } from './PrescribedRows';
import { SignSections } from './SignSections';
import { useSigning } from './useSigning';
import blurWorkingWords from '@/i18n/messages/en/blurWorking.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import prescriptionWords from '@/i18n/messages/en/prescription.messages.json';
import printWords from '@/i18n/messages/en/print.messages.json';
import signProblems from '@/i18n/messages/en/signProblems.messages.json';
import rawWords from '@/i18n/messages/en/raw.messages.json';
import { withWords } from '@/i18n/withWords';

const LastLook = lazy(() => import('./LastLook').then((m) => ({ default: m.LastLook })));
const CareSystem = lazy(() => import('../../shell/care/CareSystem').then((m) => ({ default: m.CareSystem })));
const SignedPrescription = lazy(() => import('./SignedPrescription').then((m) => ({ default: m.SignedPrescription })));

/** What is prescribed, from what was read on the eye, and the signature that makes it so. */
function PrescriptionStepBody() {
  const t = useTranslations('prescription');
  const blurWorking = useBlurWorking();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, busy } = useVisit();
  const signing = useSigning();
  const { draft, states, plans, included, maySign, before, shown } = signing;
  const form = useRef<HTMLFormElement>(null);
  // Who has worn lenses for years is taught nothing before they are ordered.
  const teaches = stepsOf(record.visit.kind).includes('lesson');
  useHotkeys('ctrl+enter', () => form.current?.requestSubmit(), { enableOnFormTags: true });

  const blocks = EYES.flatMap((e) => {
    const { lens } = plans[e];
    const { order, orderDespite } = states[e].verdict;
    const asked = order ?? orderDespite;
    return lens && asked ? [blurWorking(`blur-${e}`, eyeWords.short(e), asked, lens)] : [];
  });
  return (
    <VisitFrame
      step="prescription"
      workings={workingsOf(shown ? [] : blocks, null)}
      keys={[
        [['Ctrl ⏎'], t('keySign')],
        [['W'], t('keyWorking')],
      ]}
      margin={
        shown ? (
          <>
            <h2 className="mb-3">{t('afterSigning')}</h2>
            <StopsThatStay />
            <p className="mb-2">{t('afterText')}</p>
            <p className="label">{t('supersedeText')}</p>
          </>
        ) : (
          <>
            <h2 className="mb-3">{t('beforeSigning')}</h2>
            <StopsThatStay />
            {EYES.map((e) => {
              const check = checkOf(plans[e]);
              return (
                <p key={e} className="mb-3">
                  <Stated state={check.state}>{t(`check.${check.code}`, { eye: eyeWords.short(e) })}</Stated>
                </p>
              );
            })}
            {included.length === 1 ? (
              <p className="mb-3">
                <Stated state="watch">{t('oneEye')}</Stated>
              </p>
            ) : null}
            <h2 className="mt-5 mb-2">{t('whatItDoes')}</h2>
            <ol className="list-decimal pl-5">
              <li>{t('does1')}</li>
              {before ? <li>{t('does2', { number: before.number })}</li> : null}
              <li>{t('does3')}</li>
              <li>{t('does4')}</li>
            </ol>
          </>
        )
      }
      actions={
        shown ? (
          <>
            {maySign && record.visit.closedAt === null ? <Button onClick={() => signing.signAgain()}>{t('signAgain')}</Button> : null}
            <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/visits/${record.visit.id}/${teaches ? 'lesson' : 'supply'}`)}>
              {teaches ? t('toTeach') : t('toOrder')}
            </Button>
          </>
        ) : (
          <>
            {teaches ? <Button onClick={() => router.push(`/visits/${record.visit.id}/lesson`)}>{t('trialHome')}</Button> : null}
            <Button
              look="act"
              keys={['Ctrl ⏎']}
              disabled={busy || !maySign || included.length === 0 || record.visit.closedAt !== null}
              onClick={() => form.current?.requestSubmit()}
            >
              {t('sign')}
            </Button>
          </>
        )
      }
    >
      {shown ? (
        <Suspense fallback={null}>
          <SignedPrescription signed={shown} />
        </Suspense>
      ) : (
        <form
          ref={form}
          onSubmit={(event) => {
            event.preventDefault();
            void signing.sign();
          }}
        >
          <Spine label={t('title')}>
            <SpineHead words={eyeWords.heads} label={t('toSign')} />
            <PrescribedRows signing={signing} />
            <Suspense fallback={<div className="min-h-[120px]" />}>
              <LastLook signing={signing} />
            </Suspense>
          </Spine>
          <SignSections signing={signing} />
        </form>
      )}
      <OnceAlive>
        <Suspense fallback={null}>
          <CareSystem />
        </Suspense>
      </OnceAlive>
      <DraftLine draft={draft} />
    </VisitFrame>
  );
}

export const PrescriptionStep = withWords(
  {
    blurWorking: blurWorkingWords,
    draft: draftWords,
    kind: kindWords,
    prescription: prescriptionWords,
    purposes: purposesWords,
    print: printWords,
    raw: rawWords,
    problems: signProblems,
  },
  PrescriptionStepBody,
);
