import { describe, expect, it } from 'vitest';
import { latestOnly } from './latestOnly';

/** Answers that are given by hand. */
function byHand() {
  const open: { readonly question: number; readonly give: (fails?: boolean) => void }[] = [];
  const answer = (question: number): Promise<string> =>
    new Promise((resolve, reject) => open.push({ question, give: (fails) => (fails ? reject(new Error('no')) : resolve(`a${question}`)) }));
  return { open, answer };
}
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

describe('one question at a time', () => {
  it('the newest waits behind the one under way; those between are passed over', async () => {
    const { open, answer } = byHand();
    const told: string[] = [];
    const ask = latestOnly(answer, (a) => told.push(a));
    for (const q of [1, 2, 3, 4]) ask(q);
    expect(open.map((o) => o.question)).toEqual([1]);
    open[0]?.give();
    await settled();
    expect(told).toEqual(['a1']);
    expect(open.map((o) => o.question)).toEqual([1, 4]);
    open[1]?.give();
    await settled();
    expect(told).toEqual(['a1', 'a4']);
  });
  it('begins again after a rest', async () => {
    const { open, answer } = byHand();
    const told: string[] = [];
    const ask = latestOnly(answer, (a) => told.push(a));
    ask(1);
    open[0]?.give();
    await settled();
    ask(2);
    open[1]?.give();
    await settled();
    expect(told).toEqual(['a1', 'a2']);
  });
  it('a question that fails does not hold up the next', async () => {
    const { open, answer } = byHand();
    const told: string[] = [];
    const ask = latestOnly(answer, (a) => told.push(a));
    ask(1);
    ask(2);
    open[0]?.give(true);
    await settled();
    open[1]?.give();
    await settled();
    expect(told).toEqual(['a2']);
  });
});
