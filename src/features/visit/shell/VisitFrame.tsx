'use client';
import { Lock } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Fragment, lazy, Suspense, type ReactNode } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useKey } from '../../common/keys';
import { useTranslations } from 'use-intl';
import { EYES, NEVER_LOCKED, stepSlug, stepsShown, type StepId } from '@/core';
import { Frame } from '@/ui/Frame';
import { KeyCap, StateMark } from '@/ui/marks';
import { Rail } from '../../common/Rail';
import { OpenWorking, WorkingProvider, type WorkingBlock } from '../../common/Working';
import { WearerStrip } from '../../common/WearerStrip';
import { AlertBand, HandOverStrip } from './HandOverStrip';
import { useVisit } from './VisitProvider';

const LockedStep = lazy(() => import('./LockedStep').then((m) => ({ default: m.LockedStep })));
const KindOfVisit = lazy(() => import('./KindOfVisit').then((m) => ({ default: m.KindOfVisit })));

/** Keys that a step listens to, and what they do. */
export type KeyHint = readonly [keys: readonly string[], does: string];

/** Workings that a step can open, and the part of the margin that shows the one that is open. */
export interface Workings {
  readonly ids: readonly string[];
  /** Open from the start; null for none. */
  readonly initial: string | null;
  readonly open: ReactNode;
}
/** Workings that are made already. */
export const workingsOf = (blocks: readonly WorkingBlock[], initial: string | null): Workings => ({
  ids: blocks.map((b) => b.id),
  initial,
  open: <OpenWorking blocks={blocks} />,
});

interface FrameOfStep {
  readonly step: StepId;
  readonly children: ReactNode;
  /** Reasons, above the working that is open. */
  readonly margin: ReactNode;
  readonly marginEnd?: ReactNode;
  readonly workings?: Workings;
  readonly keys?: readonly KeyHint[];
  /** Keys that can be pressed as well. */
  readonly barKeys?: ReactNode;
  readonly actions: ReactNode;
}

/** The frame of a visit: strip with name and birth date, the steps of its kind, margin and bar. */
export function VisitFrame({ workings, margin, marginEnd, ...frame }: FrameOfStep) {
  if (!workings) return <StepFrame margin={margin} {...frame} />;
  const whole = (
    <>
      {margin}
      {workings.open}
      {marginEnd}
    </>
  );
  return (
    <WorkingProvider ids={workings.ids} initial={workings.initial}>
      <StepFrame margin={whole} {...frame} />
    </WorkingProvider>
  );
}

function StepFrame({ step, children, margin, keys = [], barKeys, actions }: Omit<FrameOfStep, 'workings' | 'marginEnd'>) {
  const t = useTranslations('frame');
  const visit = useTranslations('visitFrame');
  const { record } = useVisit();
  const locked = record.stops.length > 0 && !NEVER_LOCKED.includes(step);
  const router = useRouter();
  const steps = useStepsShown(step);
  const here = steps.indexOf(step);
  const go = (by: number): void => {
    const next = steps[here + by];
    if (next) router.push(`/visits/${record.visit.id}/${stepSlug(next)}`);
  };
  useKey(['[', 'BracketLeft'], () => go(-1), [here]);
  useKey([']', 'BracketRight'], () => go(1), [here]);
  useEnterForAction();
  return (
    <Frame
      rail={<Rail place={null} />}
      strip={<WearerStrip wearer={record.wearer} lines={<HandOverStrip />} />}
      index={<StepIndex step={step} />}
      margin={locked ? null : margin}
      marginWords={{ open: t('marginOpen'), close: t('marginClose'), label: t('margin') }}
      bar={
        <>
          <Suspense fallback={null}>
            <KindOfVisit />
          </Suspense>
          <div className="frame-bar-keys">
            {locked ? null : barKeys}
            {[...(locked ? [] : keys), [['[', ']'], visit('steps')] as const].map(([caps, does]) => (
              <KeyHintLine key={does} caps={caps} does={does} />
            ))}
          </div>
          {locked ? null : actions}
        </>
      }
    >
      {record.visit.closedAt ? (
        <p className="stated stated-watch px-6 py-2">
          <StateMark state="watch" />
          {visit('closedVisit')}
        </p>
      ) : null}
      <AlertBand />
      {locked ? (
        <Suspense fallback={null}>
          <LockedStep />
        </Suspense>
      ) : (
        children
      )}
    </Frame>
  );
}

function KeyHintLine({ caps, does }: { readonly caps: readonly string[]; readonly does: string }) {
  return (
    <span>
      {caps.map((cap) => (
        <Fragment key={cap}>
          <KeyCap>{cap}</KeyCap>{' '}
        </Fragment>
      ))}
      {does}
    </span>
  );
}

/** Enter, away from any control, presses the violet button; signing and ordering do not listen to it. */
function useEnterForAction(): void {
  useHotkeys('enter', (event) => {
    const focused = document.activeElement;
    if (focused && focused !== document.body && focused.closest('a, button, input, textarea, select, [role="slider"], [role="dialog"]')) return;
    const action = document.querySelector<HTMLElement>('[data-enter="true"]:not([disabled])');
    if (!action) return;
    event.preventDefault();
    action.click();
  });
}

/** The steps of this kind of visit, and those beside them that something stands in. */
function useStepsShown(step: StepId): readonly StepId[] {
  const { record, eye } = useVisit();
  const presbyope = record.wearer.age >= record.session.settings.presbyopiaAge || EYES.some((e) => eye(e).refraction?.current.addD);
  return stepsShown(record.visit.kind, step, (id) => !NOTHING_THERE.includes(record.answers[id].code), presbyope);
}
/** Answers of a step in which nothing was done. */
const NOTHING_THERE: readonly string[] = ['notYet', 'notAsked', 'notGraded', 'locked'];

function StepIndex({ step }: { readonly step: StepId }) {
  const t = useTranslations('steps');
  const { record } = useVisit();
  return (
    <nav className="steps" aria-label={t('label')}>
      {useStepsShown(step).map((id, index) => {
        const answer = record.answers[id];
        return (
          <Link key={id} href={`/visits/${record.visit.id}/${stepSlug(id)}`} prefetch={false} className="step" aria-current={id === step ? 'step' : undefined}>
            <span className="label">{index + 1}</span>
            <span className="step-name">{t(`names.${id}`)}</span>
            {answer.state === 'locked' ? <Lock size={13} aria-hidden="true" /> : answer.state ? <StateMark state={answer.state} /> : <span />}
            <span className="step-answer">{t(`answers.${answer.code}`, { number: answer.number ?? 0 })}</span>
          </Link>
        );
      })}
    </nav>
  );
}
