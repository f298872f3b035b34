import axe from 'axe-core';
import type { Page } from '@playwright/test';

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly target: unknown }[];
}
/** WCAG 2.2 A and AA, as far as a program can see. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axe.source);
  const found = await page.evaluate(async () => {
    const { axe: run } = window as unknown as { axe: { run: (root: Document, options: object) => Promise<{ violations: Violation[] }> } };
    return (await run.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })).violations;
  });
  return found.map((v) => `${v.id}: ${v.nodes.map((n) => String(n.target)).join(', ')}`);
}
/** By how much a page is wider than its window, px. */
export const sideways = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
