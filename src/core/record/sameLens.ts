import type { LensRow } from './lens';

/** What makes a lens the lens that it is, in whatever version of its family it is listed. */
export type LensIdentity = Pick<LensRow, 'familyCode' | 'sphereD' | 'cylinderD' | 'axisDeg' | 'addBand' | 'baseCurveMm' | 'diameterMm'>;

const near = (a: number | null, b: number | null): boolean => (a === null || b === null ? a === b : Math.abs(a - b) < 1e-6);

/** Are two lenses the same: family, power, addition, curve and diameter? An axis counts where there is a cylinder. */
export const isSameLens = (a: LensIdentity, b: LensIdentity): boolean =>
  a.familyCode === b.familyCode &&
  near(a.sphereD, b.sphereD) &&
  near(a.cylinderD, b.cylinderD) &&
  (near(a.cylinderD, 0) || a.axisDeg === b.axisDeg) &&
  a.addBand === b.addBand &&
  near(a.baseCurveMm, b.baseCurveMm) &&
  near(a.diameterMm, b.diameterMm);
