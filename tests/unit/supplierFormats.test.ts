import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { supplierMessage, supplierNews, supplierOrder } from '../../src/schema/supplierMessage';

const PUBLISHED = { 'supplier-order': supplierOrder, 'supplier-message': supplierMessage, 'supplier-news': supplierNews } as const;

describe('the published formats of orders and of what suppliers answer', () => {
  it.each(Object.entries(PUBLISHED))('%s.schema.json is what the program reads', (name, shape) => {
    const file = join('docs', 'formats', `${name}.schema.json`);
    const schema = `${JSON.stringify({ $id: `${name}.schema.json`, ...z.toJSONSchema(shape, { io: 'input' }) }, null, 2)}\n`;
    // KEENFIT_WRITE_SCHEMAS=1 writes them anew after a change that is meant.
    if (process.env['KEENFIT_WRITE_SCHEMAS'] === '1') writeFileSync(file, schema);
    expect(readFileSync(file, 'utf8')).toBe(schema);
  });
});
