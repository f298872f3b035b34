import type { NextRequest, NextResponse } from 'next/server';
import { invalid, notFound } from '@/lib/outcome';
import { LIST_MAX_BYTES } from '@/schema/list';
import { importTrials, importWearers } from '@/services/list/commands';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../access';
import { readBytes, sameOrigin } from '../../request';
import { answer } from '../answer';
import { outage } from '../../outage';

const MEGABYTE = 1024 * 1024;
const LISTS = { wearers: importWearers, trials: importTrials } as const;
const isList = (name: string | null): name is keyof typeof LISTS => name !== null && Object.hasOwn(LISTS, name);

/** A list as a file: `?of=wearers` or `trials`; with `&take=1` it is taken in, else only looked at. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  if (!sameOrigin(request)) return answer({ ok: false, error: { kind: 'forbidden', why: 'origin' } });
  const of = request.nextUrl.searchParams.get('of');
  if (!isList(of)) return answer(notFound('list'));
  const caller = await currentCaller();
  if (!caller.ok) return answer(caller);
  const declared = Number(request.headers.get('content-length') ?? '0');
  const tooLarge = invalid('file', 'fileTooLarge', { mb: Math.round(declared / MEGABYTE), max: LIST_MAX_BYTES / MEGABYTE });
  if (declared > LIST_MAX_BYTES) return answer(tooLarge);
  const bytes = await readBytes(request, LIST_MAX_BYTES);
  if (bytes === null) return answer(tooLarge);
  if (bytes.byteLength === 0 || bytes.byteLength !== declared) return answer(invalid('file', 'fileCut'));
  try {
    const take = request.nextUrl.searchParams.get('take') === '1';
    return answer(await perform(LISTS[of], deps(), caller.value, { bytes, take }));
  } catch (cause) {
    return outage(cause, 'a list could not be taken');
  }
}
