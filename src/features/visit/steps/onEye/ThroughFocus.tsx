'use client';
import { useCallback, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { demandOf, EYES, formatAcuity, type Eye, type EyeThroughLens, type NextInput, type TaskAt } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { ThroughFocusChart } from './ThroughFocusChart';
import { useThroughFocus } from './useThroughFocus';

interface Of {
  readonly input: NextInput;
  readonly tasks: readonly TaskAt[];
}
/** Pupils that may be tried, mm. */
const PUPIL = { min: 2, max: 8, step: 0.1 } as const;

/** What the pair on the eyes sees over distance, by the model: R, L and both, with the tasks marked; the pupil can be moved. */
export function ThroughFocus({ input, tasks }: Of) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { acuity: notation } = record.session.settings;
  const [pupilMm, setPupil] = useState(input.wearer.pupilRoomMm);
  const eyes = useMemo(() => eyesThrough(input, pupilMm), [input, pupilMm]);
  const curves = useThroughFocus(JSON.stringify(eyes));
  const say = useCallback((logMar: number) => formatAcuity(Math.round(logMar * 50) / 50, notation), [notation]);
  const words = useMemo(
    () => ({ right: eyeWords.short('right'), left: eyeWords.short('left'), both: t('chart.both'), tasks: t('chart.tasks'), x: t('chart.x'), y: t('chart.y') }),
    [eyeWords, t],
  );
  const marks = useMemo(() => {
    const at = (of: readonly number[] | null | undefined, vergence: number): number => {
      const step = curves && curves.vergences.length > 1 ? (curves.vergences[1] ?? 0) - (curves.vergences[0] ?? 0) : 1;
      const i = Math.round((vergence - (curves?.vergences[0] ?? 0)) / step);
      return of?.[Math.min(Math.max(i, 0), of.length - 1)] ?? 0;
    };
    return tasks.map(({ task, cm }) => {
      const vergence = demandOf(cm);
      return {
        task,
        name: t(`tasks.${task}`),
        vergence,
        acuity: at(curves?.both, vergence),
        right: at(curves?.right, vergence),
        left: at(curves?.left, vergence),
      };
    });
  }, [curves, tasks, t]);
  return (
    <section aria-label={t('chart.title')} data-testid="through-focus">
      <h2>{t('chart.title')}</h2>
      <label className="note flex gap-3 items-center">
        {t('chart.pupil', { mm: pupilMm.toFixed(1) })}
        <input
          type="range"
          className="w-[220px]"
          min={PUPIL.min}
          max={PUPIL.max}
          step={PUPIL.step}
          value={pupilMm}
          onChange={(event) => setPupil(Number(event.target.value))}
        />
      </label>
      {curves ? (
        <>
          <ThroughFocusChart curves={curves} tasks={marks} label={t('chart.label')} words={words} acuity={say} />
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
              {marks.map((mark) => (
                <tr key={mark.task}>
                  <th scope="row">{mark.name}</th>
                  <td>{say(mark.right)}</td>
                  <td>{say(mark.left)}</td>
                  <td>{say(mark.acuity)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      ) : null}
      <p className="note">{t('chart.limits')}</p>
    </section>
  );
}

/** The eyes with the pair that is on them, nothing accommodated. */
function eyesThrough({ wearer, worn }: NextInput, pupilMm: number): Record<Eye, EyeThroughLens> {
  const pair = worn.at(-1)?.pair;
  const of = (eye: Eye): EyeThroughLens => {
    const own = wearer.eyes[eye];
    const lens = pair?.[eye];
    const near = lens?.add ? wearer.nearOf(lens.add) : null;
    return {
      sphereLeft: own.need - (lens?.sphere ?? own.need),
      halfCylinderLeft: lens?.toric ? own.halfCylinderToric : own.halfCylinder,
      near: near && { design: near.design, add: near.power },
      pupilMm,
      best: own.best,
      decentredMm: own.decentredMm,
    };
  };
  return { right: of('right'), left: of('left') };
}
