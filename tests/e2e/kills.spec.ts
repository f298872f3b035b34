import { expect, test } from '@playwright/test';
import { killing, VICTIMS } from '../../scripts/lib/killing';
import { toOrder } from '../support/toOrder';

test('each part killed under load: it is back by itself, and what was acknowledged is there once', async () => {
  test.setTimeout(240_000);
  const kept = await killing({ distDir: '.next-test', victims: VICTIMS, everyMs: 1500, orders: 6, andThen: 20 }, toOrder);
  expect(kept.kills).toBe(VICTIMS.length);
  expect(kept.acknowledged).toBeGreaterThanOrEqual(20);
  // Somebody was interrupted: otherwise nothing was tried.
  expect(kept.again).toBeGreaterThan(0);
  expect({ lost: kept.lost, doubled: kept.doubled, refused: kept.refused }).toEqual({ lost: 0, doubled: 0, refused: [] });
});
