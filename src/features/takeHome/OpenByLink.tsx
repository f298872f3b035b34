'use client';
import './phone.css';
import { homeWords, HOME_LANGUAGES } from '../common/takeHome/words';
import { useLinkOfHash } from './useLinkOfHash';

/** Opens the page by what stands behind the link's hash, or says that nothing does. */
export function OpenByLink() {
  const state = useLinkOfHash();
  // Whose page it is is not known yet: every language says it.
  return (
    <main className="home-phone">
      {HOME_LANGUAGES.map((language) => {
        const { t, dir } = homeWords(language);
        return (
          <p key={language} lang={language} dir={dir}>
            {t(`phone.${state}`)}
          </p>
        );
      })}
    </main>
  );
}
