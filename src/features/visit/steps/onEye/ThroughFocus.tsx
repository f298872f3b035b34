'use client';
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { demandOf, EYES, formatAcuity, type Eye, type Ink, type NextInput, type TaskAt } from '@/core';
import type { Drawn } from '@/workers/throughFocus';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { asItIs, eyesThrough } from './eyesThrough';
import { ARCMIN, drawLetters, LINES } from './letters/drawLetters';
import { LettersSeen } from './letters/LettersSeen';
import { ThroughFocusChart } from './ThroughFocusChart';
import { useThroughFocus } from './useThroughFocus';
import { WhatIfControls } from './WhatIfControls';

interface Of {
  readonly input: NextInput;
  readonly tasks: readonly TaskAt[];
}

/** Acuity of a curve at a vergence: the nearest point that was reckoned. */
function at({ curves }: Drawn, of: Eye | 'both', vergence: number): number {
  const step = (curves.vergences[1] ?? 1) - (curves.vergences[0] ?? 0);
  const i = Math.round((vergence - (curves.vergences[0] ?? 0)) / step);
  const values = curves[of] ?? [];
  return values[Math.min(Math.max(i, 0), values.length - 1)] ?? 0;
}

/** What the pair on the eyes sees over distance, by the model: R, L and both, tasks marked, letters as they would look. */
export function ThroughFocus({ input, tasks }: Of) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { acuity: notation } = record.session.settings;
  const [whatIf, setWhatIf] = useState(() => asItIs(input));
  const [picture, setPicture] = useState<Ink | null>(null);
  // Once the page's type has come.
  useEffect(() => void document.fonts.ready.then(() => setPicture(drawLetters())), []);
  const eyes = useMemo(() => eyesThrough(input, whatIf), [input, whatIf]);
  const vergences = useMemo(() => tasks.map(({ cm }) => demandOf(cm)), [tasks]);
  const seen = useThroughFocus(JSON.stringify({ eyes, vergences }), picture, ARCMIN);
  const say = useCallback((logMar: number) => formatAcuity(Math.round(logMar * 50) / 50, notation), [notation]);
  const words = useMemo(
    () => ({ right: eyeWords.short('right'), left: eyeWords.short('left'), both: t('chart.both'), tasks: t('chart.tasks'), x: t('chart.x'), y: t('chart.y') }),
    [eyeWords, t],
  );
  const marks = useMemo(
    () => tasks.map(({ task }, i) => ({ task, name: t(`tasks.${task}`), vergence: vergences[i] ?? 0, acuity: seen ? at(seen, 'both', vergences[i] ?? 0) : 0 })),
    [tasks, vergences, seen, t],
  );
  // The letters follow the curves in a breath of their own: a slider is never held by both.
  const later = useDeferredValue(seen);
  const cylinderNow = 2 * Math.max(eyes.right.halfCylinderLeft, eyes.left.halfCylinderLeft);
  return (
    <section aria-label={t('chart.title')} data-testid="through-focus">
      <h2>{t('chart.title')}</h2>
      <WhatIfControls whatIf={whatIf} cylinderNow={cylinderNow} adds={input.choices.adds} onChange={setWhatIf} />
      {seen && picture ? (
        <>
          <ThroughFocusChart curves={seen.curves} tasks={marks} label={t('chart.label')} words={words} acuity={say} />
          <p className="note">{t('chart.letters', { lines: LINES.map(say).join(', ') })}</p>
          <SeenTable seen={later ?? seen} picture={picture} tasks={tasks} vergences={vergences} say={say} />
        </>
      ) : null}
      <p className="note">{t('chart.limits')}</p>
    </section>
  );
}

/** Each task with what the eyes see of it, and letters as each alone would see them. */
const SeenTable = memo(function SeenTable({
  seen,
  picture,
  tasks,
  vergences,
  say,
}: {
  readonly seen: Drawn;
  readonly picture: Ink;
  readonly tasks: readonly TaskAt[];
  readonly vergences: readonly number[];
  readonly say: (logMar: number) => string;
}) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  return (
    <table className="table">
      <thead>
        <tr>
          <th scope="col">{t('task')}</th>
          {EYES.map((e) => (
            <th key={e} scope="col">
              {eyeWords.name(e)}
            </th>
          ))}
          <th scope="col">{t('chart.both')}</th>
        </tr>
      </thead>
      <tbody>
        {tasks.map(({ task }, i) => (
          <tr key={task}>
            <th scope="row">{t(`tasks.${task}`)}</th>
            {EYES.map((e) => {
              const letters = seen.letters[e][i];
              const acuity = say(at(seen, e, vergences[i] ?? 0));
              return (
                <td key={e}>
                  {letters ? (
                    <LettersSeen
                      seen={letters}
                      width={picture.width}
                      height={picture.height}
                      label={t('chart.lettersOf', { eye: eyeWords.name(e), task: t(`tasks.${task}`), acuity })}
                    />
                  ) : null}
                  <span className="value">{acuity}</span>
                </td>
              );
            })}
            <td className="value">{say(at(seen, 'both', vergences[i] ?? 0))}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
});
