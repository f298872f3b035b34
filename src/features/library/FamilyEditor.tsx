'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { BLOCK_COLUMNS, FAMILY_COLUMNS, type Cells } from '@/schema/catalogue';
import type { Consequences } from '@/services/family/commands';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { useServer } from '../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { BlockTable } from './BlockTable';
import { ConsequencesPanel } from './ConsequencesPanel';
import { faultsElsewhere, only, type Typed } from './editing';
import { FactField } from './FactField';

/** A family's facts and blocks to be changed; the change is a new version, shown with its consequences before it is saved. */
function Editor({
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
      <div className="grid gap-x-4 gap-y-1 grid-cols-[repeat(auto-fill,minmax(190px,1fr))]">
        {FAMILY_COLUMNS.filter((c) => c !== 'family_code').map((column) => (
          <FactField
            key={column}
            column={column}
            value={facts[column] ?? ''}
            fault={at('lines', '0', column)}
            onValue={(value) => setFacts({ ...facts, [column]: value })}
          />
        ))}
      </div>
      <h2 className="settings-group mt-4">{t('blocks')}</h2>
      <p className="label mb-2">{t('blocksLine')}</p>
      <BlockTable blocks={blocks} faultAt={(row, column) => at('lines', String(row), column)} onBlocks={setBlocks} />
      <div className="flex flex-wrap gap-4 items-end mt-4">
        <Field label={t('startsOn')} value={startsOn} onValue={setStartsOn} problem={at('startsOn')} hint={t('startsHint')} className="max-w-[220px]" />
        <Button type="submit" look="act" disabled={busy}>
          {t('whatFollows')}
        </Button>
      </div>
      {faultsElsewhere(problem).map((f, i) => (
        <ProblemLine key={i}>
          {f.path[0] === 'lines' && f.path[1] ? t('inBlock', { row: Number(f.path[1]) + 1 }) : null} {words(f.code, f.data)}
        </ProblemLine>
      ))}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <ConsequencesPanel consequences={consequences} startsOn={startsOn} busy={busy} onClose={() => setConsequences(null)} onSave={() => void send(true)} />
    </form>
  );
}

export const FamilyEditor = withWords({ problems: libraryProblems }, Editor);
