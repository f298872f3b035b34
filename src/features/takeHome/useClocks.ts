import { useEffect, useState } from 'react';
import { z } from 'zod';
import type { HomeChange, IsoDate } from '@/core';

/** What a wearer noted on their own telephone: it is kept there and nowhere else. */
const notedShape = z.object({ soakAt: z.string().nullable(), opened: z.record(z.string(), z.string()) });
type Noted = z.output<typeof notedShape>;
const NOTHING: Noted = { soakAt: null, opened: {} };

function readNoted(key: string): Noted {
  try {
    const read = notedShape.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return read.success ? read.data : NOTHING;
  } catch {
    return NOTHING;
  }
}

/** The telephone's own day. */
export function dayHere(at: Date): IsoDate {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** How often a clock that stands open looks at the time, ms. */
const LOOKS_MS = 15_000;

/** The clocks of a wearer: when a soak began, when something was opened; kept through reloads. */
export function useClocks(visitId: string) {
  const key = `keenfit-home-${visitId}`;
  const [noted, setNoted] = useState<Noted>(NOTHING);
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    const look = (): void => setNow(Date.now());
    const first = setTimeout(() => {
      setNoted(readNoted(key));
      look();
    });
    const every = setInterval(look, LOOKS_MS);
    return () => {
      clearTimeout(first);
      clearInterval(every);
    };
  }, [key]);
  const note = (next: Noted): void => {
    setNoted(next);
    setNow(Date.now());
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // Kept while the page stands open: a telephone may refuse.
    }
  };
  return {
    now,
    soakAt: noted.soakAt,
    openedOn: (what: HomeChange['what']): IsoDate | null => noted.opened[what] ?? null,
    startSoak: (): void => note({ ...noted, soakAt: new Date().toISOString() }),
    stopSoak: (): void => note({ ...noted, soakAt: null }),
    open: (what: HomeChange['what']): void => note({ ...noted, opened: { ...noted.opened, [what]: dayHere(new Date()) } }),
  };
}
