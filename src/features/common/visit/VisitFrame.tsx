'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { Frame } from '@/ui/Frame';
import { KeyCap, StateMark } from '@/ui/marks';
import { Rail } from '../Rail';
import { WearerStrip } from '../WearerStrip';
import { OPEN_STEPS, STEPS, stepAnswers, type StepId } from './steps';
import { useVisit } from './VisitProvider';

/** The frame of a visit: strip with name and birth date, the eight steps, margin and bar. */
export function VisitFrame({
  step,
  children,
  margin,
  keys,
  actions,
}: {
  readonly step: StepId;
  readonly children: ReactNode;
  readonly margin: ReactNode;
  readonly keys?: ReactNode;
  readonly actions: ReactNode;
}) {
  const t = useTranslations('frame');
  const { record } = useVisit();
  const router = useRouter();
  const here = OPEN_STEPS.findIndex((s) => s.id === step);
  const go = (by: number): void => {
    const next = OPEN_STEPS[here + by];
    if (next) router.push(`/visits/${record.visit.id}/${next.slug}`);
  };
  useHotkeys(['[', 'BracketLeft'], () => go(-1), [here]);
  useHotkeys([']', 'BracketRight'], () => go(1), [here]);
  useEnterForAction();
  return (
    <Frame
      rail={<Rail place={null} />}
      strip={<WearerStrip wearer={record.wearer} lines={<VisitLine />} />}
      index={<StepIndex step={step} />}
      margin={margin}
      marginWords={{ open: t('marginOpen'), close: t('marginClose'), label: t('margin') }}
      bar={
        <>
          <div className="frame-bar-keys">
            {keys}
            <span>
              <KeyCap>{'['}</KeyCap> <KeyCap>{']'}</KeyCap> {t('steps')}
            </span>
          </div>
          {actions}
        </>
      }
    >
      {record.visit.closedAt ? (
        <p className="stated stated-watch px-6 py-2">
          <StateMark state="watch" />
          {t('closedVisit')}
        </p>
      ) : null}
      {children}
    </Frame>
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

function VisitLine() {
  const t = useTranslations('frame');
  const { record } = useVisit();
  const lines = record.handOvers.map((c) => c.current).filter((h) => h !== null);
  const worn = (['right', 'left'] as const).map((eye) => lines.filter((h) => h.eye === eye).at(-1)).filter((h) => h !== undefined);
  return (
    <div className="strip-cell drop-narrow">
      <div className="label">{t('wearsNow')}</div>
      <div>{worn.length === 0 ? t('wearsNothing') : [...new Set(worn.map((h) => record.lenses[h.lensId]?.familyName ?? ''))].join(', ')}</div>
    </div>
  );
}

function StepIndex({ step }: { readonly step: StepId }) {
  const t = useTranslations('steps');
  const { record, eye } = useVisit();
  const answers = stepAnswers(record, eye);
  return (
    <nav className="steps" aria-label={t('label')}>
      {STEPS.map(({ id, slug }, index) => {
        const answer = answers[id];
        const inside = (
          <>
            <span className="label">{index + 1}</span>
            <span className="step-name">{t(`names.${id}`)}</span>
            {answer.state ? <StateMark state={answer.state} /> : <span />}
            <span className="step-answer">{t(`answers.${answer.code}`, { number: answer.number ?? 0 })}</span>
          </>
        );
        return slug === null ? (
          <div key={id} className="step" data-absent="true">
            {inside}
          </div>
        ) : (
          <Link key={id} href={`/visits/${record.visit.id}/${slug}`} prefetch={false} className="step" aria-current={id === step ? 'step' : undefined}>
            {inside}
          </Link>
        );
      })}
    </nav>
  );
}
