import 'server-only';
import { addSeconds, DEFAULT_SETTINGS, secondsBetween } from '../core';
import { findStaffByAccount } from '../db/people';
import { findSettings, insertAudit } from '../db/practices';
import { countFailures, endSession, findSession, insertSession, insertSignInAttempt, touchSession } from '../db/sessions';
import { err, invalid, ok, type Problem, type Result } from '../lib/outcome';
import { signInForm } from '../schema/staffForms';
import { toProblem } from '../schema/problems';
import { checkPassword, hashPassword } from '../server/password';
import { hashToken, newToken } from '../server/token';
import type { Caller, Deps } from './define';

/** Wrong passwords of one account before it has to wait, and of one address. */
const ACCOUNT_TRIES = 5;
const ADDRESS_TRIES = 30;
const THROTTLE_SECONDS = 300;
/** A session ends after this long whatever happens. */
const SESSION_SECONDS = 14 * 3600;
/** The server waits a little longer than the screen, so that the screen locks first. */
const IDLE_GRACE_SECONDS = 60;

let decoy: Promise<string> | null = null;

/** True (with the wait) when this account or address has to wait before trying a password again. */
export async function throttledFor(deps: Deps, account: string, address: string): Promise<number | null> {
  const now = await deps.clock.now();
  const failures = await countFailures(deps.sql, account, address, addSeconds(now, -THROTTLE_SECONDS));
  return failures.byAccount >= ACCOUNT_TRIES || failures.byAddress >= ADDRESS_TRIES ? THROTTLE_SECONDS : null;
}

/** Keeps a note of a password tried; outside any transaction, so that a refusal does not undo it. */
export async function noteTry(deps: Deps, account: string, address: string, succeeded: boolean): Promise<void> {
  const at = await deps.clock.now();
  await insertSignInAttempt(deps.sql, { id: crypto.randomUUID(), account, address, at, succeeded });
}

/** Signs somebody in. The same answer and the same wait for an unknown account and a wrong password. */
export async function signIn(deps: Deps, raw: unknown, address: string): Promise<Result<{ token: string; caller: Caller }>> {
  const read = signInForm.safeParse(raw);
  if (!read.success) return err(toProblem(read.error));
  const { account, password } = read.data;
  const wait = await throttledFor(deps, account, address);
  if (wait !== null) return err({ kind: 'throttled', retryAfterSeconds: wait });
  const staff = await findStaffByAccount(deps.sql, account);
  decoy ??= hashPassword(newToken());
  const fits = await checkPassword(staff?.passwordHash ?? (await decoy), password);
  await noteTry(deps, account, address, fits && staff !== null);
  if (!staff || !fits) return invalid('password', 'signInWrong');
  const at = await deps.clock.now();
  const token = newToken();
  await insertSession(deps.sql, { tokenHash: hashToken(token), practiceId: staff.practiceId, personId: staff.personId, at });
  await insertAudit(deps.sql, { id: crypto.randomUUID(), practiceId: staff.practiceId, at, personId: staff.personId, action: 'signIn' });
  return ok({
    token,
    caller: { practiceId: staff.practiceId, personId: staff.personId, name: staff.displayName, title: staff.title, account: staff.account, roles: staff.roles },
  });
}

/** Who a session token stands for. Fails closed: an ended, idle or unknown session is nobody. */
export async function resume(deps: Deps, token: string | undefined, touch = true): Promise<Result<Caller>> {
  const signedOut = (why: 'none' | 'idle' | 'ended'): { ok: false; error: Problem } => err({ kind: 'signedOut', why });
  if (!token) return signedOut('none');
  const tokenHash = hashToken(token);
  const session = await findSession(deps.sql, tokenHash);
  if (!session) return signedOut('none');
  if (session.endedAt !== null || session.membershipEndedAt !== null) return signedOut('ended');
  const now = await deps.clock.now();
  const settings = { ...DEFAULT_SETTINGS, ...(await findSettings(deps.sql, session.practiceId)) };
  const quiet = secondsBetween(session.seenAt, now);
  if (quiet > settings.idleMinutes * 60 + IDLE_GRACE_SECONDS || secondsBetween(session.createdAt, now) > SESSION_SECONDS) {
    await endSession(deps.sql, tokenHash, now);
    return signedOut('idle');
  }
  if (touch && quiet > 5) await touchSession(deps.sql, tokenHash, now);
  return ok({
    practiceId: session.practiceId,
    personId: session.personId,
    name: session.displayName,
    title: session.title,
    account: session.account,
    roles: session.roles,
  });
}

export async function signOut(deps: Deps, token: string | undefined): Promise<void> {
  if (token) await endSession(deps.sql, hashToken(token), await deps.clock.now());
}
