'use client';
import '@fontsource/noto-sans-arabic/arabic-400.css';
import '@fontsource/noto-sans-arabic/arabic-700.css';
import '../common/takeHome/sheet.css';
import './phone.css';
import type { TakeHomePage } from '@/core';
import { HomeSheet } from '../common/takeHome/HomeSheet';
import { homeWords, type HomeLanguage } from '../common/takeHome/words';
import { Clocks } from './Clocks';
import { useLinkOfHash } from './useLinkOfHash';

/** The page on the wearer's own telephone: the number first, their clocks, then all that stands on paper. */
export function PhonePage({
  page,
  language,
  number,
  checked,
  visitId,
}: {
  readonly page: TakeHomePage;
  readonly language: HomeLanguage;
  readonly number: number;
  readonly checked: boolean;
  readonly visitId: string;
}) {
  const words = homeWords(language);
  const link = useLinkOfHash();
  const { t } = words;
  return (
    <main className="home-phone" lang={language} dir={words.dir}>
      {link === 'ended' ? <p role="alert">{t('phone.ended')}</p> : null}
      <a className="home-press home-call" href={`tel:${page.emergencyTelephone.replaceAll(/[^+\d]/g, '')}`}>
        {t('phone.call', { number: words.ltr(page.emergencyTelephone) })}
      </a>
      <HomeSheet page={page} language={language} number={number} checked={checked} clocks={<Clocks page={page} words={words} visitId={visitId} />} />
      <div className="home-presses">
        <a className="home-press home-press-plain" href="/api/home/ics" download>
          {t('phone.calendar')}
        </a>
        <a className="home-press home-press-plain" href="/api/home/pdf" download>
          {t('phone.file')}
        </a>
      </div>
    </main>
  );
}
