import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ownPath } from './ownPath';

describe('a way back is a page of ours', () => {
  it.each(['/', '/visits/1/lens?a=b#c', '/wearers'])('%s stays', (to) => expect(ownPath(to)).toBe(to));
  it.each([
    '//evil.test',
    '/\\evil.test',
    '/\t/evil.test',
    '/\n\\evil.test',
    '\\\\evil.test',
    'https://evil.test',
    'javascript:alert(1)',
    '',
    undefined,
    ['/a', '/b'],
    '/.//evil.test',
    '/..//evil.test',
  ])('%j leads to the first page', (to) => expect(ownPath(to)).toBe('/'));
  it('whatever is asked, a browser stays here', () => {
    const piece = fc.constantFrom('/', '\\', '\t', '\n', '\r', '.', '..', 'evil.test', '@', ':', '%09', '?', '#', 'a');
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
        const went = new URL(ownPath(pieces.join('')), 'https://practice.test/sign-in');
        expect(went.origin).toBe('https://practice.test');
      }),
      { numRuns: 2000 },
    );
  });
});
