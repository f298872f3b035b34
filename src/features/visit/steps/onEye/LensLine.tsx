'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye } from '@/core';
import { LensToken } from '@/ui/LensToken';
import { SpineRow } from '@/ui/Spine';
import { useVisit } from '../../shell/VisitProvider';
import { TriedName, useTried, type Tried } from './tried';

// Opened now and then, by a press on a lens.
const LensStories = lazy(() => import('./LensStories').then((m) => ({ default: m.LensStories })));

/** Every lens tried on each eye in this visit, newest by the spine: what was read through it, and which one is decided on. */
export function LensLine() {
  const t = useTranslations('lensLine');
  const { record } = useVisit();
  const [open, setOpen] = useState<readonly string[]>([]);
  const ofEye = (e: Eye): Tried[] => record.facts.onEye.filter((c): c is Tried => c.current?.eye === e);
  // A single lens is the one on the eye: there is no line to look along yet.
  if (Math.max(ofEye('right').length, ofEye('left').length) < 2) return null;
  const show = (id: string): void => setOpen((now) => [...now.filter((x) => x !== id), id].slice(-2));
  const cell = (e: Eye) => {
    // Newest by the spine: last on the left side of it, first on the right.
    const line = e === 'right' ? ofEye(e) : [...ofEye(e)].reverse();
    return (
      <span className="lens-line">
        {line.map((chain) => (
          <Station key={chain.rootId} eye={e} chain={chain} onOpen={() => show(chain.rootId)} />
        ))}
      </span>
    );
  };
  const all = [...ofEye('right'), ...ofEye('left')];
  const shown = open.flatMap((id) => all.filter((c) => c.rootId === id));
  return (
    <>
      <SpineRow label={t('title')} note={t('note')} right={cell('right')} left={cell('left')} />
      <Suspense fallback={null}>{shown.length > 0 ? <LensStories shown={shown} all={all} onShow={show} onClose={() => setOpen([])} /> : null}</Suspense>
    </>
  );
}

function Station({ eye, chain, onOpen }: { readonly eye: Eye; readonly chain: Tried; readonly onOpen: () => void }) {
  const t = useTranslations('lensLine');
  const { record } = useVisit();
  const { state, decided } = useTried(chain);
  const shortTurn = (degrees: number): string => (degrees === 0 ? '0°' : t(degrees > 0 ? 'turnLeft' : 'turnRight', { degrees: Math.abs(degrees) }));
  const lens = chain.current.lensId ? record.lenses[chain.current.lensId] : undefined;
  const turn = Math.round(state.turn?.mean ?? 0);
  const fit = state.fit?.current.verdict ?? null;
  return (
    <button type="button" className="lens-station" aria-pressed={decided} onClick={onOpen} data-testid={`station-${eye}-${chain.current.trialNumber ?? 0}`}>
      <LensToken
        size={36}
        ring={fit ?? 'unjudged'}
        geometry={lens?.geometry ?? 'sphere'}
        rotationLeft={turn}
        axisGiven={lens && lens.cylinderD !== 0 ? lens.axisDeg - turn : null}
        axisAsked={null}
        label={lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : t('unknown')}
      />
      <span className="flex flex-col items-start">
        <span className="lens-station-name">
          <TriedName chain={chain} />
        </span>
        <span className="note">{[fit ? t(`fit.${fit}`) : t('notJudged'), state.turn ? shortTurn(turn) : null].filter((x) => x !== null).join(', ')}</span>
      </span>
    </button>
  );
}
