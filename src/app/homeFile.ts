import { createElement } from 'react';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { icsOf } from '@/formats/ical/event';
import { printPage } from '@/formats/pdf/printed';
import { homeCalendar } from '@/features/common/takeHome/calendar';
import { HomeSheet } from '@/features/common/takeHome/HomeSheet';
import { homeLanguage, isChecked } from '@/features/common/takeHome/words';
import type { GivenPage } from '@/services/takeHome/queries';
import { homeDocument } from './homeDocument';

const FORMATS = ['pdf', 'ics'] as const;
export type HomeFormat = (typeof FORMATS)[number];
export const isHomeFormat = (text: string): text is HomeFormat => (FORMATS as readonly string[]).includes(text);

/** The page as a document that needs nothing from outside. */
async function documentOf({ sheet, checks }: GivenPage): Promise<{ readonly html: string; readonly missing: string }> {
  const language = homeLanguage(sheet.language);
  // Its own server part: a page's drawing is asked for as text, not as a page of the application.
  const { renderToStaticMarkup } = await import('react-dom/server');
  const body = renderToStaticMarkup(createElement(HomeSheet, { page: sheet.page, language, number: sheet.number, checked: isChecked(language, checks) }));
  const css = await readFile(join(process.cwd(), 'src/features/common/takeHome/sheet.css'), 'utf8');
  return homeDocument(body, { language, name: sheet.page.wearer.name, css });
}

const fileName = (given: GivenPage, format: HomeFormat): string =>
  `lenses-${String(given.sheet.page.wearer.recordNumber).padStart(4, '0')}-${given.sheet.number}.${format}`;

const asFile = (body: BodyInit, type: string, name: string): Response =>
  new Response(body, { headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' } });

/** A page as it was given, as a file: PDF, or the calendar of its days. 422: a letter of it is in no font here; 429: too many wait; 503: nothing here prints. */
export async function homeFile(given: GivenPage, format: HomeFormat): Promise<Response> {
  if (format === 'ics') {
    const { sheet } = given;
    const events = homeCalendar(sheet.page, homeLanguage(sheet.language), { visitId: sheet.visitId, writtenAt: sheet.givenAt });
    return asFile(icsOf(...events), 'text/calendar; charset=utf-8', fileName(given, format));
  }
  const { html, missing } = await documentOf(given);
  if (missing !== '') return Response.json({ why: 'letters', letters: missing }, { status: 422 });
  const pdf = await printPage(html);
  if (pdf === 'busy') return Response.json({ why: pdf }, { status: 429 });
  return pdf === 'noPrinter' ? Response.json({ why: pdf }, { status: 503 }) : asFile(new Uint8Array(pdf), 'application/pdf', fileName(given, format));
}
