import { command, graded, page, press, quiet, seen, shot, versionOf } from './stage';

/** A red eye, from the danger signs to the referral. */
export async function redEyePictures(): Promise<void> {
  const iola = await seen(
    'Iola Fenmore',
    {
      danger: ['pain', 'light'],
      onset: 'Since last night, worse on waking',
      solution: 'Tidewash',
      medicines: [],
      water: 'shower',
      lastWorn: 'now',
      whichLens: 'monthly',
      sleptIn: 'someNights',
      replacedEvery: 40,
      goals: ['everyDay'],
      daysPerWeek: 7,
      hoursPerDay: 15,
    },
    {
      lidMargin: 1,
      lashes: 0,
      bulbarRedness: 3.5,
      limbalRedness: 3,
      papillae: 1,
      staining: 2.5,
      stainingPlace: 'central',
      vessels: 0,
      infiltrates: 2,
      scars: 0,
      endothelium: 0.5,
      pain: 7,
      discharge: 'watering',
      light: 'hurts',
    },
    {
      lidMargin: 0.5,
      lashes: 0,
      bulbarRedness: 1.5,
      limbalRedness: 1,
      papillae: 1,
      staining: 0.5,
      vessels: 0,
      infiltrates: 0,
      scars: 0,
      endothelium: 0,
      pain: 0,
      discharge: 'none',
      light: 'fine',
    },
  );
  await command('recordFindings', {
    visitId: iola.split('/').pop(),
    version: await versionOf(iola),
    right: [],
    left: [],
    rightSight: [{ way: 'pinhole', acuity: { logMar: 0.4, typed: '20/50' } }],
    leftSight: [{ way: 'pinhole', acuity: { logMar: 0, typed: '20/20' } }],
  });
  await page.goto(`${iola}/eye-health`);
  await press('Acknowledge');
  await press('Open same-day referral');
  await page.getByTestId('step-phoned').getByRole('button').click();
  await quiet();
  const drawn = { eye: 'right', kind: 'infiltrate', nasalMm: 1.5, upMm: -2, longMm: 2.2, acrossMm: 1.4 };
  await command('recordLesion', { visitId: iola.split('/').pop(), version: await versionOf(iola), ...drawn });
  await command('recordFindings', { visitId: iola.split('/').pop(), version: await versionOf(iola), ...graded({ cells: 1 }, {}) });
  await page.goto(`${iola}/red-eye`);
  await page.getByTestId('threat').waitFor();
  await shot('red-eye');
}
