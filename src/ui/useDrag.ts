import { useEffect, useLayoutEffect, useRef, useState, type PointerEvent } from 'react';

/** A hand that has not moved for this long rests, ms. */
const REST_MS = 120;

interface DragOptions<V, P> {
  readonly value: V;
  readonly disabled: boolean;
  /** Where on the drawing the pointer is; null while the drawing is not on the page. */
  readonly point: (event: PointerEvent) => P | null;
  /** The value once the pointer has gone from one point to another. */
  readonly moved: (from: { readonly point: P; readonly value: V }, to: P) => V;
  readonly same: (a: V, b: V) => boolean;
  /** Told when the hand rests or lets go, and before any key or other press acts: never at every move. */
  readonly onChange: (value: V) => void;
}

/**
 * A value dragged on a drawing. The drawing follows the hand at once (`shown`); the page around it, which reckons
 * with the value, hears of it when the hand rests, so that a drag never waits for the reckoning.
 */
export function useDrag<V, P>({ value, disabled, point, moved, same, onChange }: DragOptions<V, P>) {
  const [held, setHeld] = useState<V | null>(null);
  const drag = useRef<{ readonly pointer: number; readonly point: P; readonly value: V; now: V; told: V } | null>(null);
  const rest = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const tell = (): void => {
    clearTimeout(rest.current);
    const { current } = drag;
    if (!current || same(current.now, current.told)) return;
    current.told = current.now;
    onChange(current.now);
  };
  // The latest telling, for the listeners below: they outlive the drawing that hung them up.
  const latest = useRef(tell);
  useLayoutEffect(() => {
    latest.current = tell;
  });
  const dragging = held !== null;
  useEffect(() => {
    if (!dragging) return;
    const before = (): void => latest.current();
    window.addEventListener('keydown', before, true);
    window.addEventListener('pointerdown', before, true);
    return () => {
      clearTimeout(rest.current);
      window.removeEventListener('keydown', before, true);
      window.removeEventListener('pointerdown', before, true);
    };
  }, [dragging]);

  const onPointerDown = (event: PointerEvent<SVGSVGElement>): void => {
    const from = point(event);
    if (disabled || from === null || drag.current) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { pointer: event.pointerId, point: from, value, now: value, told: value };
  };
  const onPointerMove = (event: PointerEvent): void => {
    const { current } = drag;
    // Another finger on the drawing does not pull at what this one holds.
    if (current?.pointer !== event.pointerId) return;
    const to = point(event);
    if (to === null) return;
    const now = moved(current, to);
    if (same(now, current.now)) return;
    current.now = now;
    setHeld(now);
    clearTimeout(rest.current);
    rest.current = setTimeout(() => latest.current(), REST_MS);
  };
  const onPointerUp = (event: PointerEvent): void => {
    if (drag.current?.pointer !== event.pointerId) return;
    tell();
    drag.current = null;
    setHeld(null);
  };
  return { shown: held ?? value, dragging, on: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: onPointerUp } };
}
