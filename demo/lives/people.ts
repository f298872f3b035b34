import type { AdvisedModality } from '../../src/core';
import { addDays, addYears } from '../../src/core';
import type { Chance } from '../../src/lib/chance';

/** What is special about a wearer's years. */
export interface Story {
  /** Days ago of the first fit. */
  readonly since: number;
  readonly modality: AdvisedModality;
  readonly age: number;
  /** Cylinder enough for a toric. */
  readonly astigmatic?: true;
  /** Where the bottom mark of their torics goes, degrees to the examiner's left; and how far it strays. */
  readonly turn?: number;
  readonly strays?: number;
  readonly presbyope?: true;
  /** Wears each lens longer than it lasts: so many times as long. */
  readonly stretches?: number;
  /** Comes with a red, painful eye so many days ago. */
  readonly redEye?: number;
  /** Stops wearing lenses after so many days, and says why. */
  readonly givesUp?: { readonly after: number; readonly why: 'dryness' | 'cost' | 'handling' };
  /** Did not come to their last appointment. */
  readonly misses?: true;
  /** Handled lenses before they came here. */
  readonly handles?: true;
}

/**
 * The practice's wearers, at every stage of the years with lenses: just fitted, an aftercare to come, an order on its way,
 * boxes lying here, years of orders, running out, stretched, stopped, given up. When they began says where they stand.
 */
export const STORIES: readonly Story[] = [
  // Years of orders.
  { since: 1180, modality: 'monthly', age: 41, handles: true },
  { since: 1120, modality: 'monthly', age: 33, astigmatic: true, turn: 5 },
  { since: 1060, modality: 'twoWeekly', age: 29 },
  { since: 1010, modality: 'daily', age: 24 },
  { since: 980, modality: 'monthly', age: 38, astigmatic: true, turn: -6, handles: true },
  { since: 930, modality: 'monthly', age: 45, handles: true },
  { since: 880, modality: 'daily', age: 31, astigmatic: true, turn: 2 },
  { since: 840, modality: 'monthly', age: 27 },
  { since: 790, modality: 'twoWeekly', age: 36, astigmatic: true, turn: 8, handles: true },
  { since: 760, modality: 'daily', age: 19 },
  { since: 735, modality: 'monthly', age: 52, handles: true },
  { since: 690, modality: 'monthly', age: 22 },
  { since: 640, modality: 'daily', age: 35, handles: true },
  { since: 600, modality: 'monthly', age: 30, astigmatic: true, turn: 0 },
  { since: 560, modality: 'twoWeekly', age: 26 },
  { since: 520, modality: 'monthly', age: 39, handles: true },
  { since: 470, modality: 'daily', age: 28 },
  { since: 430, modality: 'monthly', age: 34 },
  // A year that ends these weeks.
  { since: 392, modality: 'monthly', age: 44, handles: true },
  { since: 384, modality: 'daily', age: 23 },
  { since: 377, modality: 'monthly', age: 31, astigmatic: true, turn: 4 },
  { since: 370, modality: 'twoWeekly', age: 37 },
  // In the middle of the first year.
  { since: 300, modality: 'monthly', age: 25 },
  { since: 240, modality: 'daily', age: 42, handles: true },
  { since: 215, modality: 'monthly', age: 29, astigmatic: true, turn: 7 },
  { since: 190, modality: 'twoWeekly', age: 33 },
  { since: 150, modality: 'monthly', age: 20 },
  { since: 110, modality: 'daily', age: 48, handles: true },
  { since: 80, modality: 'monthly', age: 36, astigmatic: true, turn: -4, handles: true },
  // Just ordered, on its way, lying here.
  { since: 30, modality: 'monthly', age: 27 },
  { since: 26, modality: 'monthly', age: 40, handles: true },
  { since: 23, modality: 'daily', age: 32 },
  { since: 21, modality: 'twoWeekly', age: 24 },
  { since: 19, modality: 'monthly', age: 35, astigmatic: true, turn: 6 },
  { since: 17, modality: 'daily', age: 21 },
  // Fitted these days: their aftercare is to come.
  { since: 11, modality: 'monthly', age: 28 },
  { since: 8, modality: 'monthly', age: 46, handles: true },
  { since: 6, modality: 'twoWeekly', age: 31 },
  { since: 4, modality: 'daily', age: 26 },
  // Presbyopes.
  { since: 700, modality: 'monthly', age: 56, presbyope: true, handles: true },
  { since: 265, modality: 'monthly', age: 51, presbyope: true, handles: true },
  { since: 13, modality: 'monthly', age: 49, presbyope: true },
  // Children.
  { since: 420, modality: 'daily', age: 13 },
  { since: 95, modality: 'daily', age: 11 },
  { since: 16, modality: 'daily', age: 15 },
  // A toric that turns, and one that strays.
  { since: 340, modality: 'monthly', age: 34, astigmatic: true, turn: 15 },
  { since: 12, modality: 'monthly', age: 38, astigmatic: true, turn: 5, strays: 14, handles: true },
  // Stretching.
  { since: 650, modality: 'twoWeekly', age: 30, stretches: 2, handles: true },
  { since: 460, modality: 'monthly', age: 27, stretches: 1.5 },
  // A stopped eye, some who gave up, one who did not come.
  { since: 510, modality: 'monthly', age: 29, redEye: 1, handles: true },
  { since: 820, modality: 'monthly', age: 43, givesUp: { after: 120, why: 'dryness' }, handles: true },
  { since: 260, modality: 'twoWeekly', age: 61, givesUp: { after: 40, why: 'handling' } },
  { since: 14, modality: 'monthly', age: 22, misses: true },
];

