import { addDays, type IsoDate } from '../../src/core';
import type { Life } from './life';
import type { Practice } from './practice';

/** How long before today the drawer's levels were set, and a lot was lent, days. */
const LEVELS_SET = 30;
const LENT = 9;
/** Lenses of which a level is kept, and how many of each. */
const KEPT = 12;
const LEAST = 3;

interface Lot {
  readonly id: string;
  readonly familyVersionId: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly addBand: string | null;
  readonly baseCurveMm: number;
  readonly diameterMm: number;
  readonly count: number;
}

/** The lenses that were used most, as the desk would choose them. */
const mostUsed = (practice: Practice) => practice.sql<Lot[]>`
  select s.id, l.family_version_id, l.sphere_d, l.cylinder_d, l.axis_deg, l.add_band, l.base_curve_mm, l.diameter_mm, s.count
  from trial_stock s join lens l on l.id = s.lens_id
  where s.practice_id = ${practice.id} and l.base_curve_mm is not null and l.diameter_mm is not null
  order by (select coalesce(sum(-m.change), 0) from trial_movement m where m.trial_stock_id = s.id and m.kind = 'putOn') desc, s.id limit ${KEPT}`;

/** The desk keeps levels of the trial lenses that are used most, and lends some to a branch. */
export async function* drawerLife(practice: Practice, today: IsoDate): Life {
  yield `${addDays(today, -LEVELS_SET)}T13:00:00.000Z`;
  const lots = await mostUsed(practice);
  const levels = lots.map((l) => ({
    lens: {
      familyId: l.familyVersionId,
      sphere: l.sphereD,
      cylinder: l.cylinderD,
      axis: l.axisDeg,
      add: l.addBand,
      baseCurve: l.baseCurveMm,
      diameter: l.diameterMm,
    },
    least: LEAST,
  }));
  if (levels.length > 0) await practice.does('renny', 'setTrialLevels', { levels });
  yield `${addDays(today, -LENT)}T14:00:00.000Z`;
  const lot = lots.find((l) => l.count > 2);
  if (lot) await practice.does('renny', 'lendTrials', { trialStockId: lot.id, count: 2, lentTo: 'Point branch', dueOn: addDays(today, LENT) });
}
