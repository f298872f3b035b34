import type { Page } from '@playwright/test';
import { command, readRecord } from './site';

/** What tests of presbyopes read of a visit. */
export interface Shown {
  readonly families: readonly { readonly id: string; readonly code: string }[];
  readonly facts: {
    readonly onEye: readonly { readonly rootId: string; readonly current: { readonly eye: string; readonly lot: string; readonly expiresOn: string } | null }[];
  };
}
const at = async (page: Page, visitId: string) => ({ visitId, version: (await readRecord<Shown>(page, visitId)).visit.version });
export const BORN = '1974-05-06';

/** Does a command in a visit. */
export const does = async (page: Page, visitId: string, name: string, input: object) => command(page, name, { ...(await at(page, visitId)), ...input });
/** The lenses on the eyes as boxes that go home. */
export async function boxes(page: Page, visitId: string) {
  const { facts } = await readRecord<Shown>(page, visitId);
  const of = (eye: string) => {
    const on = facts.onEye.findLast((c) => c.current?.eye === eye);
    return { lensOnEyeId: on?.rootId, lot: on?.current?.lot, expiresOn: on?.current?.expiresOn, lensCount: 1 };
  };
  return { right: of('right'), left: of('left') };
}
export const codeOf = async (page: Page, visitId: string, code: string) => (await readRecord<Shown>(page, visitId)).families.find((f) => f.code === code)?.id;

/** Monovision on the eyes: left far −2.00, right near −0.50 at 33 cm, by boxes in the hand. */
export async function monovisionOn(page: Page, name: string) {
  const { wearerId = '' } = await command(page, 'createWearer', { name, birthDate: BORN });
  const { visitId = '' } = await command(page, 'openVisit', { wearerId, kind: 'firstFit' });
  await does(page, visitId, 'recordRefraction', { right: '-2.00', left: '-2.00', vertexMm: 12, rightAdd: '+1.50', leftAdd: '+1.50', nearCm: 33 });
  await does(page, visitId, 'recordNearFindings', {
    findings: [
      { sign: 'dominanceBlur', value: 'left' },
      { sign: 'coverTest', value: 'straight' },
      { sign: 'oldSquint', value: 'no' },
      { sign: 'stereo', value: 40 },
      { sign: 'monovisionBefore', value: 'liked' },
    ],
  });
  await does(page, visitId, 'decideNearWay', { way: 'monovision', reason: '' });
  const familyId = await codeOf(page, visitId, 'turnstone-30');
  const lens = (sphere: number) => ({
    ...{ familyId, sphere, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 },
    inHand: { lot: `M${-sphere * 100}`, expiresOn: '1 Mar 2032' },
  });
  await does(page, visitId, 'putOnTrials', { right: lens(-0.5), left: lens(-2), despiteReason: 'wears them' });
  return { wearerId, visitId, lens };
}
