'use client';
import { lastDayOf, soakOver, type HomeChange, type TakeHomePage } from '@/core';
import type { HomeWords } from '../common/takeHome/words';
import { dayHere, useClocks } from './useClocks';

const DAY_MS = 86_400_000;

/** The wearer's clocks: a soak, and the last days of what was opened. Times are the telephone's own. */
export function Clocks({ page, words, visitId }: { readonly page: TakeHomePage; readonly words: HomeWords; readonly visitId: string }) {
  const { t } = words;
  const clocks = useClocks(visitId);
  const { product, changes } = page;
  if (product === null && changes.length === 0) return null;
  return (
    <section className="home-clocks">
      <h2>{t('phone.clocks')}</h2>
      {product ? <Soak clocks={clocks} product={product} words={words} /> : null}
      {changes.map((change) => (
        <Opened key={change.what} change={change} clocks={clocks} words={words} />
      ))}
      <p className="home-small">{t('phone.kept')}</p>
    </section>
  );
}

type Noted = ReturnType<typeof useClocks>;

/** Started: over by that product's own time. It never says that lenses are safe. */
function Soak({ clocks, product, words }: { readonly clocks: Noted; readonly product: NonNullable<TakeHomePage['product']>; readonly words: HomeWords }) {
  const { t } = words;
  const { soakAt, now } = clocks;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const over = soakAt === null ? null : soakOver(soakAt, product);
  if (soakAt === null || over === null || now === null)
    return (
      <button type="button" className="home-press" onClick={clocks.startSoak}>
        {t('phone.soakStart')}
      </button>
    );
  const done = now >= Date.parse(over);
  const stored = now >= Date.parse(over) + product.storeDays * DAY_MS;
  return (
    <div className="home-clock" data-testid="soak">
      <strong>{t(done ? 'phone.soakOver' : 'phone.soakRuns', { time: words.time(over, zone) })}</strong>
      {done ? null : <p>{t('phone.soakSince', { time: words.time(soakAt, zone) })}</p>}
      {stored ? (
        <p>{t(product.system === 'peroxide' ? 'care.storePeroxide' : 'care.store', { days: product.storeDays, product: words.ltr(product.name) })}</p>
      ) : null}
      <div className="home-presses">
        <button type="button" className="home-press home-press-plain" onClick={clocks.startSoak}>
          {t('phone.soakAgain')}
        </button>
        <button type="button" className="home-press home-press-plain" onClick={clocks.stopSoak}>
          {t('phone.soakStop')}
        </button>
      </div>
    </div>
  );
}

/** Opened on a day: its last day. What the page itself knows stands until the wearer opens the next one. */
function Opened({ change, clocks, words }: { readonly change: HomeChange; readonly clocks: Noted; readonly words: HomeWords }) {
  const { t } = words;
  const openedOn = clocks.openedOn(change.what) ?? change.openedOn;
  const last = openedOn === null ? null : lastDayOf(change, openedOn);
  const past = last !== null && clocks.now !== null && dayHere(new Date(clocks.now)) > last;
  return (
    <div className="home-clock" data-testid={`opened-${change.what}`}>
      <strong>{t(`change.${change.what}`)}</strong>{' '}
      {openedOn !== null && last !== null ? (
        <span className={past ? 'home-past' : undefined}>
          {past ? t('phone.past', { last: words.shortDay(last) }) : t('phone.openedOn', { day: words.shortDay(openedOn), last: words.shortDay(last) })}
        </span>
      ) : null}
      <button type="button" className="home-press home-press-plain" onClick={() => clocks.open(change.what)}>
        {t(`phone.opened.${change.what}`)}
      </button>
    </div>
  );
}
