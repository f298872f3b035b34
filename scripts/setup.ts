// npm run setup: a real practice and its first admin, on the database of DATABASE_URL.
import { Temporal } from 'temporal-polyfill';
import { openAppLogin } from '../src/db/appRole';
import { connect } from '../src/db/client';
import { migrate } from '../src/db/migrate';
import { insertMembership, insertPerson } from '../src/db/staff';
import { insertPractice } from '../src/db/practice';
import { addStaffForm } from '../src/schema/staff';
import { hashPassword } from '../src/server/password';
import { openPrompt, refusePasswordArgument, type Check } from './lib/prompt';

const url = process.env.DATABASE_URL;
if (!url) {
  console.error('Keen Fit: set DATABASE_URL to the owner’s address of an empty PostgreSQL database, then run this again.');
  process.exit(1);
}
const given = new Map(process.argv.slice(2).map((arg) => [arg.split('=')[0]?.replace(/^--/, '') ?? '', arg.split('=').slice(1).join('=')]));
refusePasswordArgument();
const prompt = openPrompt();

/** `--name=value` on the command line answers beforehand. */
async function ask(key: string, question: string, check: Check): Promise<string> {
  const ready = given.get(key);
  if (ready === undefined) return prompt.ask(question, check);
  const problem = check(ready.trim());
  if (problem !== null) throw new Error(`--${key}: ${problem}`);
  return ready.trim();
}
const needed = (text: string): string | null => (text === '' ? 'This is needed.' : null);
const zone = (text: string): string | null => {
  try {
    Temporal.Now.zonedDateTimeISO(text);
    return null;
  } catch {
    return 'Not a time zone; for example America/New_York.';
  }
};
const field =
  (name: 'account' | 'password'): Check =>
  (text) => {
    const read = addStaffForm.shape[name].safeParse(text);
    return read.success ? null : name === 'account' ? '2 to 40 small letters, digits, dots, dashes.' : 'At least ten characters.';
  };

const owner = connect(url, { max: 2 });
try {
  await migrate(owner);
  const [count] = await owner<{ n: number }[]>`select count(*)::int as n from practice`;
  if ((count?.n ?? 0) > 0) throw new Error('this database has a practice already; nothing was changed');
  const practice = {
    id: crypto.randomUUID(),
    name: await ask('practice', 'Name of the practice', needed),
    town: await ask('town', 'Town', needed),
    address: await ask('address', 'Address', needed),
    telephone: await ask('telephone', 'Telephone', needed),
    emergencyTelephone: await ask('emergency', 'Emergency telephone (printed on everything a wearer takes home)', needed),
    timeZone: await ask('zone', 'Time zone, for example America/New_York', zone),
    locale: 'en',
    currency: (await ask('currency', 'Currency, three letters', (t) => (/^[A-Z]{3}$/i.test(t) ? null : 'Three letters, for example USD.'))).toUpperCase(),
  };
  const name = await ask('admin', 'Name of the first admin', needed);
  const account = await ask('account', 'Their account name', field('account'));
  const password = await prompt.askHidden('Their password', field('password'));
  const now = Temporal.Now.instant().round('millisecond').toString();
  await owner.begin(async (tx) => {
    await insertPractice(tx, practice, now);
    const personId = crypto.randomUUID();
    await insertPerson(tx, { id: personId, account, displayName: name, passwordHash: await hashPassword(password), at: now });
    await insertMembership(tx, { id: crypto.randomUUID(), practiceId: practice.id, personId, title: 'admin', registerNumber: null, roles: ['admin'], at: now });
  });
  const appUrl = await openAppLogin(owner, url);
  console.log(`\n${practice.name} is set up. The admin adds everybody else under Staff.`);
  console.log('Start the web server and the jobs with this (it holds a secret: keep it out of files that are shared):');
  console.log(`  KEENFIT_DATABASE_URL=${appUrl} npm run serve`);
} catch (cause) {
  console.error(`\nKeen Fit: ${cause instanceof Error ? cause.message : String(cause)}`);
  process.exitCode = 1;
} finally {
  prompt.close();
  await owner.end();
}
