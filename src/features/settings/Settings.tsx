'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { Fragment, useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { DEFAULT_SETTINGS, may, SETTINGS, type SettingKey, type SettingValue } from '@/core';
import { formatMoment, formatMoney } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import type { SettingsPage } from '@/services/setting/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { useProblemWords, useRefusalWords } from '../common/words';
import { ThisDevice } from './ThisDevice';
import deviceWords from '@/i18n/messages/en/device.messages.json';
import settingsWords from '@/i18n/messages/en/settings.messages.json';
import { withWords } from '@/i18n/withWords';

const CareProducts = dynamic(() => import('./CareProducts').then((m) => m.CareProducts));

const GROUPS = ['stops', 'signs', 'lens', 'money', 'fit', 'teaching', 'prescription', 'supply', 'record', 'screen'] as const;
const KEYS = Object.keys(SETTINGS) as SettingKey[];
type Changes = SettingsPage['changes'];

/** What the practice chooses: in force, default, what each changes, who changed it when. */
function SettingsPage({ changes, careProducts }: { readonly changes: Changes; readonly careProducts: SettingsPage['careProducts'] }) {
  const t = useTranslations('settings');
  const { session } = useServer();
  const mayChange = may(session.viewer.roles, 'settings');
  return (
    <AppPage place="settings" title={t('title')}>
      <p className="px-6 py-3 max-w-[760px]">
        {t('line')} {mayChange ? '' : t('readOnly')}{' '}
        <Link href="/settings/rooms" prefetch={false} className="underline">
          {t('toRooms')}
        </Link>{' '}
        {mayChange ? (
          <Link href="/settings/suppliers" prefetch={false} className="underline">
            {t('toSuppliers')}
          </Link>
        ) : null}
      </p>
      <ThisDevice />
      {GROUPS.map((group) => (
        <Fragment key={group}>
          <section className="px-6 pb-4">
            <h2 className="settings-group">{t(`groups.${group}`)}</h2>
            {KEYS.filter((key) => SETTINGS[key].group === group).map((key) => (
              <SettingRow key={key} name={key} changes={changes.filter((c) => c.key === key)} mayChange={mayChange} />
            ))}
          </section>
          {group === 'money' ? <CareProducts products={careProducts} mayChange={mayChange} /> : null}
        </Fragment>
      ))}
    </AppPage>
  );
}

/** A setting's value in words. */
function useSettingWords(): (key: SettingKey, value: SettingValue) => string {
  const t = useTranslations('settings');
  const tOf = useWordsOf('settings');
  const { session } = useServer();
  return (key, value) => {
    const d = SETTINGS[key];
    if (d.kind === 'choice') return tOf(`s.${key}.o.${String(value)}`);
    if (d.kind === 'flag') return value === true ? t('yes') : t('no');
    if (d.kind === 'number' && d.unit === 'money') return formatMoney(Math.round(Number(value) * 100), session.practice.currency);
    if (d.kind === 'number') return `${String(value)} ${tOf(`units.${d.unit}`)}`;
    return value === '' ? t('empty') : String(value);
  };
}

function SettingRow({ name, changes, mayChange }: { readonly name: SettingKey; readonly changes: Changes; readonly mayChange: boolean }) {
  const t = useTranslations('settings');
  const tOf = useWordsOf('settings');
  const words = useSettingWords();
  const problemWords = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const d = SETTINGS[name];
  const inForce = session.settings[name];
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [last] = changes;
  const zone = session.practice.timeZone;
  const typed = text ?? String(inForce);
  const dirty = text !== null && text.trim() !== String(inForce);
  const valueOf = (): SettingValue => {
    if (d.kind === 'number') return /^-?\d+([.,]\d+)?$/.test(typed.trim()) ? Number(typed.trim().replace(',', '.')) : Number.MAX_SAFE_INTEGER;
    return d.kind === 'flag' ? typed === 'true' : typed;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    const done = await command('changeSetting', { key: name, value: valueOf(), lastChangeId: last?.id ?? null });
    setBusy(false);
    if (done?.ok) {
      setText(null);
      setProblem(null);
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const fault = problem?.kind === 'invalid' ? problem.fields[0] : undefined;
  const conflict = problem?.kind === 'conflict' ? problem.differs[0] : undefined;
  return (
    <form className="setting" onSubmit={(event) => void submit(event)} data-testid={`setting-${name}`}>
      <div>
        <strong id={`set-${name}`}>{t(`s.${name}.name`)}</strong>
        <p className="label">{t(`s.${name}.what`)}</p>
        {'waiting' in d ? <p className="note">{t('waiting')}</p> : null}
      </div>
      <div className="flex gap-2 items-center flex-wrap">
        {!mayChange ? (
          <strong>{words(name, inForce)}</strong>
        ) : d.kind === 'choice' || d.kind === 'flag' ? (
          <select className="choice" aria-labelledby={`set-${name}`} value={typed} onChange={(event) => setText(event.target.value)}>
            {(d.kind === 'flag' ? ['true', 'false'] : d.options).map((o) => (
              <option key={o} value={o}>
                {words(name, d.kind === 'flag' ? o === 'true' : o)}
              </option>
            ))}
          </select>
        ) : (
          <>
            <input
              className={d.kind === 'number' ? 'input input-mono max-w-[96px]' : 'input max-w-[260px]'}
              aria-labelledby={`set-${name}`}
              aria-invalid={fault ? true : undefined}
              value={typed}
              onChange={(event) => setText(event.target.value)}
            />
            {d.kind === 'number' ? <span className="label">{d.unit === 'money' ? session.practice.currency : tOf(`units.${d.unit}`)}</span> : null}
          </>
        )}
        {dirty ? (
          <Button type="submit" disabled={busy}>
            {t('set')}
          </Button>
        ) : null}
        <div className="basis-full" aria-live="polite">
          {fault ? <ProblemLine>{problemWords(fault.code, fault.data)}</ProblemLine> : null}
          {conflict ? (
            <ProblemLine>
              {t('conflictText', { name: conflict.by, value: conflict.text, time: formatMoment(conflict.at, zone) })}{' '}
              <Button look="quiet" onClick={() => (setProblem(null), router.refresh())}>
                {t('conflictTitle')}
              </Button>
            </ProblemLine>
          ) : null}
          {problem && !fault && !conflict ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        </div>
      </div>
      <div className="label">
        {t('standard', { value: words(name, DEFAULT_SETTINGS[name]) })}
        <div className="note">
          {t(`marks.${d.source.mark}`)}
          {d.source.mark === 'P' ? `: ${d.source.text}` : ''}
        </div>
      </div>
      <div className="label">
        {last ? <Stated state="ok">{t('changed', { name: last.setByName ?? '', time: formatMoment(last.setAt, zone) })}</Stated> : t('byDefault')}
        {changes.slice(1).map((c) => (
          <div key={c.id} className="note">
            {t('was', { value: words(name, c.value), name: c.setByName ?? '', time: formatMoment(c.setAt, zone) })}
          </div>
        ))}
      </div>
    </form>
  );
}

export const Settings = withWords({ device: deviceWords, settings: settingsWords }, SettingsPage);
