import 'server-only';
import { endLoan, findLoan, insertLoan } from '../../db/trialLoan';
import { lockTrialStock, moveTrials } from '../../db/trialStock';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { endLoanForm, lendTrialsForm } from '../../schema/trialStock';
import { defineCommand } from '../define';

/** Trial lenses that somebody else borrows: they leave the drawer, and are asked back. */
export const lendTrials = defineCommand({
  name: 'lendTrials',
  right: 'stock',
  input: lendTrialsForm,
  about: (form) => ({ subjectKind: 'trialStock', subjectId: form.trialStockId }),
  run: async ({ tx, caller, now, today, newId }, form): Promise<Result<{ readonly loanId: string }>> => {
    const { trialStockId, count, lentTo, dueOn } = form;
    if (dueOn !== null && dueOn < today) return invalid('dueOn', 'dayPast', { day: dueOn });
    const stock = await lockTrialStock(tx, caller.practiceId, trialStockId);
    if (!stock) return notFound('trialStock');
    if (stock.count < count) return invalid('count', 'trialFewer', { left: stock.count });
    const moved = { at: now, by: caller.personId };
    const loanId = newId();
    await moveTrials(tx, caller.practiceId, [{ trialStockId, kind: 'lent', change: -count, visitId: null, note: lentTo }], moved);
    await insertLoan(tx, { id: loanId, practiceId: caller.practiceId, trialStockId, count, lentTo, dueOn }, moved);
    return ok({ loanId });
  },
});

/** A loan that is over: what came back unopened lies in the drawer again, the rest was used there. */
export const endTrialLoan = defineCommand({
  name: 'endTrialLoan',
  right: 'stock',
  input: endLoanForm,
  about: (form) => ({ subjectKind: 'trialLoan', subjectId: form.loanId }),
  run: async ({ tx, caller, now, newId }, { loanId, returned }): Promise<Result<null>> => {
    const loan = await findLoan(tx, caller.practiceId, loanId);
    if (!loan) return notFound('trialLoan');
    if (returned > loan.count) return invalid('returned', 'trialFewer', { left: loan.count });
    const moved = { at: now, by: caller.personId };
    const ended = await endLoan(tx, { id: newId(), practiceId: caller.practiceId, loanId, returned }, moved);
    if (!ended) return err({ kind: 'conflict', what: 'trialLoan', differs: [] });
    const { trialStockId } = loan;
    if (returned > 0) await moveTrials(tx, caller.practiceId, [{ trialStockId, kind: 'lentBack', change: returned, visitId: null, note: null }], moved);
    return ok(null);
  },
});
