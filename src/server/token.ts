import 'server-only';
import { createHash, randomBytes } from 'node:crypto';

/** A new session token for the cookie; only its hash is stored. */
export const newToken = (): string => randomBytes(32).toString('base64url');
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');
