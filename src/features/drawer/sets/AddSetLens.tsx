'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { setLadder, type SetLens } from '@/core';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useLibrary } from '../../common/library';
import { useSending } from '../../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../../common/words';

/** A number as typed, with either decimal sign; NaN where it is none. */
const numberOf = (typed: string): number => (typed.trim() === '' ? Number.NaN : Number(typed.replace(',', '.').replace('−', '-')));

/** A lens that came for a set: its number, its curve, its power. Set and day stay for the next one. */
export function AddSetLens({ libraryTag, lenses }: { readonly libraryTag: string; readonly lenses: readonly SetLens[] }) {
  const t = useTranslations('sets');
  const router = useRouter();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, setProblem, busy } = useSending<'addSetLenses'>(() => router.refresh());
  const families = (useLibrary(libraryTag)?.families ?? []).filter((f) => f.reusableTrial);
  const [code, setCode] = useState('');
  const [number, setNumber] = useState('');
  const [sphere, setSphere] = useState('0');
  const [curve, setCurve] = useState('');
  const [expiresOn, setExpiresOn] = useState('');
  const [added, setAdded] = useState<string | null>(null);
  const family = families.find((f) => f.code === code) ?? (families.length === 1 ? families[0] : undefined);
  const curves = family ? setLadder(family.blocks.flatMap((b) => b.curves)) : [];
  const asked = curves[Number(curve)];
  const at = (...path: string[]): string | null => {
    const found = problemAt(problem, ...path);
    return found ? words(found.code, found.data) : null;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setAdded(null);
    if (!family) return;
    const power = { sphere: numberOf(sphere), cylinder: 0, axis: 180, add: null };
    const lens = { ...power, baseCurve: asked?.baseCurve ?? Number.NaN, diameter: asked?.diameter ?? Number.NaN };
    if (!(await send('addSetLenses', { familyId: family.id, lenses: [{ number, lens, expiresOn }] }))) return;
    setAdded(t('added', { number, set: family.name }));
    setNumber('');
  };
  const taken = lenses.some((l) => l.setCode === family?.code && l.number.toLowerCase() === number.trim().toLowerCase());
  const missing = [...(family ? [] : ['set' as const]), ...(number.trim() === '' ? ['number' as const] : []), ...(asked ? [] : ['curve' as const])];
  return (
    <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2" data-testid="add-set-lens" onChange={() => setProblem(null)}>
      <h2>{t('add')}</h2>
      <label className="field block">
        <span className="field-label">{t('set')}</span>
        <select className="choice w-full" value={family?.code ?? ''} onChange={(event) => setCode(event.target.value)}>
          <option value="">{t('chooseSet')}</option>
          {families.map((f) => (
            <option key={f.code} value={f.code}>
              {f.name}
            </option>
          ))}
        </select>
      </label>
      <Field
        label={t('number')}
        value={number}
        onValue={setNumber}
        problem={at('lenses', '0', 'number') ?? (taken ? words('setNumberTaken', { number: number.trim(), set: family?.name ?? '' }) : null)}
        mono
        autoComplete="off"
      />
      <label className="field block">
        <span className="field-label">{t('curve')}</span>
        <select className="choice w-full" value={curve} onChange={(event) => setCurve(event.target.value)}>
          <option value="">{t('chooseCurve')}</option>
          {curves.map((c, i) => (
            <option key={i} value={i}>
              {`${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`}
            </option>
          ))}
        </select>
      </label>
      <Field
        label={t('sphere')}
        value={sphere}
        onValue={setSphere}
        problem={at('lenses', '0', 'lens', 'sphere') ?? at('lenses', '0', 'lens')}
        mono
        autoComplete="off"
      />
      <Field label={t('expires')} value={expiresOn} onValue={setExpiresOn} problem={at('lenses', '0', 'expiresOn')} hint={t('dayHint')} autoComplete="off" />
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button type="submit" disabled={busy || missing.length > 0 || taken}>
        {t('addDo')}
      </Button>
      {missing.length > 0 && !added && families.length > 0 ? (
        <p className="note">{t('addMissing', { missing: missing.map((m) => t(`missing.${m}`)).join(', ') })}</p>
      ) : null}
      {added ? <Stated state="ok">{added}</Stated> : null}
      <p className="note">{families.length === 0 ? t('noFamily') : t('addNote')}</p>
    </form>
  );
}
