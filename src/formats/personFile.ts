import { z } from 'zod';

/**
 * All that is held on one person, as one JSON document: rows by table, each as it is kept, with what they refer to. Documented in
 * docs/person-file.md. The audit trail, unfinished typing and secrets are no part of it.
 */
const row = z.record(z.string().max(63), z.json());
export const personFile = z.object({
  format: z.literal('keen-fit-person'),
  version: z.literal(1),
  wearer: z.uuid(),
  tables: z.record(z.string().regex(/^[a-z_]{1,63}$/), z.array(row)),
});
export type PersonFile = z.output<typeof personFile>;

/** A value with the keys of all its objects in order: the same content is the same text. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
      .map(([key, of]) => [key, ordered(of)]),
  );
}

/**
 * The document as text: keys in order, two spaces, a line feed at the end.
 * @example writePersonFile({format: 'keen-fit-person', version: 1, wearer: '5b3fd6a0-0000-4000-8000-000000000001', tables: {}}).length → 118
 */
export const writePersonFile = (file: PersonFile): string => `${JSON.stringify(ordered(file), null, 2)}\n`;

/** Reads a document; null for one that is none. */
export function readPersonFile(text: string): PersonFile | null {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return null;
  }
  const read = personFile.safeParse(json);
  return read.success ? read.data : null;
}
