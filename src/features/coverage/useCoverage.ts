import { useEffect, useRef, useState } from 'react';
import type { DrawerLens } from '@/core';
import type { CoveragePage } from '@/services/coverage/queries';
import type { CoverageAnswer } from '@/workers/coverage.worker';
import { startCoverage, type CoverageThread } from '@/workers/coverage';

export type CoverageData = Omit<CoveragePage, 'session'>;
const whole = (text: string): number => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : NaN);

/** Limits of what can be asked. Our own choice: a drawer of a thousand lenses is a store. */
export const MOST_LENSES = { min: 2, max: 1000 };
export const MOST_DEPTH = { min: 1, max: 20 };
/** Lenses that are thought of first. Our own choice. */
const USUAL_LENSES = 60;

const outside = (value: number, { min, max }: { readonly min: number; readonly max: number }): boolean => !(value >= min && value <= max);

/** What is asked of the plan, the plan under way in its own thread, and what came of it. */
export function useCoverage({ needs, families, drawer }: CoverageData) {
  const inDrawer = new Set(drawer.map((d) => d.familyCode));
  const first = families.filter((f) => inDrawer.has(f.code));
  const [codes, setCodes] = useState<readonly string[]>((first.length > 0 ? first : families).map((f) => f.code));
  const [most, setMost] = useState(String(USUAL_LENSES));
  const [depth, setDepth] = useState('1');
  const [share, setShare] = useState<number | null>(null);
  const [answer, setAnswer] = useState<CoverageAnswer | null>(null);
  const thread = useRef<CoverageThread | null>(null);
  useEffect(() => () => thread.current?.end(), []);
  const asked = { most: whole(most), depth: whole(depth) };
  const faults = { most: outside(asked.most, MOST_LENSES), depth: outside(asked.depth, MOST_DEPTH), families: codes.length === 0 };
  const lenses: readonly DrawerLens[] = drawer.flatMap((d) =>
    codes.includes(d.familyCode) && d.baseCurveMm !== null && d.diameterMm !== null
      ? [
          {
            familyCode: d.familyCode,
            power: { sphere: d.sphereD, cylinder: d.cylinderD, axis: d.axisDeg },
            baseCurve: d.baseCurveMm,
            diameter: d.diameterMm,
            count: d.count,
          },
        ]
      : [],
  );
  const plan = async (): Promise<void> => {
    if (Object.values(faults).some(Boolean) || share !== null) return;
    thread.current ??= startCoverage();
    setShare(0);
    const made = await thread.current.plan({ needs, families: families.filter((f) => codes.includes(f.code)), asked, drawer: lenses }, setShare);
    setAnswer(made);
    setShare(null);
  };
  return {
    codes,
    toggle: (code: string) => setCodes(codes.includes(code) ? codes.filter((c) => c !== code) : [...codes, code]),
    most,
    setMost,
    depth,
    setDepth,
    faults,
    share,
    answer,
    plan,
    stop: () => thread.current?.stop(),
  };
}
