import { useEffect, useState } from 'react';
import { isIsoDate, type HomeChange, type IsoDate } from '@/core';

/** What a wearer noted on their own telephone: it is kept there and nowhere else. */
interface Noted {
  readonly soakAt: string | null;
  readonly opened: Readonly<Record<string, string>>;
}
const NOTHING: Noted = { soakAt: null, opened: {} };

/** What was kept, as far as it is what was written: anybody may have changed it. */
function asNoted(kept: unknown): Noted {
  if (typeof kept !== 'object' || kept === null) return NOTHING;
  const { soakAt, opened } = kept as { readonly soakAt?: unknown; readonly opened?: unknown };
  const days = typeof opened === 'object' && opened !== null ? Object.entries(opened).filter(([, day]) => isIsoDate(String(day))) : [];
  return {
    soakAt: typeof soakAt === 'string' && Number.isFinite(Date.parse(soakAt)) ? soakAt : null,
    opened: Object.fromEntries(days.map(([what, day]) => [what, String(day)])),
  };
}

function readNoted(key: string): Noted {
  try {
    return asNoted(JSON.parse(localStorage.getItem(key) ?? 'null'));
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
