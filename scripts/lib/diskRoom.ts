import { statfsSync } from 'node:fs';

/** Room that making the demo takes, and under which nothing can be relied on any more, bytes. */
export const DEMO_NEEDS = 300_000_000;
const TIGHT = 30_000_000;
const LOOKED_EVERY_MS = 5_000;

/** Room left on the disk of a folder, bytes. */
export function roomAt(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}
export const megabytes = (bytes: number): string => `${Math.round(bytes / 1_000_000)} MB`;

/**
 * Says when the disk of a folder gets full, and when there is room again: once each.
 * @param room asked every few seconds
 * @returns looks once; called by a timer that keeps nothing alive
 */
export function watchRoom(folder: string, say: (line: string) => void, room: (folder: string) => number = roomAt): () => void {
  let tight = false;
  const look = (): void => {
    const now = room(folder);
    if (now < TIGHT && !tight) say(`Keen Fit: the disk of ${folder} is full (${megabytes(now)} left): nothing can be saved until something is removed.`);
    if (now > 2 * TIGHT && tight) say(`Keen Fit: there is room again on the disk of ${folder} (${megabytes(now)}).`);
    if (now < TIGHT) tight = true;
    else if (now > 2 * TIGHT) tight = false;
  };
  look();
  setInterval(look, LOOKED_EVERY_MS).unref();
  return look;
}
