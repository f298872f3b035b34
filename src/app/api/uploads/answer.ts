import 'server-only';
import { NextResponse } from 'next/server';
import type { Problem, Result } from '@/lib/outcome';

const SEPARATE: Readonly<Partial<Record<Problem['kind'], number>>> = { notFound: 404, conflict: 409, forbidden: 403, signedOut: 401 };

/** What came of an upload: never kept, never guessed at. */
export const answer = (result: Result<unknown>): NextResponse =>
  NextResponse.json(result, {
    status: result.ok ? 200 : (SEPARATE[result.error.kind] ?? 422),
    headers: { 'cache-control': 'no-store', 'x-content-type-options': 'nosniff' },
  });
