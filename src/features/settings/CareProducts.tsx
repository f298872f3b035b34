'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { CARE_SYSTEMS, disinfects, type CareSystem } from '@/core';
import { formatMoney } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import type { SettingsPage } from '@/services/setting/queries';
import careWords from '@/i18n/messages/en/care.messages.json';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { PeroxideCaution } from '../common/PeroxideCaution';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

type Product = SettingsPage['careProducts'][number];
const TEXTS = ['maker', 'name', 'contents', 'lastsDays', 'price', 'soak', 'storeDays', 'discardDays', 'catalystDays'] as const;
/** Of what the label may not say. */
const MAY_BE_EMPTY: readonly (typeof TEXTS)[number][] = ['soak', 'storeDays', 'discardDays', 'catalystDays'];
type Typed = Readonly<Record<(typeof TEXTS)[number], string>> & {
  readonly system: CareSystem;
  readonly includesCase: boolean;
  readonly ownLabel: boolean;
};
const EMPTY: Typed = {
  system: 'multipurpose',
  maker: '',
  name: '',
  contents: '',
  lastsDays: '',
  price: '',
  soak: '',
  storeDays: '',
  discardDays: '',
  catalystDays: '',
  includesCase: true,
  ownLabel: false,
};
const numberOf = (text: string): number => (/^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : Number.NaN);

const known = (text: string): number | null => (text.trim() === '' ? null : numberOf(text));
const shown = (figure: number | null): string => (figure === null ? '' : String(figure));

/** What reusable lenses are cared for with: system, contents, how long it lasts, what it costs. */
function Products({ products, mayChange }: { readonly products: readonly Product[]; readonly mayChange: boolean }) {
  const t = useTranslations('care');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const [open, setOpen] = useState<{ readonly product: Product | null } | null>(null);
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const [problem, setProblem] = useState<Problem | null>(null);
  const edit = (product: Product | null): void => {
    setTyped(
      product
        ? {
            ...product,
            lastsDays: String(product.lastsDays),
            price: (product.priceMinor / 100).toFixed(2),
            soak: product.soakMinutes === null ? '' : String(product.soakMinutes / 60),
            storeDays: shown(product.storeDays),
            discardDays: shown(product.discardDays),
            catalystDays: shown(product.catalystDays),
          }
        : EMPTY,
    );
    setProblem(null);
    setOpen({ product });
  };
  const save = async (ended: boolean): Promise<void> => {
    if (!open) return;
    const { maker, name, contents, system, includesCase, ownLabel } = typed;
    const soak = known(typed.soak);
    const done = await command('saveCareProduct', {
      productId: open.product?.productId ?? null,
      version: open.product?.version ?? 0,
      system,
      maker,
      name,
      contents,
      includesCase,
      ownLabel,
      soakMinutes: soak === null ? null : Math.round(soak * 60),
      storeDays: known(typed.storeDays),
      discardDays: known(typed.discardDays),
      catalystDays: typed.system === 'peroxide' ? known(typed.catalystDays) : null,
      lastsDays: numberOf(typed.lastsDays),
      price: numberOf(typed.price),
      ended,
    });
    if (done?.ok) {
      setOpen(null);
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void save(false);
  };
  return (
    <section className="px-6 pb-4" data-testid="care-products">
      <h2 className="settings-group">{t('title')}</h2>
      <p className="label mb-2">{t('line')}</p>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">{t('name')}</th>
            <th scope="col">{t('system')}</th>
            <th scope="col">{t('contents')}</th>
            <th scope="col">{t('figures')}</th>
            <th scope="col">{t('lasts')}</th>
            <th scope="col">{t('price')}</th>
            <th aria-label={t('change')} />
          </tr>
        </thead>
        <tbody>
          {products.map((p) => (
            <tr key={p.productId}>
              <th scope="row">
                <span className={p.ended ? 'struck' : 'font-[620]'}>{p.name}</span> <span className="note">{p.maker}</span>
                {p.ended ? <Stated state="watch">{t('ended')}</Stated> : null}
              </th>
              <td>{t(`systems.${p.system}`)}</td>
              <td>{p.contents}</td>
              <td>
                <Figures product={p} />
              </td>
              <td>{t('days', { days: p.lastsDays })}</td>
              <td>{formatMoney(p.priceMinor, session.practice.currency)}</td>
              <td>
                {mayChange ? (
                  <button type="button" className="btn btn-quiet" aria-label={t('changeOne', { name: p.name })} onClick={() => edit(p)}>
                    {t('change')}
                  </button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {products.length === 0 ? <p className="label py-2">{t('none')}</p> : null}
      {products.map((p) => (
        <PeroxideCaution key={p.productId} product={p} />
      ))}
      {mayChange ? <Button onClick={() => edit(null)}>{t('add')}</Button> : null}
      <Panel open={open !== null} onClose={() => setOpen(null)} title={open?.product ? t('changeOne', { name: open.product.name }) : t('add')}>
        <form onSubmit={submit}>
          <label className="field block mb-2">
            <span className="field-label">{t('system')}</span>
            <select className="choice w-full" value={typed.system} onChange={(event) => setTyped({ ...typed, system: event.target.value as CareSystem })}>
              {CARE_SYSTEMS.map((s) => (
                <option key={s} value={s}>
                  {t(`systems.${s}`)}
                </option>
              ))}
            </select>
          </label>
          {TEXTS.filter((key) => key !== 'catalystDays' || typed.system === 'peroxide').map((key) => {
            const found = problemAt(problem, key === 'soak' ? 'soakMinutes' : key);
            return (
              <Field
                key={key}
                label={t(`fields.${key}`)}
                value={typed[key]}
                onValue={(value) => setTyped({ ...typed, [key]: value })}
                problem={found ? words(found.code, found.data) : null}
                inputMode={key === 'lastsDays' || key === 'price' || MAY_BE_EMPTY.includes(key) ? 'decimal' : 'text'}
                hint={key === 'soak' ? t('labelFirst') : undefined}
                autoComplete="off"
              />
            );
          })}
          <label className="flex gap-2 items-center mb-3">
            <input type="checkbox" checked={typed.includesCase} onChange={(event) => setTyped({ ...typed, includesCase: event.target.checked })} />{' '}
            {t('fields.includesCase')}
          </label>
          <label className="flex gap-2 items-center mb-3">
            <input type="checkbox" checked={typed.ownLabel} onChange={(event) => setTyped({ ...typed, ownLabel: event.target.checked })} />{' '}
            {t('fields.ownLabel')}
          </label>
          {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
          <div className="flex justify-end gap-3">
            {open?.product && !open.product.ended ? <Button onClick={() => void save(true)}>{t('end')}</Button> : null}
            <Button type="submit" look="act">
              {t('save')}
            </Button>
          </div>
        </form>
      </Panel>
    </section>
  );
}

/** What a product's label says of its times. */
function Figures({ product: p }: { readonly product: Product }) {
  const t = useTranslations('care');
  const days = (count: number | null): string => (count === null ? t('unknown') : t('days', { days: count }));
  if (!disinfects(p.system)) return null;
  return (
    <span className="label">
      {t('line3', {
        soak: p.soakMinutes === null ? t('unknown') : t('hours', { minutes: p.soakMinutes, hours: p.soakMinutes / 60 }),
        store: days(p.storeDays),
        discard: days(p.discardDays),
      })}
    </span>
  );
}

export const CareProducts = withWords({ problems: libraryProblems, care: careWords, peroxide: peroxideWords }, Products);
