import { page, seen, shot } from './stage';

/** Eyes that four years of long days have marked. */
export async function eyeHealthPictures(): Promise<void> {
  const lorcan = await seen(
    'Lorcan Stiles-Webb',
    {
      danger: ['none'],
      lastWorn: 'now',
      whichLens: 'twoWeekly',
      sleptIn: 'never',
      replacedEvery: 29,
      goals: ['screens'],
      daysPerWeek: 7,
      hoursPerDay: 15,
      tell: 'Air-conditioned edit room',
    },
    { lidMargin: 2.5, lashes: 0.5, bulbarRedness: 2, limbalRedness: 1.5, papillae: 1, staining: 1, vessels: 1.5, infiltrates: 0, scars: 0, endothelium: 0.5 },
    { lidMargin: 2, lashes: 0.5, bulbarRedness: 1.5, limbalRedness: 1, papillae: 1, staining: 0.5, vessels: 1, infiltrates: 0, scars: 0.5, endothelium: 0.5 },
  );
  await page.goto(`${lorcan}/eye-health`);
  await shot('eye-health');
}
