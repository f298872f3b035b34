'use client';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { assert } from '@/lib/assert';
import type { Result } from '@/lib/outcome';
import type { House } from '@/services/visitRecord';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { callDeed, callLock, Unreached, type DeedInput, type DeedName, type DeedOutput } from './deeds';
import { useIdle, useLock } from './idleLock';
import { SignInAgain } from './SignInAgain';

interface Deeds {
  /** Does a deed; waits, with a panel over the page, while the session has ended or the server is away. Null = given up. */
  readonly perform: <N extends DeedName>(name: N, input: DeedInput<N>) => Promise<Result<DeedOutput<N>> | null>;
  /** Quietly, without panels, and asked by the page itself: no sign of life. */
  readonly poll: <N extends DeedName>(name: N, input: DeedInput<N>) => Promise<Result<DeedOutput<N>> | null>;
  /** Quietly, without panels: autosave. */
  readonly quietly: <N extends DeedName>(name: N, input: DeedInput<N>) => Promise<Result<DeedOutput<N>> | null>;
  readonly house: House;
  /** The server's moment, ms, ticking locally. */
  readonly now: () => number;
}
const DeedsContext = createContext<Deeds | null>(null);

export function useDeeds(): Deeds {
  const deeds = useContext(DeedsContext);
  assert(deeds, 'DeedsProvider');
  return deeds;
}

type Wait = { readonly why: 'signedOut' | 'away'; readonly resolve: (goOn: boolean) => void };

/** The way to the server, with what stands between: sign-in again, server away, the idle lock. */
export function DeedsProvider({ house, children }: { readonly house: House; readonly children: ReactNode }) {
  const t = useTranslations('panels');
  const [wait, setWait] = useState<Wait | null>(null);
  const [locked, setLocked] = useLock();
  const offset = useRef(0);
  useEffect(() => {
    offset.current = Date.parse(house.now) - Date.now();
  }, [house.now]);

  // Before this the page is only a picture of itself: presses are lost.
  useEffect(() => {
    document.documentElement.dataset.ready = 'yes';
  }, []);

  const hold = useCallback((why: Wait['why']): Promise<boolean> => new Promise((resolve) => setWait({ why, resolve })), []);
  const release = (goOn: boolean): void => {
    wait?.resolve(goOn);
    setWait(null);
  };

  const perform = useCallback(
    async <N extends DeedName>(name: N, input: DeedInput<N>): Promise<Result<DeedOutput<N>> | null> => {
      // One press, one key: however often it is sent, it is done once.
      const requestKey = crypto.randomUUID();
      for (;;) {
        try {
          const result = await callDeed(name, input, { requestKey });
          if (result.ok || result.error.kind !== 'signedOut') return result;
          if (!(await hold('signedOut'))) return null;
        } catch (cause) {
          if (!(cause instanceof Unreached)) throw cause;
          if (!(await hold('away'))) return null;
        }
      }
    },
    [hold],
  );
  const softly = useCallback(
    async <N extends DeedName>(name: N, input: DeedInput<N>, background: boolean): Promise<Result<DeedOutput<N>> | null> => {
      try {
        const result = await callDeed(name, input, { background });
        // The session ended or was locked elsewhere: what is on the screen is nobody's to read.
        if (!result.ok && result.error.kind === 'signedOut' && result.error.why !== 'none') setLocked(true);
        return result;
      } catch {
        return null;
      }
    },
    [setLocked],
  );
  const quietly = useCallback(<N extends DeedName>(name: N, input: DeedInput<N>) => softly(name, input, false), [softly]);
  const poll = useCallback(<N extends DeedName>(name: N, input: DeedInput<N>) => softly(name, input, true), [softly]);

  useIdle(house.settings.idleMinutes, !locked, {
    onIdle: () => {
      setLocked(true);
      void callLock().catch(() => undefined);
    },
    onLife: () => void quietly('stillHere', {}),
  });

  const value = useMemo((): Deeds => ({ perform, quietly, poll, house, now: () => Date.now() + offset.current }), [perform, quietly, poll, house]);
  return (
    <DeedsContext.Provider value={value}>
      {children}
      <Panel open={locked || wait?.why === 'signedOut'} onClose={null} title={locked ? t('lockedTitle') : t('signedOutTitle')} opaque={locked}>
        <p className="mb-3">{locked ? t('lockedText') : t('signedOutText')}</p>
        <SignInAgain
          viewer={house.viewer}
          onDone={() => {
            setLocked(false);
            release(true);
          }}
        />
      </Panel>
      <Panel open={wait?.why === 'away' && !locked} onClose={() => release(false)} title={t('awayTitle')}>
        <p className="mb-4">{t('awayText')}</p>
        <div className="flex gap-3 justify-end">
          <Button onClick={() => release(false)}>{t('awayLater')}</Button>
          <Button look="act" onClick={() => release(true)}>
            {t('awayAgain')}
          </Button>
        </div>
      </Panel>
    </DeedsContext.Provider>
  );
}
