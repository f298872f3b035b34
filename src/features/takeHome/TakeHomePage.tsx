'use client';
import '@fontsource/noto-sans-arabic/arabic-400.css';
import '@fontsource/noto-sans-arabic/arabic-700.css';
import '../common/takeHome/sheet.css';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import takeHomeDeskWords from '@/i18n/messages/en/takeHomeDesk.messages.json';
import takeHomeProblems from '@/i18n/messages/en/takeHomeProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { HomeDesk } from '@/services/takeHome/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { Stated } from '@/ui/marks';
import { HOME_LANGUAGE_NAMES, HOME_LANGUAGES, homeLanguage } from '../common/takeHome/words';
import { useRefusalWords } from '../common/words';
import { useHomeDesk, type Desk } from './useHomeDesk';

// Drawings and the words of three languages come after the buttons; what is opened now and then brings its own script.
const HomeSheet = dynamic(() => import('../common/takeHome/HomeSheet').then((m) => m.HomeSheet), { ssr: false });
const CheckLanguage = lazy(() => import('./CheckLanguage').then((m) => ({ default: m.CheckLanguage })));
const LinkPanel = lazy(() => import('./LinkPanel').then((m) => ({ default: m.LinkPanel })));

/** The page to take home: seen as it will be, and given on paper, as a file or on the wearer's telephone. */
function TakeHomeDesk({ first }: { readonly first: HomeDesk }) {
  const t = useTranslations('takeHomeDesk');
  const words = useRefusalWords();
  const at = useHomeDesk(first);
  const { desk, language } = at;
  const { wearer, page } = desk;
  return (
    <main className="paper-page home-desk">
      <div className="home-side">
        <nav className="flex gap-2">
          <Link className="btn btn-plain" href={`/visits/${desk.visitId}/lesson`} prefetch={false}>
            {t('back')}
          </Link>
          <Link className="btn btn-plain" href={`/visits/${desk.visitId}/supply`} prefetch={false}>
            {t('toSupply')}
          </Link>
        </nav>
        <div>
          <h1 className="power">{t('title')}</h1>
          <p className="label">{t('for', { name: wearer.name, day: formatDay(wearer.birthDate), record: formatRecord(wearer.recordNumber) })}</p>
        </div>
        {page ? <Ways at={at} letters={desk.letters} /> : <MissingParts desk={desk} />}
        {at.sending.problem ? <ProblemLine>{words(at.sending.problem)}</ProblemLine> : null}
        {at.trouble ? <ProblemLine>{at.trouble === 'letters' ? t('letters', { letters: desk.letters }) : t(at.trouble)}</ProblemLine> : null}
        <p role="status" className="label">
          {at.said}
        </p>
        <Given at={at} />
      </div>
      {page ? (
        <div className="home-paper" data-language={language}>
          <HomeSheet page={page} language={language} number={at.number} checked={at.checked} />
        </div>
      ) : null}
      {at.link ? (
        <Suspense fallback={null}>
          <LinkPanel link={at.link} until={desk.links.at(-1)?.expiresAt ?? ''} onClose={at.closeLink} />
        </Suspense>
      ) : null}
    </main>
  );
}

/** What the page cannot be without, each with what would free it. */
function MissingParts({ desk }: { readonly desk: HomeDesk }) {
  const t = useTranslations('takeHomeDesk');
  const step = (path: string): string => `/visits/${desk.visitId}/${path}`;
  const ways = {
    emergencyTelephone: '/settings',
    handOver: step('lesson'),
    careSystem: step('lesson'),
    careFigures: '/settings',
    careStopped: step('prescription'),
  } as const;
  return (
    <section role="alert">
      <h2 className="mb-2">{t('missing')}</h2>
      {desk.missing.map((what) => (
        <p key={what} className="py-2">
          <Stated state="stop">{t(`missingOf.${what}`)}</Stated>{' '}
          <Link className="btn btn-plain mt-1" href={ways[what]} prefetch={false}>
            {t(`free.${what}`)}
          </Link>
        </p>
      ))}
    </section>
  );
}

