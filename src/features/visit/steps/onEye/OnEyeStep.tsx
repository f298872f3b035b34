'use client';
import { useRouter } from 'next/navigation';
import dynamic from 'next/dynamic';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, judgedTogether, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { KeyCap, Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useOpenWorking } from '../../../common/Working';
import { SwapEyes } from '../../shell/Correct';
import { DraftLine } from '../../shell/DraftLine';
import { useEyeWords } from '../../../common/eyeWords';
import { OnceAlive } from '../../../common/OnceAlive';
import { useKey } from '../../../common/keys';
import { useOnPedal } from '../../../common/pedal';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { LensLine } from './LensLine';
import { LensOn } from './LensOn';
import { noteOf, workingsOf } from './model';
import { wornBefore } from '../../shell/wornBefore';
import { useReadings, type Readings } from './useReadings';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import lensLineWords from '@/i18n/messages/en/lensLine.messages.json';
import onEyeWords from '@/i18n/messages/en/onEye.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';

const CareMeets = lazy(() => import('../../shell/care/CareMeets').then((m) => ({ default: m.CareMeets })));

// A desk brings its own script, and so do panels that are opened now and then.
const loadDesks = {
  turn: () => import('./TurnDesk').then((m) => ({ default: m.TurnDesk })),
  fit: () => import('./FitDesk').then((m) => ({ default: m.FitDesk })),
  sight: () => import('./SightDesk').then((m) => ({ default: m.SightDesk })),
  pair: () => import('./PairDesk').then((m) => ({ default: m.PairDesk })),
};
// Drawn in the browser alone: a desk is there when it takes what is typed, not before.
const TurnDesk = dynamic(loadDesks.turn, { ssr: false });
const FitDesk = dynamic(loadDesks.fit, { ssr: false });
const SightDesk = dynamic(loadDesks.sight, { ssr: false });
const PairDesk = dynamic(loadDesks.pair, { ssr: false });
const loadWorking = () => import('./OnEyeWorking').then((m) => ({ default: m.OnEyeWorking }));
const OnEyeWorking = lazy(loadWorking);
const LampHelp = lazy(() => import('../../shell/lamp/LampHelp').then((m) => ({ default: m.LampHelp })));
const SetPath = lazy(() => import('./SetPath').then((m) => ({ default: m.SetPath })));
const BroughtIn = lazy(() => import('./BroughtIn').then((m) => ({ default: m.BroughtIn })));

const DESKS = ['turn', 'fit', 'sight', 'pair'] as const;
type Desk = (typeof DESKS)[number];
const DESK_KEYS: Readonly<Record<Desk, string>> = { turn: 'T', fit: 'F', sight: 'S', pair: 'B' };

/** What to do next. */
const PRIMARY = { look: 'act', keys: ['⏎'], 'data-enter': 'true' } as const;

