import 'server-only';
import type { NextRequest } from 'next/server';
import { invalid, ok, type Result } from '@/lib/outcome';

const LARGEST = 256 * 1024;

/** True when a page of ours asks: a form on another site cannot act for somebody signed in here. */
export function sameOrigin(request: NextRequest): boolean {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin') return false;
  return origin !== null && URL.canParse(origin) && new URL(origin).host === request.headers.get('host');
}

/** The body, read no further than it may be long; null when it is longer. */
export async function readBytes(request: NextRequest, most: number): Promise<Uint8Array | null> {
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array();
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > most) {
      await reader.cancel();
      return null;
    }
    chunks.push(value);
  }
  return new Uint8Array(Buffer.concat(chunks));
}

/** Texts that the database can hold: no null character, no half of a pair. Nobody types either. */
function isWellFormed(value: unknown): boolean {
  if (typeof value === 'string') return value.isWellFormed() && !value.includes('\0');
  if (typeof value !== 'object' || value === null) return true;
  return Object.entries(value).every(([key, part]) => isWellFormed(key) && isWellFormed(part));
}

/** The body as JSON, read no further than a form can be long. */
export async function readJson(request: NextRequest): Promise<Result<unknown>> {
  const bytes = await readBytes(request, LARGEST);
  if (bytes === null) return invalid('form', 'tooLong');
  if (bytes.byteLength === 0) return ok({});
  try {
    const read = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown;
    return isWellFormed(read) ? ok(read) : invalid('form', 'notUnderstood');
  } catch {
    return invalid('form', 'notUnderstood');
  }
}
