import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readMigrations } from '../../src/db/migrate';
import { LAST_RELEASE, openRelease } from '../support/release';
import type { TestDatabase } from '../support/database';

/** A database of the last release comes to this version with everything that was recorded. */
let db: TestDatabase;
let applied: readonly string[];
beforeAll(async () => {
  ({ db, applied } = await openRelease());
}, 180_000);
afterAll(() => db.close());

describe('the last release', () => {
  it('is brought up to date by exactly the migrations that came after it', () => {
    const after = readMigrations()
      .map((m) => m.name)
      .filter((name) => name.slice(0, 4) > LAST_RELEASE);
    expect(after.length).toBeGreaterThan(4);
    expect(applied).toEqual(after);
  });
  it('keeps every fact of its first fit, under its new name', async () => {
    const [kept] = await db.owner<Record<string, number>[]>`select
      (select count(*)::int from refraction) as refractions, (select count(*)::int from lens_on_eye) as lenses,
      (select count(*)::int from rotation_reading) as blinks, (select count(*)::int from prescription) as prescriptions,
      (select count(*)::int from stop_override) as overrides, (select count(*)::int from hand_over) as given,
      (select count(*)::int from lens_order) as orders, (select count(*)::int from history_answer) as answers,
      (select count(*)::int from draft where step = 'refraction') as drafts`;
    // Two powers typed and one corrected; two lenses with three blinks each; two boxes; one order.
    expect(kept).toMatchObject({ lenses: 2, blinks: 6, prescriptions: 1, given: 2, orders: 1, drafts: 1 });
    expect(kept?.refractions).toBeGreaterThanOrEqual(3);
    expect(kept?.answers).toBeGreaterThanOrEqual(3);
  });
  it('finds its wearers by what was not there before', async () => {
    const rows = await db.owner<{ plain: string }[]>`select plain from wearer_identity`;
    expect(rows.length).toBeGreaterThan(5);
    for (const { plain } of rows) expect(plain).toMatch(/^( [\p{Ll}\p{N}]+)+$/u);
  });
});
