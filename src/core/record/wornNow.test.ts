import { describe, expect, it } from 'vitest';
import { chains } from '..';
import type { WearerFile } from './wearerFile';
import { provenance } from './wornNow';

const meta = (id: string, at: string) => ({
  id,
  rootId: id,
  correctsId: null,
  voided: false,
  eye: 'right' as const,
  visitId: 'v',
  observedAt: at,
  recordedAt: at,
  recordedBy: 'p',
  recordedByName: 'P',
  reason: null,
});
const file = (change: Partial<WearerFile>): WearerFile =>
  ({
    onEye: chains([
      {
        ...meta('t', '2026-11-01T00:00:00Z'),
        lensId: 'tried',
        description: null,
        source: 'trial' as const,
        trialNumber: 1,
        trialStockId: 's',
        lot: 'A',
        expiresOn: null,
        putOnAt: '2026-11-01T00:00:00Z',
      },
    ]),
    prescriptions: [],
    handOvers: [],
    broughtAlong: [],
    wornAnswers: [],
    orders: [],
    lessons: [],
    attempts: [],
    topics: [],
    visits: [],
    lenses: {},
    ...change,
  }) as unknown as WearerFile;
const order = { id: 'o', number: 1, prescriptionId: 'p', placedAt: '2026-11-02T00:00:00Z', lines: [{ eye: 'right', lensId: 'ordered' }], events: [] };

describe('what counts as worn now', () => {
  it('a lens that was only tried is never copied as the current lens', () => {
    const { nodes, worn } = provenance(file({}), 'right');
    expect(nodes.tried?.lensId).toBe('tried');
    expect(worn).toBeNull();
  });
  it('a lens that was only prescribed is not either', () => {
    const prescriptions = [
      { number: 1, issuedAt: '2026-11-02T00:00:00Z', eyes: [{ eye: 'right', lensId: 'prescribed' }] },
    ] as unknown as WearerFile['prescriptions'];
    expect(provenance(file({ prescriptions }), 'right').worn).toBeNull();
  });
  it('without a hand-over the last order decides, unless it was refused', () => {
    const orders = [order] as unknown as WearerFile['orders'];
    expect(provenance(file({ orders }), 'right').worn?.lensId).toBe('ordered');
    expect(provenance(file({ orders: [{ ...order, events: [{ state: 'refused' }] }] as unknown as WearerFile['orders'] }), 'right').worn).toBeNull();
  });
  it('the latest hand-over decides over any order, each eye for itself', () => {
    const handOvers = chains([{ ...meta('h', '2026-11-03T00:00:00Z'), lensId: 'handed' }]) as unknown as WearerFile['handOvers'];
    const orders = [order] as unknown as WearerFile['orders'];
    expect(provenance(file({ handOvers, orders }), 'right').worn?.lensId).toBe('handed');
    expect(provenance(file({ handOvers, orders }), 'left').worn).toBeNull();
  });
});
