import type { LensAdd, Geometry, MarkLayout, Modality } from '../lens/family';

export interface LensSpec {
  readonly familyVersionId: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: LensAdd | null;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}

export interface LensRow extends LensSpec {
  readonly id: string;
  readonly familyCode: string;
  readonly familyName: string;
  readonly maker: string;
  readonly geometry: Geometry;
  readonly modality: Modality;
  readonly markLayout: MarkLayout;
  readonly settleMinutes: number;
  /** For irregular corneas: the refraction does not count over it. */
  readonly irregular: boolean;
  /** Minutes until sight is judged, where that takes longer than the fit; null: with the fit. */
  readonly sightMinutes: number | null;
  /** Degrees between neighbouring marks where three are engraved about 6 o'clock. */
  readonly markSpacing: number | null;
  readonly listed: boolean;
  /** By the label of lenses that slow a child's myopia; null or absent for any other. */
  readonly myopiaHours?: number | null;
  readonly myopiaDays?: number | null;
}
