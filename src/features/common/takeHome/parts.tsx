import { DANGER_SIGNS, EYES, formatRefraction, type Eye, type HomeLens, type HomeStep, type TakeHomePage } from '@/core';
import { drawn } from '@/ui/drawing/drawn';
import * as care from '@/ui/drawing/scenes/care';
import type { Scene } from '@/ui/drawing/scenes/poses';
import { SKIN_TONES } from '@/ui/drawing/ink';
import { Octagon, Tick } from './marks';
import type { HomeWords } from './words';

/** Parts of the page; they use no hooks, so that the same page is shown, printed and written to a file. */
export interface PartProps {
  readonly page: TakeHomePage;
  readonly words: HomeWords;
}

const powerOf = ({ sphereD, cylinderD, axisDeg }: HomeLens): string => formatRefraction({ sphere: sphereD, cylinder: cylinderD, axis: axisDeg });

function LensOf({ eye, page, words }: PartProps & { readonly eye: Eye }) {
  const lens = page.lenses[eye];
  return (
    <div className={`home-lens home-lens-${eye}`}>
      <div>
        <strong className="home-power" dir="ltr">
          {lens ? powerOf(lens) : words.t('noLens')}
        </strong>
        <div>{words.t(`eye.${eye}`)}</div>
      </div>
      <span className={`home-letter home-letter-${eye}`}>{words.t(`letter.${eye}`)}</span>
    </div>
  );
}

const curveOf = (lens: HomeLens): string => [lens.baseCurveMm, lens.diameterMm].flatMap((mm) => (mm === null ? [] : [mm.toFixed(1)])).join(' / ');

/** Whose lenses, and which: right eye on the left, as the wearer is looked at. */
export function Lenses({ page, words }: PartProps) {
  const named = [...new Set(EYES.flatMap((eye) => page.lenses[eye] ?? []).map((lens) => `${lens.familyName}\n${curveOf(lens)}`))];
  return (
    <section className="home-lenses" dir="ltr">
      <LensOf eye="right" page={page} words={words} />
      <div className="home-family" dir={words.dir}>
        {named.map((lines) => {
          const [name, curve] = lines.split('\n');
          return (
            <div key={lines}>
              <strong dir="ltr">{name}</strong>
              <div dir="ltr">{curve}</div>
            </div>
          );
        })}
        <div>{words.t(page.overnight ? 'wear.overnight' : 'wear.day')}</div>
      </div>
      <LensOf eye="left" page={page} words={words} />
    </section>
  );
}

/** The danger signs, what to do first, and the number. */
export function Danger({ page, words }: PartProps) {
  const { t } = words;
  return (
    <section className="home-danger" lang={words.language} dir={words.dir}>
      <div>
        <h2>
          <Octagon /> {t('danger.title')}
        </h2>
        <ul>
          {DANGER_SIGNS.map((sign) => (
            <li key={sign}>{t(`danger.signs.${sign}`)}</li>
          ))}
        </ul>
      </div>
      <div>
        <ol>
          {(['off', 'keep', 'call'] as const).map((what) => (
            <li key={what}>{t(`danger.${what}`)}</li>
          ))}
        </ol>
        <p className="home-number">
          <span>{t('danger.number')}</span>
          <strong dir="ltr">{page.emergencyTelephone}</strong>
        </p>
        <p>{t('danger.nobody')}</p>
      </div>
    </section>
  );
}

/** The same in a few lines, beside words that nobody checked. */
export function DangerBrief({ page, words }: PartProps) {
  const { t } = words;
  return (
    <section className="home-brief" lang={words.language} dir={words.dir}>
      <h2>
        <Octagon /> {t('danger.title')}
      </h2>
      <p>{DANGER_SIGNS.map((sign) => t(`danger.signs.${sign}`)).join(' · ')}</p>
      <p>
        <strong>{t('danger.off')}</strong> {t('danger.keep')} {t('danger.call')} <strong>{page.emergencyTelephone}</strong> {t('danger.nobody')}
      </p>
    </section>
  );
}

const SCENES: Readonly<Record<HomeStep, Scene>> = {
  rub: care.rubLens,
  rinse: care.rinseLens,
  soak: care.soakLenses,
  empty: care.emptyCase,
  dry: care.dryCase,
  peroxide: care.peroxideSoak,
  peroxideEye: care.peroxideBurns,
  emptyOwn: care.ownCaseDry,
  bin: care.intoTheBin,
};
/** Seconds that each side is rubbed, and that a lens is rinsed. Source: 5 to 10 s and 5 s, common practice. */
export const RUB_SECONDS = 10;
export const RINSE_SECONDS = 5;

