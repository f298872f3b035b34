import { isDropped } from '../advice/dropOut';
import { dktAt, DKT_LIMITS } from '../advice/oxygen';
import type { Kind } from '../advice/recommend';
import { type Source, OWN, TRADE } from '../advice/source';
import { addFor, type FamilyAdd } from '../presbyopia/familyAdd';
import type { StartRow } from '../presbyopia/familyTables';
import type { PracticeSettings } from '../practiceSettings';
import { EYES, type Dioptres, type Eye, type IsoDate } from '../units';
import { isOrderable } from './catalogueFamily';
import { hasAdd, type LensFamily, type Modality, type Stabilisation } from './family';
import type { RotationPrior } from './expectedBlur';

/** A family as the shortlist looks at it. */
export interface ShortlistFamily extends LensFamily {
  readonly code: string;
  readonly modality: Modality;
  readonly material: string;
  readonly overnightApproved: boolean;
  /** Dk/t at the centre and at the thickest zone worn; null when the maker does not say. */
  readonly dktCentre: number | null;
  readonly dktThickest: number | null;
  readonly minAge: number | null;
  readonly stabilisation: Stabilisation | null;
  /** The family's own figures; null while the kind of stabilisation's are taken. */
  readonly rotationPrior: RotationPrior | null;
  readonly lastOrderOn: IsoDate | null;
  /** What its maker says of its additions; without it the usual bands. */
  readonly addTable?: readonly FamilyAdd[];
  /** The maker's starting pairs. */
  readonly startTable?: readonly StartRow[];
}

/** What the wearer and the fitter ask of every family. */
export interface ShortlistWish {
  readonly today: IsoDate;
  readonly age: number;
  /** The kind of lens decided; null while nothing is. */
  readonly kind: Kind | null;
  /** Near additions of the eyes that are to be fitted, D; null where there is none. */
  readonly adds: Readonly<Record<Eye, Dioptres | null>>;
  /** The eye for far, where it is known: a family's start table goes by it. */
  readonly dominant?: Eye | null;
  readonly asks: readonly Eye[];
  /** Lenses this wearer stopped with for a reason that lies in the lens: by code, or as the wearer calls them. */
  readonly dropped: readonly string[];
  /** Powers that the eyes ask, at the cornea, or as made: oxygen is judged at each. Empty while none is known. */
  readonly powers?: readonly { readonly sphere: Dioptres; readonly cylinder: Dioptres }[];
  /** A material class the fitter leaves out for this wearer. */
  readonly withoutMaterial: 'hydrogel' | 'siliconeHydrogel' | null;
  readonly settings: Pick<PracticeSettings, 'oxygenSchool' | 'oxygenByDay'>;
}

export interface Filter {
  readonly id:
    | 'ended'
    | 'forIrregular'
    | 'failedBefore'
    | 'overnightNotApproved'
    | 'oxygenOvernight'
    | 'oxygenByDay'
    | 'material'
    | 'ageLabel'
    | 'addUnknown'
    | 'addNotMade';
  readonly source: Source;
  /** Does it leave this family out? */
  readonly shuts: (family: ShortlistFamily, wish: ShortlistWish) => boolean;
}

const P_OXYGEN: Source = { mark: 'P', text: 'Holden and Mertz 1984; Harvitt and Bonanno 1999; from memory' };
const MAKER: Source = { mark: 'T', text: 'the maker’s label' };
const overnight = (wish: ShortlistWish): boolean => wish.kind?.wear === 'overnight';

/** The additions that the eyes ask for, D. */
const addsAsked = (wish: Pick<ShortlistWish, 'adds' | 'asks'>): readonly Dioptres[] => wish.asks.flatMap((eye) => wish.adds[eye] ?? []);

/** The least oxygen of the powers asked; unknown counts as none. */
const leastDkt = (f: ShortlistFamily, w: ShortlistWish): number =>
  Math.min(...(w.powers && w.powers.length > 0 ? w.powers : [null]).map((p) => dktAt(f, p) ?? 0));

/** What leaves a family out, the gravest first. Each says why; none is weighed against anything. */
export const FILTERS: readonly Filter[] = [
  { id: 'ended', source: MAKER, shuts: (f, w) => !isOrderable(f, w.today) },
  { id: 'forIrregular', source: TRADE, shuts: (f) => f.irregular === true },
  { id: 'failedBefore', source: TRADE, shuts: (f, w) => isDropped(f, w.dropped) },
  { id: 'overnightNotApproved', source: MAKER, shuts: (f, w) => overnight(w) && !f.overnightApproved },
  {
    id: 'oxygenOvernight',
    source: P_OXYGEN,
    shuts: (f, w) => overnight(w) && leastDkt(f, w) < DKT_LIMITS[w.settings.oxygenSchool].overnight,
  },
  {
    id: 'oxygenByDay',
    source: P_OXYGEN,
    shuts: (f, w) => w.settings.oxygenByDay === 'leaveOut' && leastDkt(f, w) < DKT_LIMITS[w.settings.oxygenSchool].day,
  },
  { id: 'ageLabel', source: MAKER, shuts: (f, w) => f.minAge !== null && w.age < f.minAge },
  {
    id: 'material',
    source: TRADE,
    shuts: (f, w) => w.withoutMaterial !== null && (f.material === 'hydrogel' ? 'hydrogel' : 'siliconeHydrogel') === w.withoutMaterial,
  },
  { id: 'addUnknown', source: OWN, shuts: (f, w) => hasAdd(f) && addsAsked(w).length === 0 },
  {
    id: 'addNotMade',
    source: MAKER,
    shuts: (f, w) => hasAdd(f) && addsAsked(w).some((add) => addFor(f, add) === null),
  },
];

/** The first filter that leaves a family out; null when none does. */
export const leftOutBy = (family: ShortlistFamily, wish: ShortlistWish): Filter | null => FILTERS.find((f) => f.shuts(family, wish)) ?? null;

/**
 * Filters that are a clinical judgement, and the name under which the sentence that passes each is kept. The others say what
 * is made, approved, asked or known; nobody passes those.
 */
export const OVERRIDABLE_FILTERS = { failedBefore: 'sameLensAgain', oxygenByDay: 'oxygenByDay', ageLabel: 'ageLabel' } as const satisfies Partial<
  Record<Filter['id'], string>
>;
export type PassableFilter = keyof typeof OVERRIDABLE_FILTERS;
export const isPassableFilter = (id: Filter['id']): id is PassableFilter => Object.hasOwn(OVERRIDABLE_FILTERS, id);
/** Names under which sentences for a lens are kept. */
export const LENS_PASS_RULES: readonly string[] = Object.values(OVERRIDABLE_FILTERS);

/** What leaves a family out even for a prescriber who says why; null when nothing does. */
export const leftOutForAll = (family: ShortlistFamily, wish: ShortlistWish): Filter | null =>
  FILTERS.find((f) => !isPassableFilter(f.id) && f.shuts(family, wish)) ?? null;

/** The judgements a sentence must pass for this family. */
export const toBePassed = (family: ShortlistFamily, wish: ShortlistWish): readonly PassableFilter[] =>
  FILTERS.flatMap((f) => (isPassableFilter(f.id) && f.shuts(family, wish) ? [f.id] : []));

/** Eyes that are to be fitted. */
export const asking = (needs: Readonly<Record<Eye, unknown>>): Eye[] => EYES.filter((eye) => needs[eye] !== null);
