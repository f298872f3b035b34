'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay, type Supplier } from '@/core';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface Of {
  readonly supplier: Supplier | null;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** Cut-off of a supplier that is new: four in the afternoon. Our own choice. */
const USUAL_CUT_OFF = 960;

/** A supplier's name, whose lenses it sells, by what way, until when. */
export function SupplierForm({ supplier, onClose, onDone }: Of) {
  const t = useTranslations('suppliers');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [typed, setTyped] = useState({
    name: supplier?.name ?? '',
    makers: supplier?.makers.join('\n') ?? '',
    endpoint: supplier?.endpoint ?? '',
    telephone: supplier?.telephone ?? '',
    cutOff: formatMinuteOfDay(supplier?.cutOffMinute ?? USUAL_CUT_OFF),
    minimum: String((supplier?.minimumMinor ?? 0) / 100),
  });
  const [flags, setFlags] = useState({ toWearers: supplier?.toWearers ?? false, ended: supplier?.ended ?? false });
  const { send, problem, busy } = useSending<'saveSupplier'>(onDone);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const field = (name: keyof typeof typed) => ({ value: typed[name], onValue: (value: string) => setTyped({ ...typed, [name]: value }) });
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const { minimum, makers, endpoint, ...rest } = typed;
    const names = makers
      .split('\n')
      .map((m) => m.trim())
      .filter(Boolean);
    const money = /^\d{1,5}(\.\d{1,2})?$/.test(minimum.trim()) ? Math.round(Number(minimum) * 100) : NaN;
    const of = { id: supplier?.id ?? null, version: supplier?.version ?? 0 };
    const changed = { ...of, ...rest, ...flags, makers: names, endpoint: endpoint.trim() === '' ? null : endpoint, minimumMinor: money };
    // Somebody else was quicker: what was typed stays, to be kept over what is there now.
    if (await send('saveSupplier', changed)) onClose();
  };
  return (
    <Panel open wide onClose={onClose} title={supplier?.name ?? t('add')}>
      <form onSubmit={(event) => void submit(event)} className="grid grid-cols-2 gap-x-4">
        <Field label={t('name')} {...field('name')} problem={at('name')} autoFocus autoComplete="off" />
        <Field label={t('telephone')} {...field('telephone')} problem={at('telephone')} autoComplete="off" />
        <Field label={t('endpoint')} {...field('endpoint')} hint={t('endpointHint')} problem={at('endpoint')} autoComplete="off" />
        <Field label={t('cutOff')} {...field('cutOff')} problem={at('cutOff')} autoComplete="off" />
        <Field label={t('minimum')} {...field('minimum')} problem={at('minimumMinor')} autoComplete="off" />
        <label className="col-span-2 block">
          {t('makers')} <span className="label">{t('makersHint')}</span>
          <textarea className="input w-full" rows={3} value={typed.makers} onChange={(event) => setTyped({ ...typed, makers: event.target.value })} />
        </label>
        {(['toWearers', 'ended'] as const).map((flag) => (
          <label key={flag} className="flex gap-2 items-center min-h-10">
            <input type="checkbox" className="w-5 h-5" checked={flags[flag]} onChange={(event) => setFlags({ ...flags, [flag]: event.target.checked })} />
            {t(flag)}
          </label>
        ))}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="col-span-2 flex gap-3 pt-3">
          <Button type="submit" look="act" disabled={busy}>
            {t('keep')}
          </Button>
          <Button onClick={onClose}>{t('close')}</Button>
        </div>
      </form>
    </Panel>
  );
}
