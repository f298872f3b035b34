import 'server-only';
import type { NextRequest, NextResponse } from 'next/server';
import { forbidden, invalid, type Result } from '@/lib/outcome';
import type { StaffCaller } from '@/services/define';
import { currentCaller } from '../../access';
import { outage } from '../outage';
import { readBytes, sameOrigin } from '../request';
import { answer } from './answer';

const MEGABYTE = 1024 * 1024;

/** What may be sent to an address, and what is said where it is something else. */
interface Expected {
  /** The field that a refusal stands at. */
  readonly field: string;
  /** Bytes at most. */
  readonly most: number;
  /** Codes of the problems. */
  readonly tooLarge: string;
  readonly cut: string;
  /** What failed where it is nobody's input, for the log. */
  readonly failed: string;
}

/**
 * A file that is sent as the body of a request: from a page of ours, by somebody signed in, no longer than it may be, and whole.
 * @param take what is done with it
 */
export async function receive(
  request: NextRequest,
  { field, most, tooLarge, cut, failed }: Expected,
  take: (caller: StaffCaller, bytes: Uint8Array) => Promise<Result<unknown>>,
): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer(forbidden('origin'));
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const declared = Number(request.headers.get('content-length') ?? '0');
  const bytes = declared > most ? null : await readBytes(request, most);
  // One that says less than it sends is cut off where it may be no longer.
  if (bytes === null) return answer(invalid(field, tooLarge, { mb: Math.round(Math.max(declared, most) / MEGABYTE), max: most / MEGABYTE }));
  // A body cut short on its way is no file, even where what came can be opened.
  if (bytes.byteLength === 0 || bytes.byteLength !== declared) return answer(invalid(field, cut));
  try {
    return answer(await take(caller.value, bytes));
  } catch (cause) {
    return outage(cause, failed);
  }
}
