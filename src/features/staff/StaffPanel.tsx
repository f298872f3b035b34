'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { ROLES, type Role } from '@/core';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import type { Person } from './StaffTable';

/** What is done about the staff: somebody added, changed, ended, or given a new password. */
export type StaffAct = { readonly kind: 'add' } | { readonly kind: 'change' | 'end' | 'password'; readonly who: Person };

const EMPTY = { account: '', displayName: '', title: '', registerNumber: '', address: '', password: '' };
const typedOf = (act: StaffAct): typeof EMPTY =>
  act.kind === 'change' ? { ...EMPTY, title: act.who.title, registerNumber: act.who.registerNumber ?? '', address: act.who.address ?? '' } : EMPTY;
type Typed = typeof EMPTY;

export function StaffPanel({ act, onClose }: { readonly act: StaffAct; readonly onClose: () => void }) {
  const t = useTranslations('staff');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command } = useServer();
  const [input, setInput] = useState(() => typedOf(act));
  const [roles, setRoles] = useState<readonly Role[]>(act.kind === 'change' ? act.who.roles : ['technician']);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const set = (key: keyof Typed) => (value: string) => setInput({ ...input, [key]: value });
  const at = (path: string): string | null => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  const send = () => {
    if (act.kind === 'add') return command('addStaff', { ...input, roles: [...roles] });
    if (act.kind === 'change') {
      const { title, registerNumber, address } = input;
      return command('changeStaff', { personId: act.who.personId, version: act.who.version, title, registerNumber, address, roles: [...roles] });
    }
    if (act.kind === 'password') return command('resetPassword', { personId: act.who.personId, password: input.password });
    return command('endStaff', { personId: act.who.personId, version: act.who.version });
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    const done = await send();
    setBusy(false);
    if (done?.ok) {
      onClose();
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const title = act.kind === 'add' ? t('addTitle') : t(`${act.kind}Title`, { name: act.who.displayName });
  return (
    <Panel open onClose={onClose} title={title}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2">
        {act.kind === 'add' ? (
          <>
            <Field label={t('name')} value={input.displayName} onValue={set('displayName')} problem={at('displayName')} autoFocus />
            <Field
              label={t('account')}
              value={input.account}
              onValue={set('account')}
              problem={at('account')}
              hint={t('accountHint')}
              autoComplete="off"
              mono
            />
          </>
        ) : null}
        {act.kind === 'add' || act.kind === 'change' ? <WhatTheyAre input={input} set={set} roles={roles} onRoles={setRoles} at={at} /> : null}
        {act.kind === 'change' ? null : act.kind === 'end' ? (
          <p>{t('endText')}</p>
        ) : (
          <Field
            label={t('password')}
            type="password"
            value={input.password}
            onValue={set('password')}
            problem={at('password')}
            hint={t('passwordHint')}
            autoComplete="new-password"
          />
        )}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="act" type="submit" disabled={busy}>
            {act.kind === 'end' ? t('endDo') : t('do')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}

/** Title, roles, register and address. */
function WhatTheyAre({
  input,
  set,
  roles,
  onRoles,
  at,
}: {
  readonly input: Typed;
  readonly set: (key: keyof Typed) => (value: string) => void;
  readonly roles: readonly Role[];
  readonly onRoles: (roles: readonly Role[]) => void;
  readonly at: (path: string) => string | null;
}) {
  const t = useTranslations('staff');
  return (
    <>
      <Field label={t('jobTitle')} value={input.title} onValue={set('title')} problem={at('title')} />
      <fieldset>
        <legend className="field-label">{t('roles')}</legend>
        {ROLES.map((role) => (
          <label key={role} className="flex gap-2 items-center min-h-8">
            <input
              type="checkbox"
              className="w-5 h-5"
              checked={roles.includes(role)}
              onChange={(event) => onRoles(event.target.checked ? [...roles, role] : roles.filter((r) => r !== role))}
            />
            {t('roleLine', { role: t(`role.${role}`), may: t(`roleMay.${role}`) })}
          </label>
        ))}
        {at('roles') ? <ProblemLine>{at('roles')}</ProblemLine> : null}
      </fieldset>
      <Field label={t('register')} value={input.registerNumber} onValue={set('registerNumber')} problem={at('registerNumber')} hint={t('registerHint')} />
      <Field label={t('address')} value={input.address} onValue={set('address')} problem={at('address')} hint={t('addressHint')} />
    </>
  );
}