/** Language, and the three ways; paper is the first. */
function Ways({ at, letters }: { readonly at: Desk; readonly letters: string }) {
  const t = useTranslations('takeHomeDesk');
  const { desk, language, busy } = at;
  const { roles } = desk.session.viewer;
  const name = HOME_LANGUAGE_NAMES[language];
  const check = desk.checks.find((c) => c.language === language);
  const untold = desk.page?.notSaidBack.length ?? 0;
  return (
    <>
      <Segment label={t('language')} values={HOME_LANGUAGES} value={language} word={(one) => HOME_LANGUAGE_NAMES[one]} onChoose={at.setLanguage} />
      {at.checked ? (
        check ? (
          <p className="note">{t('checked', { language: name, speaker: check.speaker, day: formatDay(check.checkedOn) })}</p>
        ) : null
      ) : (
        <>
          <Stated state="watch">{t('unchecked', { language: name })}</Stated>
          {may(roles, 'settings') ? (
            <Suspense fallback={null}>
              <CheckLanguage key={language} at={at} name={name} />
            </Suspense>
          ) : null}
        </>
      )}
      {untold > 0 ? <Stated state="watch">{t('notSaid', { count: untold })}</Stated> : null}
      {letters === '' ? null : <Stated state="watch">{t('letters', { letters })}</Stated>}
      <Button look="act" disabled={busy} onClick={() => void at.print()}>
        {t('print')}
      </Button>
      <Button disabled={busy || letters !== ''} onClick={() => void at.asFile()}>
        {t('file')}
      </Button>
      {desk.address === null ? (
        <p className="note">
          {t('phoneNone')}{' '}
          {may(roles, 'settings') ? (
            <Link className="btn btn-quiet" href="/settings" prefetch={false}>
              {t('toSettings')}
            </Link>
          ) : null}
        </p>
      ) : (
        <Button disabled={busy} onClick={() => void at.toPhone()}>
          {t('phone')}
        </Button>
      )}
    </>
  );
}

/** What was given, to be had once more; and links that still open it. */
function Given({ at }: { readonly at: Desk }) {
  const t = useTranslations('takeHomeDesk');
  const { desk } = at;
  const zone = desk.session.practice.timeZone;
  return (
    <section>
      <h2 className="mb-1">{t('given')}</h2>
      {desk.given.length === 0 ? <p className="label">{t('givenNone')}</p> : null}
      <ul>
        {desk.given.map((sheet) => (
          <li key={sheet.id} className="py-1 border-b border-rule">
            {t('givenLine', {
              sheet: `${formatRecord(desk.wearer.recordNumber)}-${sheet.number}`,
              language: HOME_LANGUAGE_NAMES[homeLanguage(sheet.language)],
              way: t(`way.${sheet.way}`),
              moment: formatMoment(sheet.givenAt, zone),
              name: sheet.givenByName,
            })}{' '}
            <button type="button" className="btn btn-quiet" onClick={() => void at.file(sheet.id, 'pdf')}>
              {t('pdf')}
            </button>{' '}
            <button type="button" className="btn btn-quiet" onClick={() => void at.file(sheet.id, 'ics')}>
              {t('calendar')}
            </button>
          </li>
        ))}
      </ul>
      {desk.links.length > 0 ? <h3 className="mt-3">{t('links')}</h3> : null}
      <ul>
        {desk.links.map((link) => (
          <li key={link.linkId} className="py-1">
            {t('linkLine', { day: formatMoment(link.expiresAt, zone) })}{' '}
            <button type="button" className="btn btn-quiet" disabled={at.busy} onClick={() => void at.sending.send('endWearerLink', { linkId: link.linkId })}>
              {t('linkEnd')}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

export const TakeHomePage = withWords({ takeHomeDesk: takeHomeDeskWords, problems: takeHomeProblems }, TakeHomeDesk);
