'use client';
import { useRef, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, parseRefraction } from '@/core';
import type { ProblemData } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useLibrary } from '../common/library';
import { PowerField } from '../common/PowerField';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { EMPTY_RECEIPT, receiptOf, typedFrom, variantsFor, type TypedReceipt } from './receipt';
import { ScanTrial } from './ScanTrial';
import { useDrawerCommand } from './useDrawerCommand';

/** Trial lenses that came: a family, a power, what stands on the blister. Family and day stay for the next one. */
export function ReceiveForm({ libraryTag }: { readonly libraryTag: string }) {
  const t = useTranslations('drawer');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const library = useLibrary(libraryTag);
  const { send, problem, setProblem, busy } = useDrawerCommand();
  const [typed, setTyped] = useState<TypedReceipt>(EMPTY_RECEIPT);
  const [kept, setKept] = useState<string | null>(null);
  const [own, setOwn] = useState<{ readonly field: string; readonly code: string; readonly data?: ProblemData } | null>(null);
  const [received, setReceived] = useState<string | null>(null);
  const form = useRef<HTMLFormElement>(null);
  const family = library?.families.find((f) => f.code === typed.family) ?? null;
  const variants = variantsFor(family, typed.power);
  const set = (part: Partial<TypedReceipt>): void => {
    setTyped({ ...typed, ...part });
    setOwn(null);
    setProblem(null);
  };
  const at = (field: string, ...path: string[]): string | null => {
    const found = own?.field === field ? own : problemAt(problem, ...path);
    return found ? words(found.code, found.data) : null;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const receipt = receiptOf(typed, family);
    setReceived(null);
    if (!receipt.ok) {
      setOwn(receipt);
      return;
    }
    if (!(await send('receiveTrials', receipt.input))) return;
    const read = parseRefraction(typed.power);
    setReceived(
      t('received', { count: receipt.input.count, family: family?.name ?? '', power: read.ok ? formatRefraction(read.value) : typed.power, lot: typed.lot }),
    );
    setTyped({ ...EMPTY_RECEIPT, family: typed.family, expiresOn: typed.expiresOn });
    form.current?.querySelector<HTMLInputElement>('#receive-power')?.focus();
  };
  const otherDay = problemAt(problem, 'expiresOn')?.code === 'lotOtherDay' || typed.despiteReason !== '';
  return (
    <form ref={form} onSubmit={(event) => void submit(event)} className="flex flex-col gap-2" data-testid="receive">
      <h2>{t('receiveTitle')}</h2>
      <ScanTrial onScanned={(scanned) => setTyped(typedFrom(scanned, typed, library?.families ?? []))} />
      <label className="field block">
        <span className="field-label">{t('chooseFamily')}</span>
        <select id="receive-family" className="choice w-full" value={typed.family} onChange={(event) => set({ family: event.target.value, variant: 0 })}>
          <option value="">{t('familyNone')}</option>
          {(library?.families ?? []).map((f) => (
            <option key={f.code} value={f.code}>
              {f.name}
            </option>
          ))}
        </select>
        {at('family') ? <ProblemLine>{at('family')}</ProblemLine> : null}
      </label>
      <div>
        <span className="field-label">{t('typePower')}</span>
        <PowerField
          id="receive-power"
          label={t('typePower')}
          eye="left"
          value={typed.power}
          onValue={(power) => set({ power, variant: 0 })}
          problem={own?.field === 'power' ? { path: [], code: own.code, ...(own.data ? { data: own.data } : {}) } : problemAt(problem, 'lens')}
          kept={kept}
          onKeep={setKept}
          notation={session.settings.notation}
          asked={own?.field === 'power'}
        />
      </div>
      <label className="field block">
        <span className="field-label">{t('variant')}</span>
        <select
          className="choice w-full"
          value={typed.variant}
          onChange={(event) => set({ variant: Number(event.target.value) })}
          disabled={variants.length < 2}
        >
          {variants.length === 0 ? <option value={0}>{parseRefraction(typed.power).ok && family ? t('variantNone') : ''}</option> : null}
          {variants.map((v, i) => (
            <option key={i} value={i}>
              {`${v.baseCurve.toFixed(1)} / ${v.diameter.toFixed(1)}${v.add ? `, ${t('add', { add: v.add })}` : ''}`}
            </option>
          ))}
        </select>
      </label>
      <Field label={t('lot')} value={typed.lot} onValue={(lot) => set({ lot })} problem={at('lot', 'lot')} mono autoComplete="off" />
      <Field
        label={t('expires')}
        value={typed.expiresOn}
        onValue={(expiresOn) => set({ expiresOn })}
        problem={at('expiresOn', 'expiresOn')}
        autoComplete="off"
      />
      {otherDay ? <Field label={t('despite')} value={typed.despiteReason} onValue={(despiteReason) => set({ despiteReason })} /> : null}
      <Field
        label={t('count')}
        value={typed.count}
        onValue={(count) => set({ count })}
        problem={at('count', 'count')}
        inputMode="numeric"
        mono
        autoComplete="off"
      />
      {at('gtin', 'gtin') ? (
        <div>
          <ProblemLine>{at('gtin', 'gtin')}</ProblemLine>
          <Button look="quiet" onClick={() => set({ gtin: null })}>
            {t('withoutCode')}
          </Button>
        </div>
      ) : null}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button look="act" type="submit" disabled={busy}>
        {t('receive')}
      </Button>
      <div role="status">{received ? <Stated state="ok">{received}</Stated> : null}</div>
    </form>
  );
}
