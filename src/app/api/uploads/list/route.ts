import type { NextRequest, NextResponse } from 'next/server';
import { notFound } from '@/lib/outcome';
import { LIST_MAX_BYTES } from '@/schema/list';
import { importTrials, importWearers } from '@/services/list/commands';
import { perform } from '@/services/perform';
import { deps } from '../../../access';
import { answer } from '../answer';
import { receive } from '../receive';

const EXPECTED = { field: 'file', most: LIST_MAX_BYTES, tooLarge: 'fileTooLarge', cut: 'fileCut', failed: 'a list could not be taken' } as const;
const LISTS = { wearers: importWearers, trials: importTrials } as const;
const isList = (name: string | null): name is keyof typeof LISTS => name !== null && Object.hasOwn(LISTS, name);

/** A list as a file: `?of=wearers` or `trials`; with `&take=1` it is taken in, else only looked at. */
export async function POST(request: NextRequest): Promise<NextResponse> {
  const of = request.nextUrl.searchParams.get('of');
  if (!isList(of)) return answer(notFound('list'));
  const take = request.nextUrl.searchParams.get('take') === '1';
  return receive(request, EXPECTED, (caller, bytes) => perform(LISTS[of], deps(), caller, { bytes, take }));
}
