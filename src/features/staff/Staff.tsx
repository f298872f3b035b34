'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { ROLES, type Role } from '@/core';
import { formatMoment } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import staffWords from '@/i18n/messages/en/staff.messages.json';
import { withWords } from '@/i18n/withWords';

type Staff = ServiceOutput<'readStaff'>['staff'][number];
const EMPTY = { account: '', displayName: '', title: '', registerNumber: '', password: '' };

/** Who works here and what they may do: added, ended, given a new password by an admin. */
function StaffPage({ staff }: { readonly staff: readonly Staff[] }) {
  const t = useTranslations('staff');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const [panel, setPanel] = useState<{ kind: 'add' } | { kind: 'end' | 'password'; who: Staff } | null>(null);
  const [input, setInput] = useState(EMPTY);
  const [roles, setRoles] = useState<readonly Role[]>(['technician']);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const close = (): void => {
    setPanel(null);
    setProblem(null);
    setInput(EMPTY);
  };
  const after = (done: { ok: true } | { ok: false; error: Problem } | null): void => {
    setBusy(false);
    if (done?.ok) {
      close();
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const set = (key: keyof typeof EMPTY) => (value: string) => setInput({ ...input, [key]: value });
  const at = (path: string) => {
    const p = problemAt(problem, path);
    return p ? words(p.code, p.data) : null;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    if (panel?.kind === 'add') after(await command('addStaff', { ...input, roles: [...roles] }));
    else if (panel?.kind === 'password') after(await command('resetPassword', { personId: panel.who.personId, password: input.password }));
    else if (panel?.kind === 'end') after(await command('endStaff', { personId: panel.who.personId, version: panel.who.version }));
  };
  const title =
    panel?.kind === 'add'
      ? t('addTitle')
      : panel?.kind === 'end'
        ? t('endTitle', { name: panel.who.displayName })
        : panel
          ? t('passwordTitle', { name: panel.who.displayName })
          : '';
  return (
    <AppPage
      place="staff"
      title={t('title')}
      bar={
        <Button look="act" onClick={() => setPanel({ kind: 'add' })}>
          {t('add')}
        </Button>
      }
    >
      <section className="p-6">
        <table className="ledger">
          <thead>
            <tr>
              <th>{t('name')}</th>
              <th>{t('account')}</th>
              <th>{t('roles')}</th>
              <th>{t('state')}</th>
              <th>
                <span className="sr-only">{t('actions')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {staff.map((person) => (
              <tr key={person.personId}>
                <td>
                  <span className="value">{person.displayName}</span>
                  <div className="label">{[person.title, person.registerNumber].filter(Boolean).join(' · ')}</div>
                </td>
                <td className="font-mono">{person.account}</td>
                <td>{person.roles.map((r) => t(`role.${r}`)).join(', ')}</td>
                <td>
                  {person.endedAt ? (
                    <Stated state="stop">{t('ended', { time: formatMoment(person.endedAt, session.practice.timeZone) })}</Stated>
                  ) : (
                    <Stated state="ok">{t('works')}</Stated>
                  )}
                </td>
                <td className="text-right">
                  {person.endedAt ? null : (
                    <span className="flex gap-3 justify-end">
                      <Button look="quiet" onClick={() => setPanel({ kind: 'password', who: person })}>
                        {t('newPassword')}
                      </Button>
                      {person.personId === session.viewer.personId ? null : (
                        <Button look="quiet" onClick={() => setPanel({ kind: 'end', who: person })}>
                          {t('end')}
                        </Button>
                      )}
                    </span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <Panel open={panel !== null} onClose={close} title={title}>
        <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-2">
          {panel?.kind === 'add' ? (
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
              <Field label={t('jobTitle')} value={input.title} onValue={set('title')} problem={at('title')} />
              <fieldset>
                <legend className="field-label">{t('roles')}</legend>
                {ROLES.map((role) => (
                  <label key={role} className="flex gap-2 items-center min-h-8">
                    <input
                      type="checkbox"
                      className="w-5 h-5"
                      checked={roles.includes(role)}
                      onChange={(event) => setRoles(event.target.checked ? [...roles, role] : roles.filter((r) => r !== role))}
                    />
                    {t('roleLine', { role: t(`role.${role}`), may: t(`roleMay.${role}`) })}
                  </label>
                ))}
                {at('roles') ? <ProblemLine>{at('roles')}</ProblemLine> : null}
              </fieldset>
              <Field
                label={t('register')}
                value={input.registerNumber}
                onValue={set('registerNumber')}
                problem={at('registerNumber')}
                hint={t('registerHint')}
              />
            </>
          ) : null}
          {panel?.kind === 'end' ? (
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
            <Button onClick={close}>{t('cancel')}</Button>
            <Button look="act" type="submit" disabled={busy}>
              {panel?.kind === 'end' ? t('endDo') : t('do')}
            </Button>
          </div>
        </form>
      </Panel>
    </AppPage>
  );
}

export const Staff = withWords({ staff: staffWords }, StaffPage);
