import { describe, expect, it } from 'vitest';
import { chains, latest } from '..';

const row = (id: string, correctsId: string | null = null, rootId = id, voided = false) => ({ id, rootId, correctsId, voided });

describe('chains of corrections', () => {
  it('follow corrects_id, whatever the order of the rows', () => {
    const [chain] = chains([row('c', 'b', 'a'), row('a'), row('b', 'a', 'a')]);
    expect(chain?.rows.map((r) => r.id)).toEqual(['a', 'b', 'c']);
    expect(chain?.current?.id).toBe('c');
  });
  it('a fact taken back has no current value but keeps what it said', () => {
    const [chain] = chains([row('a'), row('b', 'a', 'a', true)]);
    expect(chain?.current).toBeNull();
    expect(chain?.rows).toHaveLength(2);
  });
  it('the latest that holds', () => {
    const all = chains([row('a'), row('b'), row('x', 'b', 'b', true)]);
    expect(latest(all, () => true)?.rootId).toBe('a');
    expect(latest(all, (r) => r.id === 'zzz')).toBeNull();
  });
});
