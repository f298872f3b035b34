'use client';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useKey } from './keys';
import { assert } from '@/lib/assert';

/** One step of a working: what, and what it comes to. */
export interface WorkingLine {
  readonly what: string;
  readonly comes: string;
  readonly strong?: boolean;
}
export interface WorkingBlock {
  readonly id: string;
  readonly title: string;
  readonly lines: readonly WorkingLine[];
  readonly foot?: string;
}

interface OpenOne {
  readonly openId: string | null;
  readonly toggle: (id: string) => void;
}
const WorkingContext = createContext<OpenOne | null>(null);

/** Holds which working is open; `W` opens the next. */
export function WorkingProvider({
  ids,
  initial,
  children,
}: {
  readonly ids: readonly string[];
  readonly initial: string | null;
  readonly children: ReactNode;
}) {
  const [chosen, setOpenId] = useState<string | null>(initial);
  const openId = chosen !== null && ids.includes(chosen) ? chosen : null;
  useKey(
    'w',
    () => {
      const next = openId === null ? 0 : ids.indexOf(openId) + 1;
      setOpenId(ids[next] ?? null);
    },
    [ids, openId],
  );
  const value = useMemo((): OpenOne => ({ openId, toggle: (id) => setOpenId(openId === id ? null : id) }), [openId]);
  return <WorkingContext.Provider value={value}>{children}</WorkingContext.Provider>;
}

function useWorking(): OpenOne {
  const open = useContext(WorkingContext);
  assert(open, 'WorkingProvider');
  return open;
}

/** A computed figure that opens to its working. */
export function Figure({ id, children, label }: { readonly id: string; readonly children: ReactNode; readonly label?: string }) {
  const { openId, toggle } = useWorking();
  return (
    <button type="button" className="figure" aria-expanded={openId === id} aria-label={label} onClick={() => toggle(id)}>
      {children}
    </button>
  );
}

/** Which working is open; null for none. */
export const useOpenWorking = (): string | null => useWorking().openId;

/** The open working, hung in the margin. */
export function OpenWorking({ blocks }: { readonly blocks: readonly WorkingBlock[] }) {
  const openId = useOpenWorking();
  const block = blocks.find((b) => b.id === openId);
  return block ? <WorkingView block={block} /> : null;
}

/** A working, step by step. */
export function WorkingView({ block }: { readonly block: WorkingBlock }) {
  return (
    <section className="working" aria-live="polite" data-testid="working">
      <h3 className="mb-1">{block.title}</h3>
      {block.lines.map((line, index) => (
        <div key={index} className="working-line" data-strong={line.strong}>
          <span>{line.what}</span>
          <span>{line.comes}</span>
        </div>
      ))}
      {block.foot ? <p className="note mt-2">{block.foot}</p> : null}
    </section>
  );
}
