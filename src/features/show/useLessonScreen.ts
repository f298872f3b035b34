import { useEffect, useRef, useState } from 'react';
import type { LessonScreen } from '@/services/lesson/screen';

/** While nothing is heard the screen looks for itself so often, ms. */
const LOOK_MS = 2000;

interface Answer {
  readonly ok: boolean;
  readonly value?: LessonScreen;
}

/**
 * What the teacher shows, as it is shown. Where the stream is away it is asked for again and again, and what was shown stays.
 * @returns `ended`: the link opens nothing any more
 */
export function useLessonScreen(first: LessonScreen): { readonly screen: LessonScreen; readonly away: boolean; readonly ended: boolean } {
  const [screen, setScreen] = useState(first);
  const [away, setAway] = useState(false);
  const [ended, setEnded] = useState(false);
  const asking = useRef(false);
  /** Something was told while it was being asked. */
  const again = useRef(false);
  /** What was told was not read: it is asked for again, though the stream may be there. */
  const missed = useRef(false);
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      if (asking.current) {
        again.current = true;
        return;
      }
      asking.current = true;
      try {
        const answer = await fetch('/api/screen', { cache: 'no-store', signal: AbortSignal.timeout(8000) });
        if (gone) return;
        if (answer.status === 401) setEnded(true);
        const read = (await answer.json()) as Answer;
        if (read.ok && read.value) setScreen(read.value);
        missed.current = false;
        setAway(false);
      } catch {
        missed.current = true;
        if (!gone) setAway(true);
      } finally {
        asking.current = false;
      }
      if (again.current && !gone) {
        again.current = false;
        await look();
      }
    };
    const stream = new EventSource('/api/screen/news');
    stream.onmessage = () => void look();
    stream.addEventListener('look', () => void look());
    // Something may have been shown while nobody listened.
    stream.onopen = () => void look();
    const timer = setInterval(() => {
      if (missed.current || stream.readyState !== EventSource.OPEN) void look();
    }, LOOK_MS);
    return () => {
      gone = true;
      stream.close();
      clearInterval(timer);
    };
  }, []);
  return { screen, away, ended };
}
