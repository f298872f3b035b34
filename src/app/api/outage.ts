import { NextResponse } from 'next/server';
import { isDiskFull } from '@/server/diskFull';
import { log } from '@/server/log';

/** Says that something failed that is nobody's input; where the server's disk is full, that too. @param what failed, for the log */
export function outage(cause: unknown, what: string, more: Readonly<Record<string, string>> = {}): NextResponse {
  log.error({ err: cause, ...more }, what);
  return isDiskFull(cause)
    ? NextResponse.json({ outage: true, why: 'diskFull' }, { status: 503, headers: { 'cache-control': 'no-store' } })
    : NextResponse.json({ outage: true }, { status: 500, headers: { 'cache-control': 'no-store' } });
}
