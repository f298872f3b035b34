'use client';
import { createContext, lazy, Suspense, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { VisitPage } from '@/core';
import { assert } from '@/lib/assert';
import type { Result } from '@/lib/outcome';
import type { SessionContext } from '@/services/sessionContext';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import {
  callCommand,
  callCommandInVisit,
  callLock,
  callQuery,
  Unreached,
  type CommandName,
  type InVisitResult,
  type QueryName,
  type ServiceInput,
  type ServiceOutput,
} from './server';
import { useIdle, useLock } from './idleLock';

/** Not needed by a page's first view, and there before anybody needs it: it is asked for as soon as the page lives. */
const loadSignInAgain = () => import('./SignInAgain');
const SignInAgain = lazy(() => loadSignInAgain().then((m) => ({ default: m.SignInAgain })));

interface Server {
  /** Has a command done; waits, with a panel over the page, while the session has ended or the server is away. Null = given up. */
  readonly command: <N extends CommandName>(name: N, input: ServiceInput<N>) => Promise<Result<ServiceOutput<N>> | null>;
  /** The same in a visit: its answer brings what of the page it changed. */
  readonly commandInVisit: <N extends CommandName>(name: N, input: ServiceInput<N>, page: VisitPage) => Promise<InVisitResult<ServiceOutput<N>> | null>;
  /** Asks a query; waits as a command does. */
  readonly query: <N extends QueryName>(name: N, input: ServiceInput<N>) => Promise<Result<ServiceOutput<N>> | null>;
  /** Asks a query quietly, without panels, for the page itself: no sign of life. */
  readonly poll: <N extends QueryName>(name: N, input: ServiceInput<N>) => Promise<Result<ServiceOutput<N>> | null>;
  /** A query while somebody types: without panels. */
  readonly look: <N extends QueryName>(name: N, input: ServiceInput<N>) => Promise<Result<ServiceOutput<N>> | null>;
  /** A command without panels: autosave. */
  readonly quietly: <N extends CommandName>(name: N, input: ServiceInput<N>) => Promise<Result<ServiceOutput<N>> | null>;
  readonly session: SessionContext;
  /** Takes over what a page has read of practice, person and moment. */
  readonly learn: (session: SessionContext) => void;
  /** The server's moment, ms, ticking locally. */
  readonly now: () => number;
}
const ServerContext = createContext<Server | null>(null);

export function useServer(): Server {
  const server = useContext(ServerContext);
  assert(server, 'ServerProvider');
  return server;
}

/** A clock that is so much earlier was set back; less is the network's doing, ms. */
const SET_BACK_MS = 60_000;

type Wait = { readonly why: 'signedOut' | Unreached['why']; readonly resolve: (goOn: boolean) => void };

/** What was last read of practice, person and moment, by the layout or by a page in it. */
function useSession(first: SessionContext): readonly [SessionContext, (session: SessionContext) => void] {
  const [learnt, setLearnt] = useState(first);
  const learn = useCallback((next: SessionContext): void => setLearnt((now) => (next.now < now.now ? now : next)), []);
  return [first.now > learnt.now ? first : learnt, learn];
}

/** The way to the server, with what stands between: sign-in again, server away, the idle lock. */
export function ServerProvider({ session: first, children }: { readonly session: SessionContext; readonly children: ReactNode }) {
  const t = useTranslations('panels');
  const [session, learn] = useSession(first);
  const [wait, setWait] = useState<Wait | null>(null);
  const [locked, setLocked] = useLock();
  const offset = useRef(0);
  useEffect(() => {
    offset.current = Date.parse(session.now) - Date.now();
  }, [session.now]);

  // Before this the page is only a picture of itself: presses are lost.
  useEffect(() => {
    document.documentElement.dataset.ready = 'yes';
    void loadSignInAgain();
  }, []);

  const hold = useCallback((why: Wait['why']): Promise<boolean> => new Promise((resolve) => setWait({ why, resolve })), []);
  const release = (goOn: boolean): void => {
    wait?.resolve(goOn);
    setWait(null);
  };

  const patiently = useCallback(
    async <R extends Result<unknown>>(send: () => Promise<R>): Promise<R | null> => {
      for (;;) {
        try {
          const result = await send();
          if (result.ok || result.error.kind !== 'signedOut') return result;
          if (!(await hold('signedOut'))) return null;
        } catch (cause) {
          if (!(cause instanceof Unreached)) throw cause;
          if (!(await hold(cause.why))) return null;
        }
      }
    },
    [hold],
  );
  const softly = useCallback(
    async <R extends Result<unknown>>(send: () => Promise<R>): Promise<R | null> => {
      try {
        const result = await send();
        // The session ended or was locked elsewhere: what is on the screen is nobody's to read.
        if (!result.ok && result.error.kind === 'signedOut' && result.error.why !== 'none') setLocked(true);
        return result;
      } catch {
        return null;
      }
    },
    [setLocked],
  );
  const ways = useMemo(
    (): Omit<Server, 'session' | 'learn' | 'now'> => ({
      command: (name, input) => {
        // One press, one key: however often it is sent, it is done once.
        const requestKey = crypto.randomUUID();
        return patiently(() => callCommand(name, input, { requestKey }));
      },
      commandInVisit: (name, input, page) => {
        const requestKey = crypto.randomUUID();
        return patiently(() => callCommandInVisit(name, input, page, { requestKey }));
      },
      query: (name, input) => patiently(() => callQuery(name, input)),
      quietly: (name, input) => softly(() => callCommand(name, input)),
      look: (name, input) => softly(() => callQuery(name, input)),
      poll: (name, input) => softly(() => callQuery(name, input, { background: true })),
    }),
    [patiently, softly],
  );

  useIdle(session.settings.idleMinutes, !locked, {
    onIdle: () => {
      setLocked(true);
      void callLock().catch(() => undefined);
    },
    onLife: () => void ways.quietly('stillHere', {}),
  });

  // What the network took makes the offset a little larger or smaller: a clock on the page never runs back for that.
  const latest = useRef(0);
  const now = useCallback((): number => {
    const moment = Date.now() + offset.current;
    if (moment > latest.current || latest.current - moment > SET_BACK_MS) latest.current = moment;
    return latest.current;
  }, []);
  const value = useMemo((): Server => ({ ...ways, session, learn, now }), [ways, session, learn, now]);
  return (
    <ServerContext.Provider value={value}>
      {children}
      <Panel open={locked || wait?.why === 'signedOut'} onClose={null} title={locked ? t('lockedTitle') : t('signedOutTitle')} opaque={locked}>
        <p className="mb-3">{locked ? t('lockedText') : t('signedOutText')}</p>
        <Suspense fallback={null}>
          <SignInAgain
            viewer={session.viewer}
            onDone={() => {
              setLocked(false);
              release(true);
            }}
          />
        </Suspense>
      </Panel>
      <Panel
        open={wait !== null && wait.why !== 'signedOut' && !locked}
        onClose={() => release(false)}
        title={t(wait?.why === 'diskFull' ? 'diskFullTitle' : 'awayTitle')}
      >
        {wait?.why === 'diskFull' ? <p className="mb-2">{t('diskFullText')}</p> : null}
        <p className="mb-4">{t('awayText')}</p>
        <div className="flex gap-3 justify-end">
          <Button onClick={() => release(false)}>{t('awayLater')}</Button>
          <Button look="act" onClick={() => release(true)}>
            {t('awayAgain')}
          </Button>
        </div>
      </Panel>
    </ServerContext.Provider>
  );
}
