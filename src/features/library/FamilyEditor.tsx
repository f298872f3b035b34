'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { GEOMETRIES, MARK_LAYOUTS, MODALITIES, MULTIFOCAL_DESIGNS, STABILISATIONS } from '@/core';
import { formatDay } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { BLOCK_COLUMNS, FAMILY_COLUMNS, type CatalogueColumn, type Cells } from '@/schema/catalogue';
import type { Consequences } from '@/services/family/commands';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** Columns that are chosen from a list; empty where nothing may be said. */
const CHOICES: Readonly<Partial<Record<CatalogueColumn, readonly string[]>>> = {
  geometry: GEOMETRIES,
  modality: MODALITIES,
  mark_layout: MARK_LAYOUTS,
  stabilisation: ['', ...STABILISATIONS],
  multifocal_design: ['', ...MULTIFOCAL_DESIGNS],
  overnight_approved: ['no', 'yes'],
  reusable_trial: ['no', 'yes'],
};
type Typed = Readonly<Partial<Record<CatalogueColumn, string>>>;
const only = (cells: Cells, columns: readonly CatalogueColumn[]): Typed => Object.fromEntries(columns.map((c) => [c, cells[c] ?? CHOICES[c]?.[0] ?? '']));

/** A family's facts and blocks to be changed; the change is a new version, shown with its consequences before it is saved. */
export function FamilyEditor({
  code: given,
  baseVersion,
  lines,
  onSaved,
}: {
  /** Null for a family that is new. */
  readonly code: string | null;
  readonly baseVersion: number;
  readonly lines: readonly Cells[];
  readonly onSaved: (code: string) => void;
}) {
  const t = useTranslations('library');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { command, session } = useServer();
  const [code, setCode] = useState(given ?? '');
  const [facts, setFacts] = useState<Typed>(() => only(lines[0] ?? {}, FAMILY_COLUMNS));
  const [blocks, setBlocks] = useState<readonly Typed[]>(() => (lines.length > 0 ? lines : [{}]).map((l) => only(l, BLOCK_COLUMNS)));
  const [startsOn, setStartsOn] = useState(session.today);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [consequences, setConsequences] = useState<Consequences | null>(null);
  const [busy, setBusy] = useState(false);

  const send = async (confirm: boolean): Promise<void> => {
    setBusy(true);
    const sent = blocks.map((block, i) => (i === 0 ? { ...facts, ...block } : block));
    const done = await command('saveFamily', { code, baseVersion, startsOn, lines: sent, confirm });
    setBusy(false);
    if (!done) return;
    setProblem(done.ok ? null : done.error);
    if (!done.ok) setConsequences(null);
    else if (confirm) onSaved(code);
    else setConsequences(done.value);
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void send(false);
  };
  const at = (...path: string[]): string | null => {
    const found = problemAt(problem, ...path);
    return found ? words(found.code, found.data) : null;
  };
  const fact = (column: (typeof FAMILY_COLUMNS)[number]) => {
    const options = CHOICES[column];
    const fault = at('lines', '0', column);
    const set = (value: string): void => setFacts({ ...facts, [column]: value });
    return options ? (
      <label key={column} className="field">
        <span className="field-label">{t(`columns.${column}`)}</span>
        <select className="choice w-full h-10" value={facts[column] ?? ''} onChange={(event) => set(event.target.value)}>
          {options.map((o) => (
            <option key={o} value={o}>
              {o === '' ? t('notSaid') : t(`options.${o as 'toric'}`)}
            </option>
          ))}
        </select>
        <span className="field-note">{fault ? <ProblemLine>{fault}</ProblemLine> : null}</span>
      </label>
    ) : (
      <Field key={column} label={t(`columns.${column}`)} value={facts[column] ?? ''} onValue={set} problem={fault} autoComplete="off" />
    );
  };
  const others =
    problem?.kind === 'invalid'
      ? problem.fields.filter(
          (f) => !(f.path[0] === 'lines' && f.path[2] !== '' && f.path[2] !== undefined) && f.path[0] !== 'startsOn' && f.path[0] !== 'code',
        )
      : [];
  return (
    <form onSubmit={submit} className="px-6 py-4" data-testid="family-editor">
      {given === null ? (
        <Field
          label={t('code')}
          value={code}
          onValue={setCode}
          hint={t('codeHint')}
          problem={at('code')}
          className="max-w-[320px] mb-3"
          mono
          autoComplete="off"
        />
      ) : null}
      <h2 className="settings-group">{t('facts')}</h2>
      <div className="grid gap-x-4 gap-y-1 grid-cols-[repeat(auto-fill,minmax(190px,1fr))]">{FAMILY_COLUMNS.filter((c) => c !== 'family_code').map(fact)}</div>
      <h2 className="settings-group mt-4">{t('blocks')}</h2>
      <p className="label mb-2">{t('blocksLine')}</p>
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              {BLOCK_COLUMNS.map((c) => (
                <th key={c} scope="col">
                  {t(`columns.${c}`)}
                </th>
              ))}
              <th aria-label={t('remove')} />
            </tr>
          </thead>
          <tbody>
            {blocks.map((block, i) => (
              <tr key={i}>
                {BLOCK_COLUMNS.map((c) => {
                  const fault = at('lines', String(i), c);
                  return (
                    <td key={c}>
                      <input
                        className={`input input-mono block-cell ${c === 'cylinders' || c === 'curves' ? 'min-w-[150px]' : 'min-w-[74px]'}`}
                        aria-label={t('cell', { column: t(`columns.${c}`), row: i + 1 })}
                        aria-invalid={fault ? true : undefined}
                        value={block[c] ?? ''}
                        onChange={(event) => setBlocks(blocks.map((b, at2) => (at2 === i ? { ...b, [c]: event.target.value } : b)))}
                      />
                      {fault ? <ProblemLine>{fault}</ProblemLine> : null}
                    </td>
                  );
                })}
                <td>
                  {blocks.length > 1 ? (
                    <Button look="quiet" onClick={() => setBlocks(blocks.filter((_, at2) => at2 !== i))}>
                      {t('remove')}
                    </Button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button look="quiet" onClick={() => setBlocks([...blocks, { ...blocks.at(-1) }])}>
        {t('addBlock')}
      </Button>
      <div className="flex flex-wrap gap-4 items-end mt-4">
        <Field label={t('startsOn')} value={startsOn} onValue={setStartsOn} problem={at('startsOn')} hint={t('startsHint')} className="max-w-[220px]" />
        <Button type="submit" look="act" disabled={busy}>
          {t('whatFollows')}
        </Button>
      </div>
      {others.map((f, i) => (
        <ProblemLine key={i}>
          {f.path[0] === 'lines' && f.path[1] ? t('inBlock', { row: Number(f.path[1]) + 1 }) : null} {words(f.code, f.data)}
        </ProblemLine>
      ))}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Panel open={consequences !== null} onClose={() => setConsequences(null)} title={t('followsTitle')}>
        {consequences ? (
          <>
            <p className="mb-2">{t('followsVersion', { day: formatDay(startsOn) })}</p>
            <p className="mb-2">{t('followsUse', { count: consequences.prescriptions })}</p>
            {consequences.lost.length > 0 ? (
              <>
                <Stated state="stop">{t('followsLost', { count: consequences.lost.length })}</Stated>
                <ul className="my-2">
                  {consequences.lost.map((u) => (
                    <li key={`${u.wearerId}${u.eye}`}>{t('lostLine', { name: u.name, day: formatDay(u.birthDate), eye: u.eye, number: u.number })}</li>
                  ))}
                </ul>
              </>
            ) : (
              <Stated state="ok">{t('followsNone')}</Stated>
            )}
            {consequences.drawerLost > 0 ? <p className="mt-2">{t('followsDrawer', { count: consequences.drawerLost })}</p> : null}
            <div className="flex justify-end gap-3 mt-4">
              <Button onClick={() => setConsequences(null)}>{t('goOn')}</Button>
              <Button look="act" disabled={busy} onClick={() => void send(true)}>
                {t('saveVersion')}
              </Button>
            </div>
          </>
        ) : null}
      </Panel>
    </form>
  );
}
