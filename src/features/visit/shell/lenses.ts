import type { NamedLens } from '@/core';
import type { VisitRecord } from './visitData';

/** Lenses of a record by their id: power, and what their family makes as far as the library has it. */
export function lensesOfRecord(record: Pick<VisitRecord, 'lenses' | 'ofLenses'>): (lensId: string) => NamedLens | undefined {
  const families = new Map(record.ofLenses.map((f) => [f.code, f]));
  return (lensId) => {
    const lens = record.lenses[lensId];
    if (!lens) return undefined;
    const family = families.get(lens.familyCode);
    return {
      name: lens.familyName,
      power: { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg },
      tried: family ? { family, baseCurve: lens.baseCurveMm, diameter: lens.diameterMm } : null,
    };
  };
}
