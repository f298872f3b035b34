import { useEffect, useRef, useState } from 'react';
import { useNews } from '../common/news';

/** While people work a list is read anew no more often than this, ms. */
const ANEW_MS = 10_000;

/**
 * What is shown as it is: what others change is read anew soon, what was changed here at once.
 * @param read null when it could not be read: what is shown stays
 */
export function useAnew<Shown>(first: Shown, read: () => Promise<Shown | null>): readonly [Shown, () => void] {
  const [shown, setShown] = useState(first);
  const due = useRef<ReturnType<typeof setTimeout> | null>(null);
  // The ear opens after the page is there: that alone is no reason to read again.
  const fresh = useRef(true);
  const anew = (): void => {
    void read().then((found) => (found === null ? undefined : setShown(found)));
  };
  useNews((what) => {
    if (what === 'look' && fresh.current) {
      fresh.current = false;
      return;
    }
    if (due.current !== null || (what !== 'look' && what.what !== 'visit' && what.what !== 'diary')) return;
    due.current = setTimeout(
      () => {
        due.current = null;
        anew();
      },
      what === 'look' ? 0 : ANEW_MS,
    );
  });
  useEffect(() => () => (due.current === null ? undefined : clearTimeout(due.current)), []);
  return [shown, anew];
}