/** Made up, first and last. */
const FIRST =
  'Aldous Brisa Corvin Delphie Edda Fenn Gisla Harl Ilse Jorun Kestra Ludo Mirela Nils Odile Perran Quilla Runa Silvan Tamsin Ulla Vesper Wren Ysolde Zeno Anouk Bram Clio Darragh Esme Fabian Greta Hollis Imre Jago Katya Lowen Maren Nye Orsolya Petra Ravi Saskia Tobin Una Viggo Willa Xenia Yannis Zora Amalia Benedek Cerys'.split(
    ' ',
  );
const LAST =
  'Ashgrove Bellweather Cattermoor Dunmarrow Eastlake Fairbrine Gorseby Hallowick Inchmere Jessamy Kettlewell Lowdry Marrick Netherby Oxbow Penwarden Quarrie Ravensholt Saltby Thornquay Underhay Varley-Moss Whinfell Yarrowdale Zellwood Arkenfell Brackwater Crosswyn Drumlin Elverstone Foxcombe Greyling Hartsease Islewick Kelder Lindmoor Mossbank Norquay Orchardson Pellgrave Rushmere Sandholm Tidewell Upjohn Vennor Wickstead Yelland Alderfen Birkwood Cobham-Reed Dellacourt Emberley Fossdyke'.split(
    ' ',
  );
const WORK = [
  'ferry steward',
  'teacher',
  'carpenter',
  'nurse',
  'harbour pilot',
  'librarian',
  'chef',
  'bus driver',
  'programmer',
  'florist',
  'boat builder',
  'accountant',
  'potter',
  'surveyor',
  'journalist',
  'fishmonger',
];

/** Somebody of the practice. */
export interface Somebody {
  readonly name: string;
  readonly birthDate: string;
  readonly telephone: string;
  readonly occupation: string;
  readonly guardian: string;
}

/** The person of the n-th story. @param today the day on which they are as old as it says */
export function somebody(chance: Chance, n: number, story: Story, today: string): Somebody {
  const first = FIRST[n % FIRST.length] ?? '';
  const last = LAST[(n * 7 + 3) % LAST.length] ?? '';
  return {
    name: `${first} ${last}`,
    birthDate: addDays(addYears(today, -story.age), -chance.whole(5, 350)),
    telephone: `555 0${200 + n}`,
    occupation: story.age < 19 ? 'at school' : chance.pick(WORK),
    guardian: story.age - story.since / 365 < 19 ? `${FIRST[(n + 11) % FIRST.length] ?? ''} ${last}, parent` : '',
  };
}
