import 'server-only';
import { createHmac, timingSafeEqual } from 'node:crypto';

/** How far the moment of a signed message may lie from now, s: one caught on its way is of no use later. */
const SKEW_SECONDS = 300;

/** What signs a message: hex of HMAC-SHA-256 over its moment (seconds), a full stop and the body as it is sent. */
export const signatureOf = (secret: string, timestamp: string, body: string): string =>
  createHmac('sha256', secret).update(`${timestamp}.${body}`).digest('hex');

/** Was a message signed with a secret, a moment ago? @param now seconds */
export function isSigned(secret: string, of: { readonly timestamp: string; readonly signature: string; readonly body: string }, now: number): boolean {
  if (!/^\d{10}$/.test(of.timestamp) || Math.abs(now - Number(of.timestamp)) > SKEW_SECONDS || !/^[0-9a-f]{64}$/.test(of.signature)) return false;
  return timingSafeEqual(Buffer.from(of.signature, 'hex'), Buffer.from(signatureOf(secret, of.timestamp, of.body), 'hex'));
}
