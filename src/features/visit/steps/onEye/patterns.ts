import { mistakable, overPatterns, overReadOf, type Eye, type NamedLens, type OverPattern } from '@/core';
import type { VisitRecord } from '../../shell/visitData';
import type { LiveEye } from './model';

/** What the over-refractions look like, with what is typed on top. */
export function livePatterns(
  record: VisitRecord,
  live: Readonly<Record<Eye, LiveEye>>,
  lensOf: (id: string) => NamedLens | undefined,
): Readonly<Record<Eye, readonly OverPattern[]>> {
  const read = (eye: Eye) => {
    const { state, over, overTurn, stats, verdict, lens } = live[eye];
    if (!over || !lens || state.confirmed === null) return null;
    const asRecorded = overReadOf(
      {
        ...state,
        turn: stats,
        overTurn,
        verdict,
        overRefraction: {
          rootId: '',
          rows: [],
          current: {
            ...blankOver,
            eye,
            sphereD: over.power.sphere,
            cylinderD: over.power.cylinder,
            axisDeg: over.power.axis,
            vertexMm: over.vertexMm,
          },
        },
      },
      lensOf(lens.id),
    );
    return asRecorded;
  };
  const known = (eye: Eye) => mistakable(record.facts, eye, live[eye].state.onEye?.rootId ?? null, lensOf);
  return overPatterns({ right: read('right'), left: read('left') }, { right: known('right'), left: known('left') });
}
const blankOver = {
  id: '',
  rootId: '',
  correctsId: null,
  voided: false,
  visitId: '',
  observedAt: '',
  recordedAt: '',
  recordedBy: '',
  recordedByName: '',
  reason: null,
  lensOnEyeId: '',
  typedText: '',
  acuityLogMar: null,
  acuityTyped: null,
  provisional: false,
  cylinderTested: false,
  plusHalf: null,
  control: 'none',
} as const;
