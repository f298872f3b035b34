'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface TypedLens {
  readonly power: string;
  readonly lensName: string;
  readonly baseCurve: string;
  readonly diameter: string;
  readonly boxes: string;
  readonly add: string;
}
const EMPTY: TypedLens = { power: '', lensName: '', baseCurve: '', diameter: '', boxes: '', add: '' };
type TypedField = 'sellerName' | 'sellerContact' | 'wearerName' | 'wearerAddress' | 'askedOn' | 'receivedOn' | 'receivedTime';

const figure = (text: string): number | null => (text.trim() === '' ? null : Number(text.trim().replace(',', '.')));
/** An eye of which nothing was typed is not asked for. */
const asked = (lens: TypedLens) =>
  [lens.power, lens.lensName, lens.baseCurve, lens.diameter, lens.boxes].every((text) => text.trim() === '')
    ? null
    : {
        power: lens.power,
        lensName: lens.lensName,
        baseCurveMm: figure(lens.baseCurve),
        diameterMm: figure(lens.diameter),
        boxes: figure(lens.boxes) ?? 0,
        add: lens.add.trim() === '' ? null : lens.add,
      };

/** A request as it stands on the paper or was said on the telephone; what it lacks is left out, and said afterwards. */
export function RequestForm({ onDone, onClose }: { readonly onDone: () => void; readonly onClose: () => void }) {
  const t = useTranslations('requests');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const { send, problem, busy } = useSending<'recordRequest'>(onDone);
  const [typed, setTyped] = useState<Readonly<Record<TypedField, string>>>({
    sellerName: '',
    sellerContact: '',
    wearerName: '',
    wearerAddress: '',
    askedOn: '',
    receivedOn: formatDay(session.today),
    receivedTime: '',
  });
  const [lenses, setLenses] = useState<Readonly<Record<Eye, TypedLens>>>({ right: EMPTY, left: EMPTY });
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await send('recordRequest', { ...typed, wearerId: null, right: asked(lenses.right), left: asked(lenses.left) })) onClose();
  };
  const fault = (...path: string[]): string | null => {
    const found = problemAt(problem, ...path);
    return found ? words(found.code, found.data) : null;
  };
  const field = (key: TypedField, label: string, className = '') => (
    <Field
      className={className}
      label={label}
      value={typed[key]}
      onValue={(value) => setTyped({ ...typed, [key]: value })}
      problem={fault(key)}
      autoComplete="off"
    />
  );
  return (
    <Panel open wide onClose={onClose} title={t('formTitle')}>
      <form onSubmit={(event) => void keep(event)} className="flex flex-col gap-2">
        <div className="grid grid-cols-2 gap-x-4">
          {field('sellerName', t('seller'))}
          {field('sellerContact', t('sellerContact'))}
          {field('wearerName', t('wearer'))}
          {field('wearerAddress', t('address'))}
        </div>
        <div className="flex gap-4 flex-wrap">
          {field('receivedOn', t('receivedOn'), 'w-[150px]')}
          {field('receivedTime', t('receivedTime'), 'w-[100px]')}
          {field('askedOn', t('askedOn'), 'w-[150px]')}
        </div>
        {EYES.map((eye) => (
          <LensFields key={eye} eye={eye} typed={lenses[eye]} onTyped={(lens) => setLenses({ ...lenses, [eye]: lens })} fault={fault} />
        ))}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end">
          <Button onClick={onClose}>{t('close')}</Button>
          <Button look="act" type="submit" disabled={busy}>
            {t('keep')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}

interface LensFieldsProps {
  readonly eye: Eye;
  readonly typed: TypedLens;
  readonly onTyped: (lens: TypedLens) => void;
  readonly fault: (...path: string[]) => string | null;
}
function LensFields({ eye, typed, onTyped, fault }: LensFieldsProps) {
  const t = useTranslations('requests');
  const eyeWords = useEyeWords();
  const field = (key: keyof TypedLens, label: string, className: string, path: string) => (
    <Field
      className={className}
      label={label}
      value={typed[key]}
      onValue={(value) => onTyped({ ...typed, [key]: value })}
      problem={fault(eye, path)}
      autoComplete="off"
    />
  );
  return (
    <fieldset className="flex gap-3 items-start flex-wrap border-t border-rule pt-2">
      <legend className="sr-only">{eyeWords.name(eye)}</legend>
      <span className="pt-6">
        <EyeBadge eye={eye} />
      </span>
      {field('power', t('power'), 'w-[170px]', 'power')}
      {field('lensName', t('lensName'), 'w-[200px]', 'lensName')}
      {field('baseCurve', t('baseCurve'), 'w-[90px]', 'baseCurveMm')}
      {field('diameter', t('diameter'), 'w-[90px]', 'diameterMm')}
      {field('boxes', t('boxesField'), 'w-[70px]', 'boxes')}
      {field('add', t('add'), 'w-[120px]', 'add')}
    </fieldset>
  );
}
