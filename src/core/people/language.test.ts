import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { languageFor } from './language';

describe('the language somebody is written to', () => {
  it('is theirs, their region aside; where nobody said, the practice’s; else the first', () => {
    expect(languageFor(['es'], ['en', 'es'])).toBe('es');
    expect(languageFor(['ES-mx'], ['en', 'es'])).toBe('es');
    expect(languageFor([null, 'es_ES'], ['en', 'es'])).toBe('es');
    expect(languageFor(['pt-BR', 'en-US'], ['en', 'es'])).toBe('en');
    expect(languageFor(['pt-BR'], ['en', 'pt', 'pt-BR'])).toBe('pt-BR');
    expect(languageFor([], ['en'])).toBe('en');
    expect(languageFor(['', '-', 'x'], ['en', 'es'])).toBe('en');
  });
  it('is always one that there are words for', () => {
    fc.assert(fc.property(fc.array(fc.option(fc.string())), (wishes) => ['en', 'es'].includes(languageFor(wishes, ['en', 'es']))));
  });
});
