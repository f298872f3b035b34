import 'server-only';
import { EYES, expiryState, type Eye, type LensSpec } from '../../core';
import { insertBroughtAlong } from '../../db/broughtAlong';
import { ensureLenses } from '../../db/lens';
import { takeNumbers } from '../../db/practice';
import { listOtherDays, receiveTrials } from '../../db/trialStock';
import { insertWearers, listNamesakes } from '../../db/wearer';
import { must } from '../../lib/assert';
import { ok, type Result } from '../../lib/outcome';
import {
  listForm,
  readTrialLine,
  readWearerLine,
  TRIAL_COLUMNS,
  TRIALS_NEED,
  WEARER_COLUMNS,
  WEARERS_NEED,
  type TrialLine,
  type WearerLine,
} from '../../schema/list';
import { defineCommand, type Context } from '../define';
import { faultsOf, ListLenses, listRead, openList, type ListFault, type ListRead } from './read';

interface GoodWearer {
  readonly line: number;
  readonly wearer: WearerLine;
  readonly worn: readonly { readonly eye: Eye; readonly lens: LensSpec }[];
}

/** Of lines that can be read: those whose lenses exist, and whose wearers are not here yet. */
async function goodWearers(
  context: Context,
  lines: readonly { readonly line: number; readonly wearer: WearerLine }[],
  faults: ListFault[],
): Promise<GoodWearer[]> {
  const { tx, caller, today } = context;
  const lenses = new ListLenses(context);
  const here = await listNamesakes(
    tx,
    caller.practiceId,
    lines.map((l) => l.wearer),
  );
  const key = (w: { readonly name: string; readonly birthDate: string }): string => `${w.name.normalize('NFC').toLocaleLowerCase('en')} ${w.birthDate}`;
  const known = new Map(here.map((w) => [key(w), w.recordNumber]));
  const before = new Map<string, number>();
  const good: GoodWearer[] = [];
  for (const { line, wearer } of lines) {
    const record = known.get(key(wearer));
    const earlier = before.get(key(wearer));
    if (wearer.birthDate > today) faults.push(...faultsOf(line, [{ path: ['birth_date'], code: 'birthDateInFuture', data: { value: wearer.birthDate } }]));
    else if (record !== undefined) faults.push({ line, gravity: 'watch', column: 'name', code: 'listHere', data: { record } });
    else if (earlier !== undefined) faults.push({ line, gravity: 'watch', column: 'name', code: 'listTwice', data: { line: earlier } });
    else {
      const worn: { eye: Eye; lens: LensSpec }[] = [];
      const wrong: ListFault[] = [];
      for (const eye of EYES) {
        const cells = wearer[eye];
        if (!cells) continue;
        const spec = await lenses.specOf(cells, `${eye}_`);
        if (spec.ok) worn.push({ eye, lens: spec.value });
        else wrong.push(...faultsOf(line, [spec.error]));
      }
      faults.push(...wrong);
      if (wrong.length > 0) continue;
      before.set(key(wearer), line);
      good.push({ line, wearer, worn });
    }
  }
  return good;
}

async function takeWearers(context: Context, good: readonly GoodWearer[]): Promise<void> {
  const { tx, caller, now, today, newId } = context;
  if (good.length === 0) return;
  const first = await takeNumbers(tx, caller.practiceId, 'wearer', good.length);
  const rows = good.map(({ wearer, worn }, i) => ({ id: newId(), recordNumber: first + i, wearer, worn }));
  await insertWearers(
    tx,
    caller.practiceId,
    rows.map(({ id, recordNumber, wearer: { name, birthDate, telephone, occupation, guardian } }) => ({
      id,
      recordNumber,
      name,
      birthDate,
      telephone,
      occupation,
      guardian,
    })),
    now,
  );
  const worn = rows.flatMap((row) => row.worn.map((w) => ({ ...w, wearerId: row.id, asOf: row.wearer.wornAsOf ?? today })));
  const ids = await ensureLenses(
    tx,
    caller.practiceId,
    worn.map((w) => w.lens),
    newId,
  );
  const brought = worn.map(({ wearerId, eye, asOf }, i) => ({ id: newId(), wearerId, eye, asOf, lensId: must(ids[i], 'lens') }));
  await insertBroughtAlong(tx, caller.practiceId, brought, now, caller.personId);
}

