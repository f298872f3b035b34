'use client';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { assert } from '@/lib/assert';
import type { Result } from '@/lib/outcome';
import type { House } from '@/services/visitRecord';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { callDeed, Unreached, type DeedInput, type DeedName, type DeedOutput } from './deeds';
import { SignInAgain } from './SignInAgain';

interface Deeds {
  /** Does a deed; waits, with a panel over the page, while the session has ended or the server is away. Null = given up. */
  readonly perform: <N extends DeedName>(name: N, input: DeedInput<N>) => Promise<Result<DeedOutput<N>> | null>;
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

type Wait = { readonly why: 'signedOut' | 'idle' | 'away'; readonly resolve: (goOn: boolean) => void };

/** The way to the server, with what stands between: sign-in again, server away, the idle lock. */
export function DeedsProvider({ house, children }: { readonly house: House; readonly children: ReactNode }) {
  const t = useTranslations('panels');
  const [wait, setWait] = useState<Wait | null>(null);
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
      for (;;) {
        try {
          const result = await callDeed(name, input);
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
  const quietly = useCallback(async <N extends DeedName>(name: N, input: DeedInput<N>): Promise<Result<DeedOutput<N>> | null> => {
    try {
      return await callDeed(name, input);
    } catch {
      return null;
    }
  }, []);

  useIdle(
    house.settings.idleMinutes,
    wait === null,
    () => setWait({ why: 'idle', resolve: () => undefined }),
    () => void quietly('stillHere', {}),
  );

  const value = useMemo((): Deeds => ({ perform, quietly, house, now: () => Date.now() + offset.current }), [perform, quietly, house]);
  return (
    <DeedsContext.Provider value={value}>
      {children}
      <Panel open={wait !== null && wait.why !== 'away'} onClose={null} title={wait?.why === 'idle' ? t('lockedTitle') : t('signedOutTitle')}>
        <p className="mb-3">{wait?.why === 'idle' ? t('lockedText') : t('signedOutText')}</p>
        <SignInAgain viewer={house.viewer} onDone={() => release(true)} />
      </Panel>
      <Panel open={wait?.why === 'away'} onClose={() => release(false)} title={t('awayTitle')}>
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

const SIGN_OF_LIFE_MS = 120_000;

/**
 * Locks after some minutes without a touch; the page stays as it is under the veil. Somebody who only reads and
 * moves the mouse keeps the session alive.
 */
function useIdle(minutes: number, active: boolean, onIdle: () => void, onLife: () => void): void {
  const callback = useRef({ onIdle, onLife });
  useEffect(() => {
    callback.current = { onIdle, onLife };
  });
  useEffect(() => {
    if (!active) return undefined;
    let last = Date.now();
    let said = last;
    const touch = (): void => {
      last = Date.now();
    };
    const events = ['pointerdown', 'pointermove', 'keydown', 'wheel'] as const;
    for (const event of events) window.addEventListener(event, touch, { passive: true });
    const timer = setInterval(() => {
      if (Date.now() - last >= minutes * 60_000) callback.current.onIdle();
      else if (last > said && Date.now() - said >= SIGN_OF_LIFE_MS) {
        said = Date.now();
        callback.current.onLife();
      }
    }, 5000);
    return () => {
      clearInterval(timer);
      for (const event of events) window.removeEventListener(event, touch);
    };
  }, [minutes, active]);
}
