import { addDays, addSeconds, type Eye, type IsoDate } from '../../src/core';
import { must } from '../../src/lib/assert';
import { QUIET, saysQuietly, type Life } from './life';
import type { Practice } from './practice';
import { Visit } from './visit';

/** How long before today the first lens of the set was tried, and the cornea measured before that, days. */
const TRIED = 36;
const MEASURED = 210;
/** How long the lenses lie on the eyes before the fit is judged, and before sight is, s. */
const [FIT, SIGHT] = [11 * 60, 21 * 60];
const PERSON = { name: 'Corwen Sallow', birthDate: '1999-04-18', telephone: '+1 555 010 0458', occupation: 'Boat builder' } as const;
/** A cone of the second stage in both corneas. */
const CONE = { cornea: 'prolate', coneStage: 2, hydrops: 'none', kFlatMm: 7.3, kFlatAxis: 40, hvid: 11.7 } as const;

/** Which lens of the set for cones lies ready under a number. */
async function setLens(practice: Practice, number: string): Promise<string> {
  const [row] = await practice.sql<{ id: string }[]>`
    select d.id from diagnostic_lens d join lens l on l.id = d.lens_id join lens_family_version f on f.id = l.family_version_id
    where d.practice_id = ${practice.id} and f.code = 'heron-cone' and d.number = ${number}`;
  return must(row, `lens ${number} of the set`).id;
}

/**
 * Somebody with cones: measured half a year ago; five weeks ago lenses of a set were tried, the sphere was read, a prescription signed in a finer curve than
 * the set has; the lenses went into their disinfection, and today they come to be seen again.
 */
export async function* coneLife(practice: Practice, today: IsoDate, password: string): Life {
  yield `${addDays(today, -MEASURED)}T14:00:00.000Z`;
  const { wearerId } = await practice.does('renny', 'createWearer', PERSON);
  const first = await Visit.open(practice, 'asha', String(wearerId), 'firstFit', null);
  await first.history({ ...saysQuietly(), eyeHistory: ['rubs'] });
  await first.eyeHealth({ ...QUIET, ...CONE, kSteepMm: 6.9 });
  await first.closes();
  yield `${addDays(today, -TRIED)}T14:00:00.000Z`;
  const visit = await Visit.open(practice, 'asha', String(wearerId), 'refit', null);
  await visit.history({ ...saysQuietly(), eyeHistory: ['rubs'] });
  await visit.eyeHealth({ ...QUIET, ...CONE, kSteepMm: 6.85 });
  const ids: Readonly<Record<Eye, string>> = { right: await setLens(practice, '4'), left: await setLens(practice, '5') };
  await visit.setLenses(ids);
  practice.pass(FIT);
  await visit.setReading({ fit: 'fits', blinks: { right: [8, 8, 9], left: [-3, -4, -3] } });
  practice.pass(SIGHT);
  await visit.setReading({ over: '-1.25', acuity: { logMar: 0.1, typed: '20/25' } });
  const familyId = practice.family('heron-cone').id;
  const lens = (baseCurve: number) => ({ familyId, sphere: -1.25, cylinder: 0, axis: 180, add: null, baseCurve, diameter: 14.5 });
  await visit.signs({ right: lens(8.1), left: lens(8.4) }, 7, password, 'made to order: nothing to take home before');
  await visit.closes();
  yield addSeconds(practice.now, 1800);
  await practice.does('joss', 'disinfectLenses', { diagnosticLensIds: Object.values(ids) });
  await practice.books(String(wearerId), 'longFollowUp', { with: 'asha', from: today, time: '15:30' });
}
