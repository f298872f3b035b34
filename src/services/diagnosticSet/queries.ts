import 'server-only';
import { listDiagnosticLenses, listDiagnosticLensEvents, type DiagnosticLensEvent } from '../../db/diagnosticLens';
import type { SetLens } from '../../core';
import { notFound, ok } from '../../lib/outcome';
import { setLensForm } from '../../schema/diagnosticSet';
import { emptyForm } from '../../schema/fields';
import { defineQuery, libraryTag } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface SetsPage {
  readonly session: SessionContext;
  readonly libraryTag: string;
  /** Every lens of the practice's sets, by set and curve. */
  readonly lenses: readonly SetLens[];
  readonly now: string;
}

export const readSets = defineQuery({
  name: 'readSets',
  right: 'stock',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const page: SetsPage = {
      session: sessionContextOf(context),
      libraryTag: libraryTag(context),
      lenses: await listDiagnosticLenses(context.tx, context.caller.practiceId, context.today),
      now: context.now,
    };
    return ok(page);
  },
});

export const readSetLens = defineQuery({
  name: 'readSetLens',
  right: 'clinicalRead',
  input: setLensForm,
  about: (form) => ({ subjectKind: 'diagnosticLens', subjectId: form.diagnosticLensId }),
  run: async ({ tx, caller }, form) => {
    const events: readonly DiagnosticLensEvent[] = await listDiagnosticLensEvents(tx, caller.practiceId, form.diagnosticLensId);
    // Whatever belongs to a set came into it by an event.
    return events.length > 0 ? ok({ events }) : notFound('diagnosticLens');
  },
});
