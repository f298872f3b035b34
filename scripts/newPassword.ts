// npm run new-password -- ACCOUNT: a new password for somebody who can no longer ask an admin, on the owner's DATABASE_URL.
import { Temporal } from 'temporal-polyfill';
import { insertAudit } from '../src/db/audit';
import { connect } from '../src/db/client';
import { endSessionsOf } from '../src/db/session';
import { findStaffByAccount, setPasswordHash } from '../src/db/staff';
import { password as passwordForm } from '../src/schema/staff';
import { hashPassword } from '../src/server/password';
import { openPrompt, refusePasswordArgument } from './lib/prompt';

refusePasswordArgument();
const url = process.env.DATABASE_URL;
const [account = ''] = process.argv.slice(2);
if (!url || account === '') {
  console.error('Keen Fit: set DATABASE_URL to the owner’s address of the database and name the account: npm run new-password -- asha');
  process.exit(1);
}
const owner = connect(url, { max: 1 });
const prompt = openPrompt();
try {
  const staff = await findStaffByAccount(owner, account.trim().toLowerCase());
  if (!staff) throw new Error(`nobody who works here has the account ${account}`);
  const text = await prompt.askHidden(`New password for ${staff.displayName}`, (typed) =>
    passwordForm.safeParse(typed).success ? null : 'At least ten characters.',
  );
  const now = Temporal.Now.instant().round('millisecond').toString();
  const hash = await hashPassword(text);
  await owner.begin(async (tx) => {
    await setPasswordHash(tx, staff.practiceId, staff.personId, hash, now);
    await endSessionsOf(tx, staff.practiceId, staff.personId, now);
    await insertAudit(tx, {
      id: crypto.randomUUID(),
      practiceId: staff.practiceId,
      at: now,
      personId: null,
      action: 'newPassword',
      subjectKind: 'person',
      subjectId: staff.personId,
    });
  });
  console.log(`${staff.displayName} has a new password; where they were signed in they are no longer.`);
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exitCode = 1;
} finally {
  prompt.close();
  await owner.end();
}
