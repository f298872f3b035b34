import type { Page } from '@playwright/test';
import { checkDigit } from '../../src/core';
import { SENTENCES } from '../support/sentences';
import { command, newVisit, readRecord } from './site';

interface Known {
  readonly families: readonly { readonly id: string; readonly code: string }[];
}
export interface Prescribed {
  readonly wearerId: string;
  readonly prescriptionId: string;
}

/** Monthly spheres signed at a visit that is closed. @param powers right and left, D */
export async function signSpheres(page: Page, visitId: string, [right, left]: readonly [number, number], expiresOn = '2027-11-24'): Promise<Prescribed> {
  const typed = (sphere: number): string => sphere.toFixed(2);
  await command(page, 'recordRefraction', { visitId, version: 1, right: typed(right), left: typed(left), vertexMm: 12 });
  const { families, wearer } = await readRecord<Known>(page, visitId);
  const family = families.find((f) => f.code === 'turnstone-30');
  const lens = (sphere: number) => ({ familyId: family?.id, sphere, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 });
  const { prescriptionId = '' } = await command(page, 'sign', {
    visitId,
    version: 2,
    password: 'plain-sight',
    right: { mode: 'final', lens: lens(right), triedLensOnEyeId: null },
    left: { mode: 'final', lens: lens(left), triedLensOnEyeId: null },
    expiresOn,
    waitNote: 'worn for years',
    daysPerWeek: 7,
    overrides: SENTENCES,
  });
  const { visit: now } = await readRecord<Known>(page, visitId);
  await command(page, 'closeVisit', { visitId, version: now.version });
  return { wearerId: wearer.id, prescriptionId };
}

/** Somebody new with monthly spheres of −3.00 and −2.75 for a year. */
export async function prescribed(page: Page, name: string): Promise<Prescribed> {
  const visit = await newVisit(page, 'firstFit', { name, birthDate: '1988-04-02' });
  return signSpheres(page, visit.split('/').pop() ?? '', [-3, -2.75]);
}

/** The code of a box, as its label prints it. */
export const boxCode = (item: number, serial: string, lot = 'A1'): string => {
  const digits = `0629104${String(item).padStart(6, '0')}`;
  return `(01)${digits}${checkDigit(digits)}(17)290300(10)${lot}(21)${serial}`;
};
