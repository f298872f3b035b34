import 'server-only';
import { DEFAULT_SETTINGS, dayIn } from '../../core';
import { findPractice } from '../../db/practice';
import { findSupplier, findSupplierSecret } from '../../db/supplier';
import { must } from '../../lib/assert';
import type { Deps } from '../define';
import { writtenAt } from '../outbox/write';
import { isSigned } from './signature';
import { takeMessage, type MessageTaken } from './takeMessage';

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/**
 * Takes a message that a supplier calls with. Whoever cannot sign it learns nothing, not even whether there is such a supplier.
 * @param now seconds, by the server's own clock
 */
export async function receiveMessage(
  { sql, clock }: Pick<Deps, 'sql' | 'clock'>,
  supplierId: string,
  of: { readonly timestamp: string; readonly signature: string; readonly body: string },
  now: number,
): Promise<MessageTaken | { readonly kind: 'unsigned' }> {
  const known = UUID.test(supplierId) ? await findSupplierSecret(sql, supplierId) : null;
  if (!known || !isSigned(known.secret, of, now)) return { kind: 'unsigned' };
  const { practiceId } = known;
  const supplier = await findSupplier(sql, practiceId, supplierId);
  if (!supplier || supplier.ended) return { kind: 'unsigned' };
  let body: unknown;
  try {
    body = JSON.parse(of.body);
  } catch {
    return { kind: 'notUnderstood', path: '' };
  }
  const practice = must(await findPractice(sql, practiceId), 'practice');
  const at = await clock.now();
  const { dueAt } = writtenAt(at, null, { ...DEFAULT_SETTINGS, ...practice.settings }, practice.timeZone);
  const from = { practiceId, supplierId, cameBy: 'call', at, today: dayIn(at, practice.timeZone), dueAt } as const;
  return sql.begin((tx) => takeMessage(tx, from, body, () => crypto.randomUUID()));
}