/** The lens on the eye: settling, fit, where the mark sits, the over-refraction, and what it comes to. */
function OnEyeStepBody() {
  const t = useTranslations('onEye');
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, busy } = useVisit();
  const readings = useReadings();
  const { draft, live, waiting, closed } = readings;
  const [bringing, setBringing] = useState(false);
  const [helping, setHelping] = useState(false);
  const [measuring, setMeasuring] = useState<Eye>('right');
  const marked = EYES.some((e) => readings.hasMark(e));
  const [chosenDesk, setDesk] = useState<Desk | null>(null);
  const desk: Desk = chosenDesk ?? (marked ? 'turn' : 'sight');
  const next = (): void => {
    if (waiting) void readings.recordReadings();
    else router.push(`/visits/${record.visit.id}/prescription`);
  };
  const dial = (e: Eye): void => {
    setMeasuring(e);
    document.querySelector<HTMLElement>(`[data-testid="rotation-eye-${e}"]`)?.focus();
  };
  useKey('r', () => dial('right'));
  useKey('l', () => dial('left'));
  useKey('t', () => setDesk('turn'));
  useKey('f', () => setDesk('fit'));
  useKey('s', () => setDesk('sight'));
  // Lenses with an addition are judged by both eyes together.
  const paired = judgedTogether({ right: eye('right'), left: eye('left') }, record.lenses);
  useKey('b', () => (paired ? setDesk('pair') : undefined), [paired]);
  useKey('g', () => setHelping(true));
  // The other desks are one key away.
  useEffect(() => void Promise.all([...Object.values(loadDesks), loadWorking].map((load) => load())), []);
  useLampKeys(readings, desk, measuring);
  const workings = EYES.flatMap((e) => workingsOf(live[e]).map((kind) => `${kind}-${e}`));
  const anyOn = EYES.some((e) => live[e].state.onEye);
  const ofSet = EYES.some((e) => live[e].lens?.irregular);
  const both = EYES.every((e) => live[e].state.onEye);
  const mayWear = EYES.some((e) => wornBefore(record, e).length > 0 && !live[e].state.onEye);
  return (
    <VisitFrame
      step="onEye"
      workings={{ ids: workings, initial: live.right.over ? 'routes-right' : null, open: <Opened readings={readings} /> }}
      keys={[
        [['R', 'L'], t('keyEye')],
        [['←', '→'], t('keyTurn')],
        [['W'], t('keyWorking')],
        [['D'], t('keyLights')],
      ]}
      barKeys={
        <button type="button" className="bar-key" onClick={() => setHelping(true)}>
          <KeyCap>{'G'}</KeyCap> {t('howTo')}
        </button>
      }
      margin={
        <>
          <h2 className="mb-3">{t('reasoning')}</h2>
          {EYES.map((e) => (
            <ReadingNote key={e} eye={e} readings={readings} />
          ))}
          {ofSet ? (
            <Suspense fallback={null}>
              <SetPath live={live} />
            </Suspense>
          ) : null}
          <p className="mb-3 label">{t('startPlus')}</p>
        </>
      }
      actions={
        <>
          {mayWear ? (
            <Button {...(anyOn ? {} : PRIMARY)} onClick={() => router.push(`/visits/${record.visit.id}/worn-now`)} disabled={closed}>
              {t('wornIn')}
            </Button>
          ) : null}
          <Button onClick={() => setBringing(true)} disabled={closed}>
            {t('broughtIn')}
          </Button>
          {anyOn ? <Button onClick={() => router.push(`/visits/${record.visit.id}/${ofSet ? 'diagnostic-set' : 'lens'}`)}>{t('anotherTrial')}</Button> : null}
          <Button
            {...(mayWear && !anyOn ? {} : PRIMARY)}
            disabled={busy || closed}
            onClick={anyOn ? next : () => router.push(`/visits/${record.visit.id}/lens`)}
          >
            {!anyOn ? t('toLens') : waiting ? t('record') : t('toFinal')}
          </Button>
        </>
      }
    >
      <OnceAlive>
        <CareMeets />
      </OnceAlive>
      {helping ? (
        <Suspense fallback={null}>
          <LampHelp onClose={() => setHelping(false)} />
        </Suspense>
      ) : null}
      <div className="lamp">
        <Spine label={t('title')}>
          <SpineHead
            words={eyeWords.heads}
            label={
              anyOn ? (
                <div className={paired ? 'desks-tight' : undefined}>
                  <Segment
                    label={t('desks')}
                    values={DESKS.filter((d) => d !== 'pair' || paired)}
                    value={desk}
                    word={(d) => t(`desk.${d}`)}
                    onChoose={setDesk}
                    keyOf={(d) => DESK_KEYS[d]}
                  />
                </div>
              ) : (
                t('facing')
              )
            }
          />
          <LensLine />
          <SpineRow
            label={t('lensOn')}
            note={both ? <SwapEyes kind="lensOnEye" /> : undefined}
            right={<LensOn eye="right" live={live.right} />}
            left={<LensOn eye="left" live={live.left} />}
          />
          <Suspense fallback={null}>
            {anyOn && desk === 'turn' ? <TurnDesk readings={readings} measuring={measuring} /> : null}
            {anyOn && desk === 'fit' ? <FitDesk readings={readings} /> : null}
            {anyOn && desk === 'sight' ? <SightDesk readings={readings} /> : null}
          </Suspense>
        </Spine>
        <Suspense fallback={null}>{paired && desk === 'pair' ? <PairDesk /> : null}</Suspense>
      </div>
      {!anyOn ? <p className="p-8 text-center">{t('empty')}</p> : null}
      <DraftLine draft={draft} />
      <Suspense fallback={null}>{bringing ? <BroughtIn onClose={() => setBringing(false)} /> : null}</Suspense>
    </VisitFrame>
  );
}

/** The working that is open; how workings are made is loaded with the first. */
function Opened({ readings }: { readonly readings: Readings }) {
  const open = useOpenWorking() !== null;
  return <Suspense fallback={null}>{open ? <OnEyeWorking readings={readings} /> : null}</Suspense>;
}

/** At the lamp: Space or the pedal logs a blink, a digit opens the reading entry of the eye being measured. */
function useLampKeys(readings: Readings, desk: Desk, measuring: Eye): void {
  const away = (): boolean => {
    const focused = document.activeElement;
    return !focused || focused === document.body || focused.closest('[role="slider"]') !== null;
  };
  const log = (): void => {
    if (desk !== 'turn') return;
    const slider = document.activeElement?.getAttribute('data-testid');
    readings.logBlink(slider === 'rotation-eye-left' ? 'left' : slider === 'rotation-eye-right' ? 'right' : measuring);
  };
  useOnPedal(log);
  useKey(
    'space',
    (event) => {
      if (!away()) return;
      event.preventDefault();
      log();
    },
    [readings, desk, measuring],
  );
  useKey(
    '0,1,2,3,4,5,6,7,8,9',
    (event) => {
      if (desk !== 'turn' || !readings.hasMark(measuring)) return;
      event.preventDefault();
      readings.typeTurn(measuring, event.key);
      document.getElementById(`turn-${measuring}`)?.focus();
    },
    [readings, desk, measuring],
  );
}

/** What the readings come to for one eye. */
function ReadingNote({ eye, readings }: { readonly eye: Eye; readonly readings: Readings }) {
  const t = useTranslations('onEye');
  const eyeWords = useEyeWords();
  const note = noteOf(readings.live[eye]);
  if (!note) return null;
  const words = t(`note.${note.code}`, { eye: eyeWords.short(eye), power: note.power });
  return (
    <p className="mb-3">
      {note.state ? <Stated state={note.state}>{words}</Stated> : <strong>{words}</strong>} {note.turned ? t('noteTurn') : null}
      {note.provisional ? <Stated state="watch">{t(`noteProvisional.${note.provisional}`)}</Stated> : null}
    </p>
  );
}

export const OnEyeStep = withWords(
  {
    correct: correctWords,
    draft: draftWords,
    lensLine: lensLineWords,
    onEye: onEyeWords,
    powerField: powerFieldWords,
  },
  OnEyeStepBody,
);
