import 'server-only';
import { findWearerLink } from '../../db/wearerLink';
import { err, ok, type Result } from '../../lib/outcome';
import { hashToken } from '../../server/token';
import type { Deps } from '../define';
import { tryPassword } from '../session/throttle';

/** Guesses of one place are counted together, whatever they try. */
const GUESSES = 'take-home';

/** May this token open a page to take home? A wrong, ended or run-out one is answered alike. */
export async function enterHome(deps: Deps, token: string, address: string): Promise<Result<{ readonly expiresAt: string }>> {
  const now = await deps.clock.now();
  const may = await tryPassword(deps, GUESSES, address, now);
  if (!may.ok) return may;
  const link = token === '' ? null : await findWearerLink(deps.sql, hashToken(token));
  if (!link || link.purpose !== 'takeHome' || link.endedAt !== null || link.expiresAt <= now)
    return err({ kind: 'invalid', fields: [{ path: ['token'], code: 'linkUnknown' }] });
  await may.value();
  return ok({ expiresAt: link.expiresAt });
}
