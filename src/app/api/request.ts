import 'server-only';
import type { NextRequest } from 'next/server';
import { invalid, ok, type Result } from '@/lib/outcome';

const LARGEST = 256 * 1024;

/** True when a page of ours asks: a form on another site cannot act for somebody signed in here. */
export function sameOrigin(request: NextRequest): boolean {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin') return false;
  return origin !== null && new URL(origin).host === request.headers.get('host');
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

/** The body as JSON, read no further than a form can be long. */
export async function readJson(request: NextRequest): Promise<Result<unknown>> {
  const bytes = await readBytes(request, LARGEST);
  if (bytes === null) return invalid('form', 'tooLong');
  if (bytes.byteLength === 0) return ok({});
  try {
    // The database's text cannot hold the null character; nobody types it.
    const text = Buffer.from(bytes).toString('utf8');
    return text.includes('\\u0000') || text.includes('\0') ? invalid('form', 'notUnderstood') : ok(JSON.parse(text) as unknown);
  } catch {
    return invalid('form', 'notUnderstood');
  }
}