/** What a step says, by this very product. */
export function stepWords(step: HomeStep, page: TakeHomePage, words: HomeWords): string {
  const product = words.ltr(page.product?.name ?? '');
  const values = { product, time: words.span(page.product?.soakMinutes ?? 0), seconds: step === 'rinse' ? RINSE_SECONDS : RUB_SECONDS };
  return words.t(`steps.${step}`, values);
}

function StepDrawing({ step, page, words, says }: PartProps & { readonly step: HomeStep; readonly says: string }) {
  const minutes = page.product?.soakMinutes ?? 0;
  const soak = minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')} h`;
  const picture = drawn(SCENES[step], {
    detail: { soak },
    hand: page.drawn.hand,
    eye: 'right',
    tone: SKIN_TONES.find((tone) => tone === page.drawn.skinTone) ?? 3,
    ink: 3,
    prefix: `home-${words.language}-${step}-`,
    // Letters on cases are those of the case, whatever language is read.
    words: { right: 'R', left: 'L', soap: '', basket: words.t('drawing.basket'), disc: words.t('drawing.disc'), call: ['', ''] },
    describes: says,
  });
  // Made by the drawing kit alone, its words escaped.
  return <div className="home-drawing" dangerouslySetInnerHTML={{ __html: picture }} />;
}

/** Evening and morning of this very system. */
export function Care({ page, words }: PartProps) {
  const { t, ltr } = words;
  const { product } = page;
  const name = ltr(product?.name ?? '');
  return (
    <section>
      <h2>{product ? t('care.kept', { product: name }) : t('care.bin')}</h2>
      <ol className="home-steps">
        {page.steps.map((step, i) => {
          const says = stepWords(step, page, words);
          return (
            <li key={step}>
              <StepDrawing step={step} page={page} words={words} says={says} />
              <p>
                <strong>{i + 1}</strong> {says}
              </p>
            </li>
          );
        })}
      </ol>
      {product ? <p>{t(product.system === 'peroxide' ? 'care.storePeroxide' : 'care.store', { days: product.storeDays, product: name })}</p> : null}
      {product?.ownLabel ? <p>{t('care.ownLabel')}</p> : null}
    </section>
  );
}

/** Hours by date, and when the wearer is seen next. */
export function Hours({ page, words }: PartProps) {
  const { t } = words;
  const last = page.hours.at(-1);
  const { check } = page;
  return (
    <section>
      <h2>{last ? t('hours.title') : t('hours.as')}</h2>
      {last ? (
        <ol className="home-hours">
          {page.hours.map(({ day, hours }) => (
            <li key={day}>
              {words.shortDay(day)}
              <strong>{t('hours.of', { hours })}</strong>
            </li>
          ))}
        </ol>
      ) : null}
      <p>{page.label ? t('hours.label', { ...page.label }) : last ? t('hours.then', { hours: last.hours }) : t('hours.before')}</p>
      <p>
        <strong>
          {check
            ? t(last ? 'check.on' : 'check.next', {
                day: words.weekday(check.startsAt, page.practice.timeZone),
                time: words.time(check.startsAt, page.practice.timeZone),
              })
            : t('check.none', { telephone: words.ltr(page.practice.telephone) })}
        </strong>
      </p>
    </section>
  );
}

/** When what is replaced. */
export function Changes({ page, words }: PartProps) {
  const { t } = words;
  return (
    <section>
      <h2>{t('change.title')}</h2>
      <dl className="home-changes">
        {page.changes.map(({ what, openedOn, lastDay, days, months }) => (
          <div key={what}>
            <dt>
              {t(`change.${what}`)}
              {openedOn ? ` ${t('change.opened', { day: words.shortDay(openedOn) })}` : ''}
            </dt>
            <dd>
              {lastDay
                ? t('change.last', { day: words.shortDay(lastDay) })
                : days === null
                  ? t('change.lastsMonths', { months: months ?? 0 })
                  : t('change.lasts', { days })}
            </dd>
          </div>
        ))}
        {page.product ? null : (
          <div>
            <dt>{t('change.daily')}</dt>
            <dd>{t('change.eachDay')}</dd>
          </div>
        )}
      </dl>
    </section>
  );
}

/** What to do, and what never. */
export function Lines({ page, words, side }: PartProps & { readonly side: 'do' | 'dont' }) {
  const { t } = words;
  return (
    <section>
      <h2>{t(side)}</h2>
      <ul className="home-lines">
        {page.lines[side].map((line) => (
          <li key={line}>
            {side === 'do' ? <Tick /> : <Octagon />} {t(`lines.${line}`)}
          </li>
        ))}
      </ul>
    </section>
  );
}
