import type { FamilyAdd } from '../presbyopia/familyAdd';
import type { StartRow } from '../presbyopia/familyTables';
import type { ChangeRule } from '../presbyopia/nextChange';
import type { SetStartRow } from '../irregular/setTable';
import type { Degrees, IsoDate } from '../units';
import type { Geometry, LensBlock, MarkLayout, Modality, Stabilisation } from './family';

export const GEOMETRIES = ['sphere', 'toric', 'multifocal', 'toricMultifocal'] as const satisfies readonly Geometry[];
export const MODALITIES = ['daily', 'twoWeekly', 'monthly', 'quarterly', 'yearly'] as const satisfies readonly Modality[];
/** Of which the kind of lens is advised for a regular cornea. */
export const ADVISED_MODALITIES = ['daily', 'twoWeekly', 'monthly'] as const satisfies readonly Modality[];
export type AdvisedModality = (typeof ADVISED_MODALITIES)[number];
/** Is it one that the advice knows? @example isAdvised('yearly') → false */
export const isAdvised = (modality: Modality): modality is AdvisedModality => (ADVISED_MODALITIES as readonly string[]).includes(modality);
export const MARK_LAYOUTS = ['none', 'six', 'threeNine', 'twelve', 'fiveSixSeven'] as const satisfies readonly MarkLayout[];
export const STABILISATIONS = ['prismBallast', 'thinZones', 'fourPoint'] as const satisfies readonly Stabilisation[];
export const MULTIFOCAL_DESIGNS = ['centreNear', 'centreDistance', 'concentric', 'extendedDepth'] as const;
export type MultifocalDesign = (typeof MULTIFOCAL_DESIGNS)[number];

/**
 * Can a family still be ordered on a day? The last day itself still counts.
 * @example isOrderable({lastOrderOn: '2026-11-24'}, '2026-11-24') → true
 */
export const isOrderable = (family: { readonly lastOrderOn: IsoDate | null }, day: IsoDate): boolean =>
  family.lastOrderOn === null || family.lastOrderOn >= day;

/** Everything a catalogue says of a lens family. Money is minor units; figures the maker does not give are null. */
export interface CatalogueFamily {
  readonly code: string;
  readonly maker: string;
  readonly name: string;
  readonly geometry: Geometry;
  readonly modality: Modality;
  readonly material: string;
  readonly waterPercent: number | null;
  /** 10⁻¹¹ units. */
  readonly dk: number | null;
  /** 10⁻⁹ units. */
  readonly dktCentre: number | null;
  readonly dktThickest: number | null;
  readonly modulusMpa: number | null;
  readonly ionicGroup: string | null;
  readonly overnightApproved: boolean;
  readonly minAge: number | null;
  /** Of lenses that slow a child's myopia, by their label: at least so many hours a day, so many days a week; null for any other. */
  readonly myopiaHours: number | null;
  readonly myopiaDays: number | null;
  readonly markLayout: MarkLayout;
  readonly stabilisation: Stabilisation | null;
  readonly rotationMean: number | null;
  readonly rotationSd: number | null;
  readonly settleMinutes: number;
  readonly packSize: number;
  readonly packPriceMinor: number;
  readonly rebateMinor: number;
  readonly leadDays: number;
  readonly multifocalDesign: MultifocalDesign | null;
  /** What its maker says of its additions; empty: the usual bands. */
  readonly addTable: readonly FamilyAdd[];
  /** The maker's own table of starting pairs; empty where it gives none. */
  readonly startTable: readonly StartRow[];
  /** What the maker changes first where something is weak; null: as the trade does. */
  readonly changeRule: ChangeRule | null;
  /** Its trial lenses serve several people: each is disinfected between two of them. */
  readonly reusableTrial: boolean;
  /** Thick in the centre, so that it smooths the front of an irregular cornea: over it the refraction says nothing. */
  readonly irregular: boolean;
  /** Degrees between neighbouring marks where three are engraved about 6 o'clock; null for any other layout. */
  readonly markSpacing: Degrees | null;
  /** Minutes from insertion until sight is judged, where that takes longer than the fit; null: with the fit. */
  readonly sightMinutes: number | null;
  /** The set's own table of lenses to begin with; empty: its middle lens. */
  readonly setTable: readonly SetStartRow[];
  /** How a trial lens is disinfected between two people, by the set's own instructions, and for how long; null where no lens serves several. */
  readonly disinfectWith: string | null;
  readonly disinfectMinutes: number | null;
  readonly startsOn: IsoDate | null;
  readonly blocks: readonly LensBlock[];
}