/** Wearers of a list, with what they wear: first looked at, then taken in, all or nothing. */
export const importWearers = defineCommand({
  name: 'importWearers',
  right: 'settings',
  input: listForm,
  about: () => null,
  run: async (context, form): Promise<Result<ListRead>> => {
    const open = openList(form.bytes, WEARER_COLUMNS, WEARERS_NEED);
    if (!open.ok) return open;
    const faults: ListFault[] = [];
    const lines = open.value.rows.flatMap(({ line, cells }) => {
      const read = readWearerLine(cells);
      if (read.ok) return [{ line, wearer: read.value }];
      faults.push(...faultsOf(line, read.fields));
      return [];
    });
    const good = await goodWearers(context, lines, faults);
    if (form.take) await takeWearers(context, good);
    return ok(listRead(open.value, good.length, form.take, faults));
  },
});

interface GoodTrial {
  readonly line: number;
  readonly trial: TrialLine;
  readonly lens: LensSpec;
}

/** Lots whose lenses exist, that are not past their day and are not kept with another day. */
async function goodTrials(context: Context, lines: readonly { readonly line: number; readonly trial: TrialLine }[], faults: ListFault[]) {
  const { tx, caller, today, newId } = context;
  const lenses = new ListLenses(context);
  const made: GoodTrial[] = [];
  for (const { line, trial } of lines) {
    const spec = await lenses.specOf(trial);
    if (!spec.ok) faults.push(...faultsOf(line, [spec.error]));
    else if (expiryState(trial.expires_on, today) === 'expired')
      faults.push(...faultsOf(line, [{ path: ['expires_on'], code: 'trialExpired', data: { expired: trial.expires_on } }]));
    else made.push({ line, trial, lens: spec.value });
  }
  const ids = await ensureLenses(
    tx,
    caller.practiceId,
    made.map((m) => m.lens),
    newId,
  );
  const received = made.map(({ trial }, i) => ({ lensId: must(ids[i], 'lens'), lot: trial.lot, expiresOn: trial.expires_on, count: trial.count }));
  const others = received.length === 0 ? [] : await listOtherDays(tx, caller.practiceId, received);
  return received.flatMap((lot, i) => {
    const line = made[i]?.line ?? 0;
    const elsewhere =
      others.find((o) => o.lensId === lot.lensId && o.lot === lot.lot) ??
      received.slice(0, i).find((o) => o.lensId === lot.lensId && o.lot === lot.lot && o.expiresOn !== lot.expiresOn);
    if (!elsewhere) return [lot];
    faults.push(...faultsOf(line, [{ path: ['expires_on'], code: 'lotOtherDay', data: { lot: lot.lot, other: elsewhere.expiresOn } }]));
    return [];
  });
}

/** Trial lenses of a list: first looked at, then put in the drawer, all or nothing. */
export const importTrials = defineCommand({
  name: 'importTrials',
  right: 'stock',
  input: listForm,
  about: () => null,
  run: async (context, form): Promise<Result<ListRead>> => {
    const open = openList(form.bytes, TRIAL_COLUMNS, TRIALS_NEED);
    if (!open.ok) return open;
    const faults: ListFault[] = [];
    const lines = open.value.rows.flatMap(({ line, cells }) => {
      const read = readTrialLine(cells);
      if (read.ok) return [{ line, trial: read.value }];
      faults.push(...faultsOf(line, read.fields));
      return [];
    });
    const { tx, caller, now, newId } = context;
    const good = await goodTrials(context, lines, faults);
    if (form.take) await receiveTrials(tx, caller.practiceId, inOneLot(good), { at: now, by: caller.personId, note: null }, newId);
    return ok(listRead(open.value, good.length, form.take, faults));
  },
});

/** Lines of one lot together: a lot is received once. */
function inOneLot<Lot extends { readonly lensId: string; readonly lot: string; readonly expiresOn: string; readonly count: number }>(
  lots: readonly Lot[],
): Lot[] {
  const byLot = new Map<string, Lot>();
  for (const lot of lots) {
    const key = JSON.stringify([lot.lensId, lot.lot, lot.expiresOn]);
    const known = byLot.get(key);
    byLot.set(key, known ? { ...known, count: known.count + lot.count } : lot);
  }
  return [...byLot.values()];
}
