import { formatRecord } from '@/i18n/format';
import type { ReactNode } from 'react';
import type { TakeHomePage } from '@/core';
import { Care, Changes, Danger, DangerBrief, Hours, Lenses, Lines } from './parts';
import { homeWords, type HomeLanguage, type HomeWords } from './words';

/** Minutes of flushing after a splash, and after cleaner, lime or cement. Source: common practice. */
const FLUSH_MINUTES = 15;
const FLUSH_LONG_MINUTES = 30;

/** More lines than these stand closer together. */
const USUAL_LINES = 8;

export interface HomeSheetProps {
  readonly page: TakeHomePage;
  readonly language: HomeLanguage;
  /** Which of the wearer's sheets it is; null while it was not given yet. */
  readonly number: number | null;
  /** A speaker of the language looked at its words. */
  readonly checked: boolean;
  /** What a telephone adds below evening and morning. */
  readonly clocks?: ReactNode;
}

function Foot({ page, words, number }: { readonly page: TakeHomePage; readonly words: HomeWords; readonly number: number | null }) {
  const { t, ltr } = words;
  const { signedOff, product, notSaidBack } = page;
  const taught = signedOff
    ? signedOff.handler
      ? t('foot.taughtHandler', { name: ltr(signedOff.handler), day: words.day(signedOff.day) })
      : t('foot.taught', { day: words.day(signedOff.day) })
    : t('foot.untaught');
  const sheet = `${formatRecord(page.wearer.recordNumber)}${number === null ? '' : `-${number}`}`;
  return (
    <footer className="home-foot">
      {notSaidBack.length > 0 ? <p>{t('foot.notSaid', { topics: notSaidBack.map((topic) => t(`topics.${topic}`)).join(' · ') })}</p> : null}
      <div>
        <span>{product ? t('foot.label', { product: ltr(product.name) }) : t('foot.single')}</span>
        <span>
          {t('foot.sheet', { sheet: ltr(sheet) })} · {taught}
        </span>
      </div>
    </footer>
  );
}

/**
 * The page to take home, one side of A4. It uses no hooks: shown on a screen, printed and written to a file it is the same. A language whose
 * words nobody checked says so, and carries the danger signs in English as well.
 */
export function HomeSheet({ page, language, number, checked, clocks }: HomeSheetProps) {
  const words = homeWords(language);
  const { t } = words;
  const english = !checked && language !== 'en';
  const close =
    english ||
    page.additions.length > 0 || page.notSaidBack.length > 0 || page.product?.ownLabel === true || Math.max(page.lines.do.length, page.lines.dont.length) > USUAL_LINES;
  return (
    <article className={`home-sheet${close ? ' home-close' : ''}`} lang={language} dir={words.dir} data-testid="home-sheet">
      <header>
        <div>
          <h1>{t('title', { name: words.ltr(page.wearer.name) })}</h1>
          <p>
            {t('born', { day: words.day(page.wearer.birthDate) })} · {t('handedOn', { day: words.day(page.handedOn) })}
          </p>
        </div>
        <p className="home-from">
          <strong dir="auto">{page.practice.name}</strong>
          <span dir="auto">{page.practice.address}</span>
          <span dir="ltr">{page.practice.telephone}</span>
        </p>
      </header>
      <Lenses page={page} words={words} />
      {english ? <p className="home-unchecked">{t('unchecked')}</p> : null}
      <Danger page={page} words={words} />
      {english ? <DangerBrief page={page} words={homeWords('en')} /> : null}
      <Care page={page} words={words} />
      {clocks}
      <div className="home-two">
        <Hours page={page} words={words} />
        <Changes page={page} words={words} />
        <Lines page={page} words={words} side="do" />
        <Lines page={page} words={words} side="dont" />
      </div>
      {page.additions.length > 0 ? (
        <p>
          <bdi>{t('added', { text: page.additions.join(' · ') })}</bdi>
        </p>
      ) : null}
      <p className="home-splash">
        <strong>{t('splash.title')}</strong> {t('splash.do', { minutes: FLUSH_MINUTES, long: FLUSH_LONG_MINUTES })}
      </p>
      <Foot page={page} words={words} number={number} />
    </article>
  );
}
