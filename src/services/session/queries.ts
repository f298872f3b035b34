import 'server-only';
import { listStaff } from '../../db/staff';
import { findOnlyPractice } from '../../db/practice';
import type { Deps } from '../define';

/** What may be seen before signing in: the practice's name; people only in the demo. */
export async function signInPage(deps: Deps): Promise<{ practice: string; town: string; people: { account: string; name: string; title: string }[] }> {
  const practice = await findOnlyPractice(deps.sql);
  if (!practice) return { practice: '', town: '', people: [] };
  const staff = deps.mode === 'production' ? [] : await listStaff(deps.sql, practice.id);
  return {
    practice: practice.name,
    town: practice.town,
    people: staff
      .filter((s) => s.endedAt === null)
      .slice(0, 5)
      .map((s) => ({ account: s.account, name: s.displayName, title: s.title })),
  };
}
