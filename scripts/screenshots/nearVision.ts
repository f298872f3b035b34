import { command, listed, page, seen, shot, versionOf } from './stage';

/** Far and near. */
export async function nearVisionPictures(): Promise<void> {
  const efua = await seen(
    'Efua Brandreth',
    { danger: ['none'], goals: ['near', 'everyDay'], work: ['indoors'], tell: 'Conducts a choir: the score, and the back row' },
    { staining: 0, pupilRoom: 4, pupilDim: 5.5 },
    { staining: 0, pupilRoom: 4, pupilDim: 6 },
  );
  const inEfua = async (name: string, input: object) => command(name, { visitId: efua.split('/').pop(), version: await versionOf(efua), ...input });
  await inEfua('recordRefraction', {
    ...{ right: '+1.25', left: '+1.50 -0.50 x 95', vertexMm: 12, rightAdd: '+2.00', leftAdd: '+2.00', nearCm: 40, rightNear: 'N5', leftNear: 'N5' },
  });
  await inEfua('recordNearFindings', {
    findings: listed({ dominanceBlur: 'right', dominanceSighting: 'right', coverTest: 'straight', oldSquint: 'no', score: 68, phone: 36, road: 600 }),
  });
  await page.goto(`${efua}/near-vision`);
  await page.getByTestId('way-recommended').waitFor();
  await shot('near-vision');
}
