import 'server-only';
import { DEFAULT_SETTINGS, secondsBetween } from '../../core';
import { findStaffByAccount } from '../../db/staff';
import { insertAudit } from '../../db/audit';
import { endSession, findSession, insertKnownDevice, insertSession, isDeviceKnown, lockSession, touchSession } from '../../db/session';
import { err, invalid, ok, type Problem, type Result } from '../../lib/outcome';
import { signInForm } from '../../schema/staff';
import { toProblem } from '../../schema/problems';
import { checkPassword, hashPassword } from '../../server/password';
import { hashToken, newToken } from '../../server/token';
import type { Deps, StaffCaller } from '../define';
import { placeOf, tryPassword } from './throttle';

/** A session ends after this long whatever happens. */
const SESSION_SECONDS = 14 * 3600;
/** The server waits a little longer than the screen, so that the screen locks first. */
const IDLE_GRACE_SECONDS = 60;

let decoy: Promise<string> | null = null;

/** What a sign-in brings with it: where it comes from, and what this browser already holds. */
export interface From {
  readonly address: string;
  /** Names a device on which somebody has signed in before. */
  readonly device?: string | undefined;
  /** The session that was locked or ran out. */
  readonly session?: string | undefined;
}

/** Where the tries of a sign-in count: the person's own session or device before the address. */
async function placeFor(deps: Deps, staff: { readonly personId: string } | null, from: From): Promise<string> {
  if (!staff) return placeOf.address(from.address);
  if (from.session) {
    const hash = hashToken(from.session);
    if ((await findSession(deps.sql, hash))?.personId === staff.personId) return placeOf.session(hash);
  }
  if (from.device) {
    const hash = hashToken(from.device);
    if (await isDeviceKnown(deps.sql, hash, staff.personId)) return placeOf.device(hash);
  }
  return placeOf.address(from.address);
}

/** Signs somebody in. The same answer and the same wait for an unknown account and a wrong password. */
export async function signIn(deps: Deps, raw: unknown, from: From): Promise<Result<{ token: string; device: string; caller: StaffCaller }>> {
  const read = signInForm.safeParse(raw);
  if (!read.success) return err(toProblem(read.error));
  const { account, password } = read.data;
  const staff = await findStaffByAccount(deps.sql, account);
  const now = await deps.clock.now();
  const tried = await tryPassword(deps, account, await placeFor(deps, staff, from), now);
  if (!tried.ok) return tried;
  decoy ??= hashPassword(newToken());
  const fits = await checkPassword(staff?.passwordHash ?? (await decoy), password);
  if (!staff || !fits) return invalid('password', 'signInWrong');
  await tried.value();
  const at = await deps.clock.now();
  const token = newToken();
  const device = from.device ?? newToken();
  await insertSession(deps.sql, { tokenHash: hashToken(token), practiceId: staff.practiceId, personId: staff.personId, at });
  await insertKnownDevice(deps.sql, { tokenHash: hashToken(device), personId: staff.personId, at });
  await insertAudit(deps.sql, { id: crypto.randomUUID(), practiceId: staff.practiceId, at, personId: staff.personId, action: 'signIn' });
  return ok({
    token,
    device,
    caller: {
      kind: 'staff',
      practiceId: staff.practiceId,
      personId: staff.personId,
      name: staff.displayName,
      title: staff.title,
      account: staff.account,
      roles: staff.roles,
      registerNumber: staff.registerNumber,
    },
  });
}

/** The screen was left: the session stands for nobody until its person signs in again, in every tab and through a reload. */
export async function lock(deps: Deps, token: string | undefined): Promise<void> {
  if (token) await lockSession(deps.sql, hashToken(token), await deps.clock.now());
}

/**
 * Who a session token stands for. Fails closed: an ended, locked, idle or unknown session is nobody.
 * @param touch false for what a page asks by itself: a poll is no sign of life
 */
export async function resume(deps: Deps, token: string | undefined, touch = true): Promise<Result<StaffCaller>> {
  const signedOut = (why: 'none' | 'idle' | 'locked' | 'ended'): { ok: false; error: Problem } => err({ kind: 'signedOut', why });
  if (!token) return signedOut('none');
  const tokenHash = hashToken(token);
  const session = await findSession(deps.sql, tokenHash);
  if (!session) return signedOut('none');
  if (session.endedAt !== null || session.membershipEndedAt !== null) return signedOut('ended');
  if (session.lockedAt !== null) return signedOut('locked');
  const now = await deps.clock.now();
  const quiet = secondsBetween(session.seenAt, now);
  if (quiet > (session.idleMinutes ?? DEFAULT_SETTINGS.idleMinutes) * 60 + IDLE_GRACE_SECONDS || secondsBetween(session.createdAt, now) > SESSION_SECONDS) {
    await endSession(deps.sql, tokenHash, now);
    return signedOut('idle');
  }
  if (touch && quiet > 5) await touchSession(deps.sql, tokenHash, now);
  return ok({
    kind: 'staff',
    practiceId: session.practiceId,
    personId: session.personId,
    name: session.displayName,
    title: session.title,
    account: session.account,
    roles: session.roles,
    registerNumber: session.registerNumber,
  });
}

export async function signOut(deps: Deps, token: string | undefined): Promise<void> {
  if (!token) return;
  const at = await deps.clock.now();
  const ended = await endSession(deps.sql, hashToken(token), at);
  if (ended) await insertAudit(deps.sql, { id: crypto.randomUUID(), practiceId: ended.practiceId, personId: ended.personId, at, action: 'signOut' });
}
