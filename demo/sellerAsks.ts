import type { SellerDocument } from '../src/standins/seller/server';

/** What the invented seller asks while the demo runs: a lens of one wearer, in a power that may no longer be prescribed. */
export const DEMO_ASKS: readonly SellerDocument[] = [
  {
    id: 'QL-20817',
    seller: { name: 'Quayside Lenses', contact: 'fax 0555 0199' },
    wearer: { name: 'Delphie Zellwood', address: '3 Ropewalk' },
    askedOn: null,
    right: { power: '-4.50', lensName: 'Dunlin 1-Day', baseCurveMm: 8.5, diameterMm: 14.2, boxes: 3 },
    left: { power: '-4.25', lensName: 'Dunlin 1-Day', baseCurveMm: 8.5, diameterMm: 14.2, boxes: 3 },
  },
];
