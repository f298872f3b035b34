import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Eye, SignId } from '@/core';
import { useKey } from '../../../common/keys';
import { gradeAfter, WALK } from './model';
import type { FindingsTyped } from './useFindings';

/** Walking the signs by keys, and grading the one that is looked at. */
export function useWalk({ live, closed, put }: FindingsTyped) {
  const [here, setHere] = useState<SignId>(WALK[0] ?? 'lidMargin');
  const [eyeHere, setEyeHere] = useState<Eye>('right');
  const move = (by: number): void => {
    const at = WALK.indexOf(here);
    setHere(WALK[Math.max(0, Math.min(WALK.length - 1, at + by))] ?? here);
  };
  useHotkeys('down', (e) => (e.preventDefault(), move(1)), [here]);
  useHotkeys('up', (e) => (e.preventDefault(), move(-1)), [here]);
  useKey('r', () => setEyeHere('right'), []);
  useKey('l', () => setEyeHere('left'), []);
  const grade = (key: string): void => {
    const now = live.today[eyeHere][here];
    const next = gradeAfter(key, typeof now === 'number' ? now : undefined);
    if (next !== null && !closed) put(eyeHere, here, next);
  };
  useKey('0,1,2,3,4', (e) => grade(e.key), [here, eyeHere, live, closed]);
  useKey('period', () => grade('.'), [here, eyeHere, live, closed]);
  useKey(
    'equal',
    () => {
      const right = live.today.right[here];
      // Stain is graded eye by eye, never copied.
      if (right !== undefined && !closed && here !== 'staining') put('left', here, right);
    },
    [here, live, closed],
  );
  useEffect(() => {
    document.getElementById(`sign-${here}`)?.scrollIntoView({ block: 'nearest' });
  }, [here]);
  const go = (id: SignId, e: Eye): void => {
    setHere(id);
    setEyeHere(e);
  };
  return { here, eyeHere, go };
}
