import { useState } from 'react';
import {
  hourAngle,
  marksOf,
  photoLies,
  rollOfCanthi,
  turnByHand,
  type Circle,
  type Eye,
  type MarkHour,
  type PhotoGaze,
  type PhotoLid,
  type PhotoLies,
  type PhotoPoint,
  type TurnOfPhoto,
} from '@/core';
import type { Blink, Lens } from '../model';
import type { Shot } from './usePhotoReading';

/** What is said of all pictures of a burst: how they were taken. */
export interface SaidOfPhotos {
  readonly nose: Eye | null;
  readonly top: 'up' | 'down' | null;
  readonly gaze: PhotoGaze | null;
  readonly lid: PhotoLid | null;
}
/** What is placed on one picture, in its pixels. */
export interface Placed {
  readonly lens: Circle;
  /** Where the arm points, degrees clockwise from straight down; null until somebody or the program pointed it. */
  readonly at: number | null;
  readonly hour: MarkHour | null;
  /** Canthi; null for a head upright in the rest and a level camera. */
  readonly canthi: readonly [PhotoPoint, PhotoPoint] | null;
}

/** A circle where a lens usually lies in a slit-lamp picture, or where the program found it. */
const placedAtFirst = ({ width, height }: Shot, found: TurnOfPhoto | null): Placed => ({
  lens: found?.lens ?? { x: width / 2, y: height / 2, r: Math.min(width, height) * 0.38 },
  at: null,
  hour: null,
  canthi: null,
});

/** What lies on a picture: what was placed by hand; else what the program found. */
export function placedOn(shot: Shot, lens: Lens, byHand: Placed | null, found: TurnOfPhoto | null): Placed {
  if (byHand !== null && (byHand.at !== null || !found?.ok)) return byHand;
  const first = byHand ?? placedAtFirst(shot, found);
  if (!found?.ok) return first;
  const hours = marksOf(lens.markLayout);
  const hour = hours.length === 1 ? hours[0] : hours.find((h) => h === 'six' || h === 'nine');
  const own = hour && hourAngle(lens.markLayout, lens.markSpacing ?? 0, hour);
  return hour && own !== undefined ? { ...first, lens: found.lens, at: found.rotationLeft + rollOf(first) + own, hour } : first;
}

/** The turn that lies on a picture, degrees; null where nothing points at a mark, or nobody said at which. */
export const turnOf = ({ at, hour, lens: circle, ...placed }: Placed, lens: Lens): number | null =>
  at === null ? null : turnByHand(lens.markLayout, lens.markSpacing ?? 0, { lens: circle, at, hour, roll: rollOf({ at, hour, lens: circle, ...placed }) });

export const rollOf = (placed: Placed): number => (placed.canthi ? rollOfCanthi(...placed.canthi) : 0);
const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Where the other marks of the lens are once one is placed, degrees clockwise from straight down. */
export function othersOf(placed: Placed, lens: Lens): readonly number[] {
  const turn = turnOf(placed, lens);
  if (turn === null) return [];
  return marksOf(lens.markLayout).flatMap((h) =>
    h === placed.hour ? [] : [turn + rollOf(placed) + (hourAngle(lens.markLayout, lens.markSpacing ?? 0, h) ?? 0)],
  );
}

/** What stands in the way of reading a picture; null for nothing. */
export type PhotoBar = 'unsaid' | 'mirrored' | 'gaze';
export function barOf(eye: Eye, { nose, top, gaze, lid }: SaidOfPhotos): PhotoBar | null {
  if (nose !== null && top !== null && photoLies(eye, { nose, top }) === 'mirrored') return 'mirrored';
  if (gaze === 'elsewhere') return 'gaze';
  return nose === null || top === null || gaze === null || lid === null ? 'unsaid' : null;
}
export const liesOf = (eye: Eye, { nose, top }: SaidOfPhotos): PhotoLies | null => (nose === null || top === null ? null : photoLies(eye, { nose, top }));

/** A burst of pictures of one eye: what was said of them, what was placed on each, and which readings were taken. */
export function usePhotoSeries(eye: Eye, shots: readonly Shot[]) {
  const [said, setSaid] = useState<SaidOfPhotos>({ nose: null, top: null, gaze: null, lid: null });
  const [placed, setPlaced] = useState<Readonly<Record<string, Placed>>>({});
  const [taken, setTaken] = useState<Readonly<Record<string, Blink>>>({});
  const [shown, setShown] = useState<string | null>(shots[0]?.id ?? null);
  const shot = shots.find((s) => s.id === shown) ?? shots[0] ?? null;
  const bar = barOf(eye, said);
  const put = (id: string, next: Placed): void => setPlaced((before) => ({ ...before, [id]: next }));
  /** Takes where the arm points as a reading of the picture. @param turn degrees @param found what the program had read of it, degrees */
  const take = (of: Shot, place: Placed, turn: number, found: number | null): void => {
    if (bar !== null || said.lid === null) return;
    const photo = { pictureId: of.id, rollDeg: tenth(rollOf(place)), lid: said.lid, foundDeg: found === null ? null : tenth(found) };
    const next = { ...taken, [of.id]: { rotationLeft: Math.round(turn), how: 'photo' as const, scaleReading: null, instrumentId: null, photo } };
    setTaken(next);
    const open = shots.find((s) => !next[s.id]);
    if (open) setShown(open.id);
  };
  return {
    said,
    say: (what: Partial<SaidOfPhotos>): void => {
      setSaid({ ...said, ...what });
      // What was read of pictures that lie otherwise is not what was asked.
      setTaken({});
    },
    shot,
    show: setShown,
    /** What was placed by hand. */
    placed: shot ? (placed[shot.id] ?? null) : null,
    put,
    bar,
    lies: liesOf(eye, said),
    taken,
    take,
    drop: (id: string): void => setTaken(Object.fromEntries(Object.entries(taken).filter(([of]) => of !== id))),
    /** In the order of the pictures. */
    readings: shots.flatMap((s) => taken[s.id] ?? []),
  };
}
export type PhotoSeries = ReturnType<typeof usePhotoSeries>;
