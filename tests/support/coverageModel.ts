import type { CoverageProblem } from '../../src/core';

/**
 * The coverage plan as an integer program in the LP format: a wearer counts when each eye has a lens, and both eyes together have
 * two (Hall's condition for two eyes).
 */
export function coverageModel({ lenses, wearers }: CoverageProblem, sets: number): string {
  const sum = (terms: readonly string[]): string => (terms.length === 0 ? '0 a0' : terms.join(' + '));
  const rows: string[] = [];
  wearers.forEach(({ right, left }, w) => {
    for (const list of [right, left]) if (list !== null) rows.push(`${sum(list.map((l) => `a${l}`))} - z${w} >= 0`);
    if (right === null || left === null) return;
    const both = right.filter((l) => left.includes(l));
    rows.push(`${sum([...new Set([...right, ...left])].map((l) => `a${l}`).concat(both.map((l) => `b${l}`)))} - 2 z${w} >= 0`);
  });
  lenses.forEach((_, l) => rows.push(`a${l} - b${l} >= 0`));
  rows.push(`${lenses.map((_, l) => `a${l} + b${l}`).join(' + ')} <= ${sets}`);
  const binaries = [...wearers.map((_, w) => `z${w}`), ...lenses.flatMap((_, l) => [`a${l}`, `b${l}`])];
  return `Maximize\n obj: ${wearers.map((_, w) => `z${w}`).join(' + ')}\nSubject To\n${rows.map((r, i) => ` c${i}: ${r}`).join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd\n`;
}
