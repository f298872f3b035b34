import { describe, expect, it } from 'vitest';
import { en } from '../../src/i18n/messages/en';

/** Words at which a native optometrist stumbles, and what the field says instead (docs/glossary.md): they do not come back. */
const RETIRED: readonly [RegExp, string][] = [
  [/\btaken? (a )?note\b/i, 'acknowledged'],
  [/\bno reason passes|\bnobody passes|\bpass (it|a stop)\b/i, 'cannot be overridden, override'],
  [/\bUnderstood\b|\bTaken back\b/, 'Dismiss, Undone'],
  [/(?<!tear )\bexchange/i, 'swap'],
  [/Nothing of the kind/, 'Recorded in error'],
  [/no day of the calendar|has not come yet|That is not here/, 'not a valid date, in the future, not found'],
  [/two routes/, 'the refraction and the over-refraction'],
  [/° round\b/, 'rotated over'],
  [/price of nothing/i, 'price is 0'],
  [/\bthe eye (asks|needs)\b/i, 'required power'],
  [/Sees with/, 'VA with'],
  [/\bstands? in place\b|\bleads:/, 'ranks'],
  [/\bmiddling\b/, 'average'],
  [/\bTake away\b/, 'Remove'],
  [/finds the over-minused/, 'reveals over-minus'],
  [/Lens line|newest by the spine|\btake up\b/i, 'Lenses tried, use this lens'],
  [/sits true|where the mark sits|turn costs|sit still/i, 'no rotation, mark rotation, effect of rotation, stable'],
  [/\b(ear|temple|nose) side\b|toward the nose/, 'temporal, nasal'],
  [/\banew\b/, 'new series'],
  [/your word\b/, 'your assessment'],
  [/\bCentring\b|Off the middle/, 'centration, decentration'],
  [/Vessels (into|grown)|lid opening|Iris width|Flat curve|Steep curve/i, 'corneal neovascularisation, palpebral aperture, HVID, K'],
  [/under trace|past (trace|mild|moderate)/, '0.5, 1.5, 2.5, 3.5'],
  [/\bacts? (at|from|under)\b/, 'action level'],
  [/Frees it/, 'clears when'],
  [/less feeling|low immunity/i, 'reduced corneal sensitivity, immunocompromised'],
  [/care can be trusted/i, 'compliance with care'],
  [/asks? (for )?oxygen/i, 'need high Dk/t'],
  [/\btries\b|\ba miss\b/i, 'attempts, failed because'],
  [/\bGo on\b/, 'Continue'],
  [/Set up a slit lamp/i, 'calibrate the slit-lamp scale'],
  [/reader’s noise/i, 'reading repeatability'],
  [/runs or stays in it/, 'discharge, or a feeling of something in the eye'],
  [/\bwatch(es)?\}/, 'cautions'],
  [/\bis shut\b|\bstay shut\b/, 'locked'],
];
const words: [key: string, word: string][] = [];
const gather = (of: object, path: string): void => {
  for (const [key, word] of Object.entries(of) as [string, unknown][]) {
    if (typeof word === 'string') words.push([`${path}.${key}`, word]);
    else gather(word as object, `${path}.${key}`);
  }
};
gather(en, 'en');

describe('the field’s standard words', () => {
  it.each(RETIRED)('%s: %s', (retired) => {
    expect(words.length).toBeGreaterThan(2000);
    expect(words.filter(([, word]) => retired.test(word))).toEqual([]);
  });
  it('left the eye, left the direction and what is left over never share a line', () => {
    expect(words.filter(([, word]) => /\b(blur|cylinder) left\b|\bleft over\b/i.test(word))).toEqual([]);
  });
});
