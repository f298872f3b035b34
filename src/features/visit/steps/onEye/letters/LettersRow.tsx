'use client';
import { useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { blurStrength, EYES, looksOf, mostBlur, nearLeft, type Eye, type Ink, type LookSeen } from '@/core';
import lettersWords from '@/i18n/messages/en/letters.messages.json';
import { withWords } from '@/i18n/withWords';
import { Segment } from '@/ui/Segment';
import { SpineRow } from '@/ui/Spine';
import { startPupilLetters, type AskedLook, type LookDrawn } from '@/workers/pupilLetters';
import { useEyeWords } from '../../../../common/eyeWords';
import { useVisit } from '../../../shell/VisitProvider';
import { useLettersThread } from '../useLettersThread';
import type { Readings } from '../useReadings';
import { drawSquare } from './drawLetters';
import { LettersSeen } from './LettersSeen';

/** Side of the pictures, pixels, and the size of one, minutes of arc: just over a degree is shown. */
export const SQUARE = 256;
const ARCMIN = 0.25;
const DISTANCES = ['far', 'near'] as const;
type Distance = (typeof DISTANCES)[number];
/** Pupils that may be tried, mm, and the one of an eye that nobody measured. */
const PUPIL = { min: 2, max: 7, step: 0.1 } as const;
const USUAL_PUPIL = 5;

/** What each eye's looks leave; none while there is nothing to show. */
const looksOfEye = ({ stats, lens, verdict, made }: Readings['live'][Eye]): readonly LookSeen[] =>
  stats && lens && verdict.need
    ? looksOf(verdict.need, { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, made?.lens.power ?? null, stats.mean)
    : [];

/** A look asked for, and of which eye. */
type LookOfEye = AskedLook & { readonly eye: Eye };

/** The pupil measured in dim light, else in the room; null where nobody measured. */
function usePupils(): (eye: Eye) => number | null {
  const { health } = useVisit();
  return (eye) => {
    const { pupilDim, pupilRoom } = health.findings[eye];
    return typeof pupilDim === 'number' ? pupilDim : typeof pupilRoom === 'number' ? pupilRoom : null;
  };
}

/** Letters as the wearer would see them, through the glasses, the lens, the order and the order turned: a model. */
function LettersRowPart({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('letters');
  const { record } = useVisit();
  const measured = usePupils();
  const [distance, setDistance] = useState<Distance>('far');
  const [tried, setTried] = useState<number | null>(null);
  const [picture, setPicture] = useState<Ink | null>(null);
  // Once the page's type has come.
  useEffect(() => void document.fonts.ready.then(() => setPicture(drawSquare(SQUARE, ARCMIN))), []);
  const { age } = record.wearer;
  const pupil = (e: Eye): number => Math.min(PUPIL.max, Math.max(PUPIL.min, tried ?? measured(e) ?? USUAL_PUPIL));
  const looks = { right: looksOfEye(readings.live.right), left: looksOfEye(readings.live.left) };
  const asked = EYES.flatMap((e) =>
    looks[e].map(({ look, residual }): LookOfEye => ({ eye: e, residual, pupilMm: pupil(e), near: look === 'glasses' ? 0 : nearLeft(age) })),
  );
  const drawn = useLettersThread<readonly AskedLook[], readonly LookDrawn[]>(startPupilLetters, JSON.stringify(asked), picture, ARCMIN);
  const some = EYES.find((e) => looks[e].length > 0);
  const shown = (e: Eye): readonly LookDrawn[] => {
    if (drawn === null || drawn === 'away') return [];
    // What was drawn may answer an older question: it stands under the eye that was asked for then.
    const eyes = (JSON.parse(drawn.key) as readonly LookOfEye[]).map((a) => a.eye);
    const own = drawn.answer.filter((_, i) => eyes[i] === e);
    return own.length === looks[e].length ? own : [];
  };
  const controls = some ? (
    <span className="flex flex-col gap-2 items-center">
      <Segment label={t('distance')} values={DISTANCES} value={distance} word={(d) => t(`at.${d}`)} onChoose={setDistance} />
      <label className="note flex flex-col gap-1 items-center w-full">
        <span>{t('pupil', { mm: pupil(some).toFixed(1), from: tried !== null ? 'tried' : measured(some) === null ? 'assumed' : 'measured' })}</span>
        <input type="range" className="w-full" {...PUPIL} value={pupil(some)} onChange={(event) => setTried(Number(event.target.value))} />
      </label>
      <span>{t('model', { near: (-nearLeft(age)).toFixed(2) })}</span>
      {drawn === 'away' ? <span>{t('away')}</span> : null}
    </span>
  ) : null;
  const of = (e: Eye) => (readings.live[e].state.onEye ? <Looks eye={e} looks={looks[e]} drawn={shown(e)} distance={distance} pupilMm={pupil(e)} /> : null);
  return <SpineRow label={t('label')} note={controls} right={of('right')} left={of('left')} />;
}

interface LooksOf {
  readonly eye: Eye;
  readonly looks: readonly LookSeen[];
  readonly drawn: readonly LookDrawn[];
  readonly distance: Distance;
  readonly pupilMm: number;
}
function Looks({ eye, looks, drawn, distance, pupilMm }: LooksOf) {
  const t = useTranslations('letters');
  const eyeWords = useEyeWords();
  const most = useMemo(() => mostBlur(SQUARE, ARCMIN, pupilMm), [pupilMm]);
  if (looks.length === 0) return <span className="label">{t('nothing')}</span>;
  return (
    <span className={`flex gap-2 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`} data-testid={`letters-${eye}`}>
      {looks.map(({ look, residual }, i) => {
        const picture = drawn[i]?.[distance];
        const blur = blurStrength(residual).toFixed(2);
        return (
          <figure key={look} className="flex flex-col items-center w-[116px]">
            {blurStrength(residual) > most ? (
              <span className="note letters-square">{t('tooBlurred')}</span>
            ) : picture ? (
              <LettersSeen
                seen={picture}
                width={SQUARE}
                height={SQUARE}
                className="letters-square"
                label={t('lettersOf', { eye: eyeWords.name(eye), look: t(`look.${look}`), at: t(`at.${distance}`), blur })}
              />
            ) : (
              <span className="note letters-square">{t('coming')}</span>
            )}
            <figcaption className="note text-center">
              {t(`look.${look}`)} · {t('blur', { blur })}
            </figcaption>
          </figure>
        );
      })}
    </span>
  );
}

export const LettersRow = withWords({ letters: lettersWords }, LettersRowPart);
