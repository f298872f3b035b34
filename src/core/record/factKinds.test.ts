import { describe, expect, it } from 'vitest';
import type { NewValue, NewValueKind } from './corrections';
import { FACT_KIND_NAMES, FACT_KINDS, newColumns, newValueProblem } from './factKinds';
import type { LensFindingFact } from './visitFacts';

const EXAMPLES: { readonly [K in NewValueKind]: Extract<NewValue, { as: K }> } = {
  power: { as: 'power', text: { typed: '-3.25 -1.75 x 20', power: { sphere: -3.25, cylinder: -1.75, axis: 20 } }, vertexMm: 12 },
  rotation: { as: 'rotation', rotationLeft: -5 },
  acuity: { as: 'acuity', logMar: 0.1, typed: '20/25' },
  fit: { as: 'fit', verdict: 'tight' },
  box: { as: 'box', lot: 'P2181', expiresOn: '2028-02-01' },
  sign: { as: 'sign', value: 1.5, typed: '1.5' },
};

describe('a new value goes into the columns of its own kind', () => {
  it.each(FACT_KIND_NAMES.flatMap((kind) => (FACT_KINDS[kind].takes ? [kind] : [])))('%s', (kind) => {
    const takes = FACT_KINDS[kind].takes ?? 'power';
    const names = Object.keys(newColumns(kind, EXAMPLES[takes]));
    expect(names).not.toEqual([]);
    const known: readonly string[] = FACT_KINDS[kind].columns;
    for (const name of names) expect(known, name).toContain(name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`));
  });
  it('a cylinder found in an over-refraction was tested for; a plain sphere says nothing of it', () => {
    expect(newColumns('overRefraction', EXAMPLES.power)).toMatchObject({ cylinderTested: true, axisDeg: 20 });
    const sphere = { ...EXAMPLES.power, text: { typed: '-3.00', power: { sphere: -3, cylinder: 0, axis: 180 } } };
    expect(newColumns('overRefraction', sphere)).not.toHaveProperty('cylinderTested');
    expect(newColumns('refraction', EXAMPLES.power)).not.toHaveProperty('cylinderTested');
  });
  it('a word takes the place of a number, and a number that of a word', () => {
    expect(newColumns('finding', EXAMPLES.sign)).toEqual({ numberValue: 1.5, wordValue: null });
    expect(newColumns('lensFinding', { as: 'sign', value: 'central', typed: null })).toEqual({ numberValue: null, wordValue: 'central', typedText: null });
  });
});

describe('what is wrong with a new value hangs on the sign it is of', () => {
  const row = (sign: string) => ({ sign }) as LensFindingFact;
  it('an acuity is kept as it was read', () => {
    expect(newValueProblem('lensFinding', row('acuityLens'), { as: 'sign', value: 0.1, typed: null })).toMatchObject({ code: 'acuityEmpty' });
    expect(newValueProblem('lensFinding', row('acuityLens'), { as: 'sign', value: 0.1, typed: '20/25' })).toBeNull();
  });
  it('a grade off its scale is refused', () => {
    expect(newValueProblem('lensFinding', row('comfort'), { as: 'sign', value: 11, typed: null })).toMatchObject({
      path: ['value'],
      code: 'findingOutOfRange',
    });
  });
  it('kinds of one meaning ask nothing', () => {
    expect(FACT_KINDS.fit.problem).toBeUndefined();
  });
});
