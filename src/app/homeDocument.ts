import { fontRules, lettersMissing } from '@/formats/pdf/pageFonts';
import { homeWords, type HomeLanguage } from '@/features/common/takeHome/words';

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/**
 * The page to take home as a document that needs nothing from outside: it carries its fonts, and may run and fetch nothing.
 * @param body the page as it is drawn
 * @returns the document, and the letters that none of its fonts has
 */
export function homeDocument(
  body: string,
  of: { readonly language: HomeLanguage; readonly name: string; readonly css: string },
): { readonly html: string; readonly missing: string } {
  const { language, name, css } = of;
  const text = body.replaceAll(/<[^>]*>/g, ' ');
  const { t, dir } = homeWords(language);
  const html = `<!doctype html>
<html lang="${language}" dir="${dir}"><head><meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; font-src data:">
<title>${escaped(t('title', { name }))}</title>
<style>${fontRules(text)}
body{margin:0}
${css}</style></head><body>${body}</body></html>`;
  return { html, missing: lettersMissing(text) };
}
