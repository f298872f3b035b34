import 'server-only';
import { findWearerLink } from '../../db/wearerLink';
import { err, ok, type Result } from '../../lib/outcome';
import { hashToken } from '../../server/token';
import type { Deps, LinkCaller } from '../define';

/** Who a link's token stands for. Fails closed: an ended, run-out or unknown link is nobody, and none of them is told from another. */
export async function resumeLink(deps: Deps, token: string | undefined): Promise<Result<LinkCaller>> {
  const link = token ? await findWearerLink(deps.sql, hashToken(token)) : null;
  const now = await deps.clock.now();
  if (!link || link.endedAt !== null || link.expiresAt <= now) return err({ kind: 'signedOut', why: 'none' });
  const { id, practiceId, wearerId, purpose, subjectId } = link;
  return ok({ kind: 'link', linkId: id, practiceId, wearerId, purpose, subjectId });
}
