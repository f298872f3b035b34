'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { draftKey, forget, keep, readKept } from '../drafts';
import { useDeeds } from '../DeedsProvider';
import { useVisit } from './VisitProvider';

export type DraftStep = 'power' | 'lens' | 'onEye' | 'final' | 'teach' | 'supply';
export type DraftState = 'empty' | 'saving' | 'saved' | 'waiting';
type Body = Readonly<Record<string, string>>;

const isBody = (value: unknown): value is Body => typeof value === 'object' && value !== null && Object.values(value).every((v) => typeof v === 'string');
const SAVE_AFTER_MS = 400;

export interface Draft {
  readonly body: Body;
  set(key: string, value: string): void;
  /** Lets go of the draft: what was typed is recorded. */
  clear(): void;
  readonly state: DraftState;
  /** Others with unfinished typing in this step. */
  readonly others: readonly string[];
}

/** Unfinished typing of one person in one step: kept in the tab at once and on the server a moment later. */
export function useDraft(step: DraftStep): Draft {
  const { record } = useVisit();
  const { quietly, house } = useDeeds();
  const visitId = record.visit.id;
  const me = house.viewer.personId;
  const key = draftKey(visitId, step, me);
  const stored = record.drafts.find((d) => d.step === step && d.authorId === me);
  const [body, setBody] = useState<Body>(() => (isBody(stored?.body) ? stored.body : {}));
  const [state, setState] = useState<DraftState>(stored ? 'saved' : 'empty');
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const flying = useRef(false);
  const pending = useRef<{ body: Body; sequence: number } | null>(null);

  const flush = useCallback(async (): Promise<void> => {
    if (flying.current || !pending.current) return;
    flying.current = true;
    const sent = pending.current;
    setState('saving');
    const result = await quietly('saveDraft', { visitId, step, body: { ...sent.body }, sequence: sent.sequence });
    flying.current = false;
    const isNewest = pending.current === sent;
    if (result?.ok) {
      if (isNewest) {
        pending.current = null;
        setState(Object.keys(sent.body).length === 0 ? 'empty' : 'saved');
      } else void flush();
    } else setState('waiting');
  }, [quietly, step, visitId]);

  const push = useCallback(
    (next: Body): void => {
      const draft = { body: next, sequence: Date.now() };
      pending.current = draft;
      if (Object.keys(next).length === 0) forget(key);
      else keep(key, draft);
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), SAVE_AFTER_MS);
    },
    [flush, key],
  );

  // What this tab kept is newer than the server's copy when the page was left before it was sent.
  useEffect(() => {
    const kept = readKept(key);
    if (!kept || kept.sequence <= (stored?.sequence ?? 0)) return;
    setBody(kept.body);
    push(kept.body);
    // Only once, on arrival.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    const retry = setInterval(() => {
      if (pending.current && !flying.current) void flush();
    }, 3000);
    return () => clearInterval(retry);
  }, [flush]);

  const latest = useRef(body);
  useEffect(() => {
    latest.current = body;
  }, [body]);
  const set = useCallback(
    (name: string, value: string): void => {
      const next = { ...latest.current, [name]: value };
      if (value === '') delete next[name];
      latest.current = next;
      setBody(next);
      push(next);
    },
    [push],
  );
  const clear = useCallback((): void => {
    if (timer.current) clearTimeout(timer.current);
    pending.current = null;
    latest.current = {};
    setBody({});
    setState('empty');
    forget(key);
  }, [key]);
  const others = useMemo(() => record.drafts.filter((d) => d.step === step && d.authorId !== me).map((d) => d.author), [record.drafts, step, me]);
  return { body, set, clear, state, others };
}
