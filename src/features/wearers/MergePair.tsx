'use client';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { MergeRecord } from '@/db/wearerMerge';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** A record number as typed; what is no whole number is none that any form takes. */
const numberOf = (text: string): number => (/^#?\d{1,9}$/.test(text.trim()) ? Number(text.trim().replace('#', '')) : -1);
const NOTHING = { keep: '', other: '', reason: '', birthDatesReason: '' };
interface Two {
  readonly keep: MergeRecord;
  readonly other: MergeRecord;
}

/** Two records by their numbers, compared, and made one. */
export function MergePair() {
  const t = useTranslations('merge');
  const router = useRouter();
  const { query } = useServer();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [typed, setTyped] = useState(NOTHING);
  const [two, setTwo] = useState<Two | null>(null);
  const [done, setDone] = useState('');
  const [compared, setCompared] = useState<Problem | null>(null);
  const { send, problem, setProblem, busy } = useSending<'mergeWearers'>(() => router.refresh());
  const set = (key: keyof typeof typed) => (value: string) => setTyped({ ...typed, [key]: value });
  const at = (path: string): string | null => {
    const found = problemAt(compared, path) ?? problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const compare = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setDone('');
    setProblem(null);
    const answer = await query('compareWearers', { keep: numberOf(typed.keep), other: numberOf(typed.other) });
    if (!answer) return;
    setCompared(answer.ok ? null : answer.error);
    setTwo(answer.ok ? answer.value : null);
  };
  const merge = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!two) return;
    const { keep, other } = two;
    const ids = { keepId: keep.id, keepVersion: keep.version, otherId: other.id, otherVersion: other.version };
    if (!(await send('mergeWearers', { ...ids, reason: typed.reason, birthDatesReason: typed.birthDatesReason }))) return;
    setTwo(null);
    setTyped(NOTHING);
    setDone(t('done', { keep: formatRecord(keep.recordNumber), other: formatRecord(other.recordNumber) }));
  };
  return (
    <>
      <form className="flex flex-wrap gap-3 items-end" onSubmit={(event) => void compare(event)}>
        {(['keep', 'other'] as const).map((which) => (
          <Field
            key={which}
            className="w-60"
            label={t(which)}
            value={typed[which]}
            onValue={set(which)}
            problem={at(which)}
            hint={t('numberHint')}
            inputMode="numeric"
            mono
          />
        ))}
        <Button type="submit" className="mb-[20px]" disabled={typed.keep.trim() === '' || typed.other.trim() === ''}>
          {t('compare')}
        </Button>
      </form>
      <p role="status">{done === '' ? null : <Stated state="ok">{done}</Stated>}</p>
      {two ? (
        <form onSubmit={(event) => void merge(event)} data-testid="merge-pair">
          <Compared two={two} />
          <p className="label py-2">{t('identityLine')}</p>
          <Field label={t('reason')} value={typed.reason} onValue={set('reason')} problem={at('reason')} autoComplete="off" />
          {two.keep.birthDate === two.other.birthDate ? null : (
            <Field
              label={t('birthDatesReason')}
              value={typed.birthDatesReason}
              onValue={set('birthDatesReason')}
              problem={at('birthDatesReason')}
              autoComplete="off"
            />
          )}
          {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
          <div className="flex gap-3 justify-end">
            <Button onClick={() => setTwo({ keep: two.other, other: two.keep })}>{t('swap')}</Button>
            <Button look="act" type="submit" disabled={busy}>
              {t('do', { keep: formatRecord(two.keep.recordNumber), other: formatRecord(two.other.recordNumber) })}
            </Button>
          </div>
        </form>
      ) : null}
    </>
  );
}

/** Both records side by side; where who they are differs, it is said. */
function Compared({ two }: { readonly two: Two }) {
  const t = useTranslations('merge');
  const { session } = useServer();
  const rows = [
    ['record', (r: MergeRecord) => formatRecord(r.recordNumber), false],
    ['name', (r: MergeRecord) => r.name, true],
    ['birthDate', (r: MergeRecord) => formatDay(r.birthDate), true],
    ['telephone', (r: MergeRecord) => r.telephone ?? '', true],
    ['occupation', (r: MergeRecord) => r.occupation ?? '', true],
    ['visits', (r: MergeRecord) => String(r.visits), false],
    ['lastVisit', (r: MergeRecord) => (r.lastVisitAt === null ? t('never') : formatMoment(r.lastVisitAt, session.practice.timeZone)), false],
    ['prescriptions', (r: MergeRecord) => String(r.prescriptions), false],
    ['orders', (r: MergeRecord) => String(r.orders), false],
  ] as const;
  return (
    <table className="w-full my-3">
      <thead>
        <tr className="border-b border-rule-2 text-left">
          <th scope="col" />
          <th scope="col">{t('keepHead')}</th>
          <th scope="col">{t('otherHead')}</th>
          <th scope="col" />
        </tr>
      </thead>
      <tbody>
        {rows.map(([key, of, compares]) => {
          const differs = compares && of(two.keep) !== of(two.other);
          return (
            <tr key={key} className="border-b border-rule">
              <th scope="row" className="label text-left font-[420] py-1 w-36">
                {t(key)}
              </th>
              <td className="value">{of(two.keep)}</td>
              <td className="value">{of(two.other)}</td>
              <td>{!compares ? null : differs ? <Stated state="watch">{t('differs')}</Stated> : <Stated state="ok">{t('same')}</Stated>}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
