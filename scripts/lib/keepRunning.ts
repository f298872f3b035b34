import type { Child } from './children';

/** The first pause before something is started again, and the longest, ms. */
const PAUSE = { first: 500, longest: 30_000 };
/** What lived so long was sound: the next pause is the first again, ms. */
const SOUND_MS = 60_000;

/** Pauses that grow while what is started keeps dying. @returns the next one, ms, after a life of so many ms */
export function growingPause(): (livedMs: number) => number {
  let next = PAUSE.first;
  return (livedMs) => {
    const pause = livedMs > SOUND_MS ? PAUSE.first : next;
    next = Math.min(PAUSE.longest, pause * 2);
    return pause;
  };
}

export interface KeepRunningOptions {
  readonly say?: (line: string) => void;
  readonly wait?: (ms: number) => Promise<void>;
  readonly now?: () => number;
}

/**
 * Starts a program and starts it again whenever it ends by itself, after a growing pause, and says so.
 * @throws when it cannot be started the first time
 */
export async function keepRunning(
  name: string,
  start: () => Promise<Child>,
  { say = console.error, wait = (ms) => new Promise((done) => setTimeout(done, ms)), now = Date.now }: KeepRunningOptions = {},
): Promise<Pick<Child, 'stop'>> {
  let child = await start();
  let stopping = false;
  const pauseAfter = growingPause();
  const watch = (): void => {
    const born = now();
    child.process.once('exit', (code, signal) => {
      if (!stopping) void again(String(signal ?? code), now() - born);
    });
  };
  const again = async (how: string, lived: number): Promise<void> => {
    const pause = pauseAfter(lived);
    say(`Keen Fit: ${name} ended (${how}); it starts again in ${pause / 1000} s`);
    await wait(pause);
    if (stopping) return;
    try {
      child = await start();
    } catch (cause) {
      return again(cause instanceof Error ? cause.message : String(cause), 0);
    }
    if (stopping) return child.stop();
    say(`Keen Fit: ${name} is back`);
    watch();
  };
  watch();
  return {
    stop: (signal) => {
      stopping = true;
      return child.stop(signal);
    },
  };
}
