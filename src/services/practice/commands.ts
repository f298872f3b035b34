import 'server-only';
import { updatePractice } from '../../db/practice';
import { err, ok, type Result } from '../../lib/outcome';
import { practiceForm } from '../../schema/practice';
import { defineCommand } from '../define';

/** Changes what the practice is called and where it is reached. What is signed already keeps what it said. */
export const changePractice = defineCommand({
  name: 'changePractice',
  right: 'settings',
  input: practiceForm,
  about: () => null,
  run: async ({ tx, caller, now, newId }, { version, ...to }): Promise<Result<null>> => {
    const done = await updatePractice(tx, caller.practiceId, version, to, { id: newId(), at: now, by: caller.personId });
    return done ? ok(null) : err({ kind: 'conflict', what: 'practice', differs: [] });
  },
});
