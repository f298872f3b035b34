import { expect, test } from '@playwright/test';
import { BUDGET, budgetOf, pageSizes } from '../../scripts/lib/pageSizes';

/** What a page loads before it can be used, of the very build that the browser tests drive. */
const sizes = pageSizes('.next-test');

test('every page stays within its budget of scripts', () => {
  expect(sizes.length).toBeGreaterThan(15);
  // React and Next alone are above 100 kB: less would mean that the wrong files were weighed.
  expect(Math.min(...sizes.map((s) => s.gzipped))).toBeGreaterThan(100_000);
  expect(sizes.filter((s) => s.gzipped > budgetOf(s.page)).map((s) => `${s.page}: ${s.gzipped} of ${budgetOf(s.page)}`)).toEqual([]);
});

test('pages of a visit have their own budget, the others the smaller one', () => {
  expect(sizes.filter((s) => budgetOf(s.page) === BUDGET.visit).map((s) => s.page)).toEqual(
    expect.arrayContaining(['/visits/[id]/on-eye', '/visits/[id]/lens']),
  );
  expect(budgetOf('/wearers/[id]')).toBe(BUDGET.plain);
});
