'use client';
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import type { Problem, Result } from '@/lib/outcome';
import type { VisitPart } from '@/services/visit/slices';
import { holdDrafts, isTyping } from '../../common/draftKeeper';
import type { CommandName, ServiceInput, ServiceOutput } from '../../common/server';
import { useServer } from '../../common/ServerProvider';
import { useNews } from '../../common/news';
import { LENS_MOVED } from '../../common/lensMoved';
import { later, withAnswer, type VisitData } from './visitData';

/** Commands that change a visit: their input without what the page itself knows. */
export type InVisit<N extends CommandName> = Omit<ServiceInput<N>, 'visitId' | 'version'>;

/** Commands after which the settle clocks are other ones. */
const MOVES_LENSES: readonly string[] = ['putOnTrials', 'takeOff', 'putBack', 'correct', 'swapEyes', 'undo', 'recordBroughtIn', 'answerWorn'];

export interface VisitCommands {
  /** What is shown; null until the first page has come. */
  readonly data: VisitData | null;
  readonly busy: boolean;
  readonly problem: Problem | null;
  readonly clearProblem: () => void;
  /** Takes what a page has read. */
  readonly take: (came: VisitData) => void;
  /** Does a command in the visit; its answer brings what it changed. Null: given up, or the press before is still on its way. */
  readonly run: <N extends CommandName>(name: N, input: InVisit<N>) => Promise<Result<ServiceOutput<N>> | null>;
  /** Looks quietly for what is new; stays as it is while the server is away. */
  readonly refresh: () => Promise<void>;
}

/** What is shown of a visit: taken from pages and answers, and looked at again quietly. */
function useShown(visitId: string) {
  const { poll } = useServer();
  const [data, setData] = useState<VisitData | null>(null);
  const newest = useRef<VisitData | null>(null);
  const show = useCallback((next: VisitData): void => {
    newest.current = next;
    setData(next);
  }, []);
  const refresh = useCallback(async (): Promise<void> => {
    const page = newest.current?.page;
    if (page === undefined) return;
    const fresh = await poll('readVisit', { visitId, page });
    if (fresh?.ok && newest.current?.page === page) show(later(newest.current, { ...fresh.value.part, page }));
  }, [poll, visitId, show]);
  /** Looks whether somebody else has recorded something; nothing is read where nothing has changed. */
  const lookForNewer = useCallback(async (): Promise<void> => {
    const shown = newest.current;
    if (shown === null) return;
    const { page } = shown;
    const fresh = await poll('readNewer', { visitId, page, version: shown.head.visit.version });
    if (fresh?.ok && fresh.value.part && newest.current?.page === page) show(later(newest.current, { ...fresh.value.part, page }));
  }, [poll, visitId, show]);
  const take = useCallback(
    (came: VisitData): void => {
      const old = came.head.visit.version < (newest.current?.head.visit.version ?? 0);
      show(later(newest.current, came));
      // The browser's way back may bring a page as it was: it is read again.
      if (old) void refresh();
    },
    [show, refresh],
  );
  return { data, newest, show, refresh, lookForNewer, take };
}

/**
 * What others record is shown as it is recorded, and where nothing can be heard when somebody comes back to the page. While
 * something is typed the page stays as it was read: who records what another has changed meanwhile is told, and not passed by.
 */
function useLookOut(
  visitId: string,
  newest: RefObject<VisitData | null>,
  running: RefObject<boolean>,
  { refresh, lookForNewer }: { readonly refresh: () => Promise<void>; readonly lookForNewer: () => Promise<void> },
): void {
  useNews((what) => {
    // A command on its way brings what it changed, and what others did.
    if (running.current || isTyping()) return;
    if (what === 'look') void lookForNewer();
    else if (what.id === visitId && what.what === 'order') void refresh();
    else if (what.id === visitId && what.what === 'visit' && what.version > (newest.current?.head.visit.version ?? 0)) void lookForNewer();
  });
  useEffect(() => {
    const look = (): void => {
      if (document.visibilityState === 'visible' && !running.current && !isTyping()) void lookForNewer();
    };
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, [lookForNewer, running]);
}

/** One visit in the browser: commands go through here, so that two people never silently overwrite each other. */
export function useVisitData(visitId: string): VisitCommands {
  const { commandInVisit } = useServer();
  const { data, newest, show, refresh, lookForNewer, take } = useShown(visitId);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const running = useRef(false);
  const run = useCallback(
    async <N extends CommandName>(name: N, input: InVisit<N>): Promise<Result<ServiceOutput<N>> | null> => {
      // A second press while the first is on its way is the same press.
      const shown = newest.current;
      if (running.current || shown === null) return null;
      running.current = true;
      setBusy(true);
      const release = await holdDrafts();
      try {
        const full = { ...input, visitId, version: shown.head.visit.version } as unknown as ServiceInput<N>;
        const result = await commandInVisit(name, full, shown.page);
        if (!result) return null;
        if (!result.ok) {
          setProblem(result.error);
          return result;
        }
        setProblem(null);
        if (MOVES_LENSES.includes(name)) window.dispatchEvent(new Event(LENS_MOVED));
        const part: VisitPart | null = result.part;
        if (part && newest.current?.page === shown.page) show(withAnswer(newest.current, part));
        else await refresh();
        return result;
      } finally {
        release();
        running.current = false;
        setBusy(false);
      }
    },
    [commandInVisit, visitId, newest, show, refresh],
  );

  useLookOut(visitId, newest, running, { refresh, lookForNewer });

  const clearProblem = useCallback(() => setProblem(null), []);
  return { data, busy, problem, clearProblem, take, run, refresh };
}
