import { prerender } from 'react-dom/static';
import { useTranslations } from 'use-intl';
import { describe, expect, it } from 'vitest';
import { languageFor } from '../../src/core';
import { LANGUAGES, PaperWords } from '../../src/i18n/languages';
import { en } from '../../src/i18n/messages/en';
import { MessagesProvider, type Words } from '../../src/i18n/MessagesProvider';

/** Every word in brackets: what is not, was not taken from the words of this language. */
const bracketed = (words: object): object =>
  Object.fromEntries(Object.entries(words).map(([key, word]: [string, unknown]) => [key, typeof word === 'string' ? `⟦${word}⟧` : bracketed(word as object)]));

function Paper() {
  const t = useTranslations('print');
  return (
    <article>
      <h1>{t('dangerTitle')}</h1>
      <p>{t('dangerDo', { telephone: '911' })}</p>
    </article>
  );
}
async function drawn(language: string, bring?: () => Promise<Words>): Promise<string> {
  const { prelude } = await prerender(
    <MessagesProvider timeZone="UTC" words={{ print: en.print }}>
      <PaperWords language={language} {...(bring ? { bring } : {})}>
        <Paper />
      </PaperWords>
    </MessagesProvider>,
  );
  return new Response(prelude).text();
}

describe('a paper in its reader’s language', () => {
  it('takes every word from that language, whatever the page around it speaks', async () => {
    const markup = await drawn('xx', () => Promise.resolve({ print: bracketed(en.print) as typeof en.print }));
    const texts = [...markup.matchAll(/<(?:h1|p)>([^<]+)</g)].map(([, text = '']) => text);
    expect(texts).toHaveLength(2);
    for (const text of texts) expect(text).toMatch(/^⟦.+⟧$/);
    expect(texts[1]).toContain('911');
  });
  it('in the page’s own language has the words that stand around it', async () => {
    expect(await drawn('en')).toContain(en.print.dangerTitle);
  });
  it('a language that there are no words for is never half-spoken: the paper is in the practice’s', async () => {
    const language = languageFor(['qq', 'en-US'], LANGUAGES);
    expect(language).toBe('en');
    expect(await drawn(language)).toContain(en.print.dangerTitle);
  });
});
