import 'server-only';
import { publicAddressOf, type HomeMissing, type TakeHomePage, type TakeHomeWay } from '../../core';
import { findSheet, listLanguageChecks, listOpenLinks, listSheets, type LanguageCheck, type OpenLink, type SheetRow } from '../../db/takeHome';
import { findVisit } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { must } from '../../lib/assert';
import { lettersMissing } from '../../formats/pdf/pageFonts';
import { notFound, ok } from '../../lib/outcome';
import { readHomePageForm, readSheetForm, takeHomeForm } from '../../schema/takeHome';
import { leadsTo } from '../authorise';
import { defineLinkQuery, defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { pageOf } from './page';

/** Pages that were given, without what stood on them. */
export interface GivenSheet {
  readonly id: string;
  readonly number: number;
  readonly language: string;
  readonly way: TakeHomeWay;
  readonly givenAt: string;
  readonly givenByName: string;
}
/** What the desk of the page needs. */
export interface HomeDesk {
  readonly session: SessionContext;
  readonly visitId: string;
  readonly wearer: { readonly id: string; readonly name: string; readonly birthDate: string; readonly recordNumber: number };
  readonly page: TakeHomePage | null;
  /** Letters of names on the page that no font of ours can write. */
  readonly letters: string;
  readonly missing: readonly HomeMissing[];
  /** The wearer's own language. */
  readonly language: string;
  readonly given: readonly GivenSheet[];
  readonly checks: readonly LanguageCheck[];
  readonly links: readonly OpenLink[];
  /** The practice's address for telephones; null while it has none. */
  readonly address: string | null;
}

/** The page to take home from a visit as it would be given now. */
export const readHomePage = defineQuery({
  name: 'readHomePage',
  right: 'clinicalRead',
  input: readHomePageForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now, settings } = context;
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    if (!visit) return notFound('visit');
    const wearer = must(await findWearer(tx, caller.practiceId, visit.wearerId), 'wearer of the visit');
    const made = await pageOf(context, visit);
    const given = await listSheets(tx, caller.practiceId, visit.id);
    const { id, name, birthDate, recordNumber } = wearer;
    const desk: HomeDesk = {
      session: sessionContextOf(context),
      visitId: visit.id,
      wearer: { id, name, birthDate, recordNumber },
      letters: made.ok ? lettersMissing(JSON.stringify(made.page)) : '',
      page: made.ok ? made.page : null,
      missing: made.ok ? [] : made.missing,
      language: wearer.language,
      given: given.map(({ id, number, language, way, givenAt, givenByName }) => ({ id, number, language, way, givenAt, givenByName })),
      checks: await listLanguageChecks(tx, caller.practiceId),
      links: await listOpenLinks(tx, caller.practiceId, visit.id, now),
      address: publicAddressOf(settings.publicAddress),
    };
    return ok(desk);
  },
});

/** A page as it was given, and whether its language's words were checked. */
export interface GivenPage {
  readonly sheet: SheetRow;
  readonly checks: readonly LanguageCheck[];
}

/** A page as it was given: to be printed or written to a file once more. */
export const readSheet = defineQuery({
  name: 'readSheet',
  right: 'clinicalRead',
  input: readSheetForm,
  about: (form) => ({ subjectKind: 'takeHomeSheet', subjectId: form.sheetId }),
  run: async ({ tx, caller }, form) => {
    const sheet = await findSheet(tx, caller.practiceId, form.sheetId);
    if (!sheet) return notFound('takeHomeSheet');
    const given: GivenPage = { sheet, checks: await listLanguageChecks(tx, caller.practiceId) };
    return ok(given);
  },
});

/** The page that a wearer took home last from a visit: to the staff, and to whoever holds the link to it. */
export const readTakeHome = defineLinkQuery({
  name: 'readTakeHome',
  right: 'clinicalRead',
  links: ['takeHome'],
  input: takeHomeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async ({ tx, caller }, form) => {
    const sheet = leadsTo(caller, form.visitId) ? (await listSheets(tx, caller.practiceId, form.visitId)).at(-1) : undefined;
    if (!sheet) return notFound('takeHomeSheet');
    const given: GivenPage = { sheet, checks: await listLanguageChecks(tx, caller.practiceId) };
    return ok(given);
  },
});
