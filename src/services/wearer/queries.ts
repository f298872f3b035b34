import 'server-only';
import type { Tx } from '../../db/client';
import { findAlike, findByBeginning, findByNumber, findByParts, listWearers, wordsOf, type WearerListRow } from '../../db/wearerSearch';
import { findMergedInto } from '../../db/wearerMerge';
import { notFound, ok, ruleBroken } from '../../lib/outcome';
import { searchForm, wearerForm } from '../../schema/wearer';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { readWearerFile } from './file';

/** Rows of a page of the whole list, and the most that a search shows: whoever finds more types on. */
const PAGE = 50;
const FOUND = 20;

export interface WearersFound {
  readonly wearers: readonly WearerListRow[];
  /** `alike`: nobody is called so; these names are like it. */
  readonly how: 'all' | 'found' | 'alike';
  /** There are more: of the whole list the next page can be asked for, of a search by typing on. */
  readonly more: boolean;
}

/** A record found under its own name and under one that was merged into it is one. */
const eachOnce = (rows: readonly WearerListRow[]): readonly WearerListRow[] => rows.filter((row, i) => rows.findIndex((r) => r.id === row.id) === i);

async function found(tx: Tx, practiceId: string, search: string): Promise<WearersFound> {
  const of = (wearers: readonly WearerListRow[], how: WearersFound['how']): WearersFound => ({
    wearers: eachOnce(wearers).slice(0, FOUND),
    how,
    more: wearers.length > FOUND,
  });
  const words = await wordsOf(tx, search);
  const number = /^#?(\d{1,9})$/.exec(search)?.[1];
  const numbered = number === undefined ? [] : await findByNumber(tx, practiceId, Number(number));
  if (numbered.length > 0 || words.length === 0) return of(numbered, 'found');
  const begin = await findByBeginning(tx, practiceId, words, FOUND + 1);
  if (begin.length > FOUND) return of(begin, 'found');
  const parts = await findByParts(tx, practiceId, words, FOUND + 1);
  const all = [...begin, ...parts.filter((p) => !begin.some((b) => b.id === p.id))];
  if (all.length > 0) return of(all, 'found');
  return of(await findAlike(tx, practiceId, words, FOUND), 'alike');
}

export const searchWearers = defineQuery({
  name: 'searchWearers',
  right: 'read',
  input: searchForm,
  about: () => null,
  run: async (context, form): Promise<{ ok: true; value: WearersFound & { readonly session: SessionContext } }> => {
    const { tx, caller } = context;
    const session = sessionContextOf(context);
    if (form.search !== '') return ok({ ...(await found(tx, caller.practiceId, form.search)), session });
    const page = await listWearers(tx, caller.practiceId, form.after, PAGE + 1);
    return ok({ wearers: page.slice(0, PAGE), how: 'all', more: page.length > PAGE, session });
  },
});

export const readWearer = defineQuery({
  name: 'readWearer',
  right: 'clinicalRead',
  input: wearerForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form) => {
    const { tx, caller } = context;
    const file = await readWearerFile(context, form.wearerId, form.after);
    if (file) return ok({ ...file, session: sessionContextOf(context) });
    const into = await findMergedInto(tx, caller.practiceId, form.wearerId);
    return into === null ? notFound('wearer') : ruleBroken('wearerMerged', { into });
  },
});
