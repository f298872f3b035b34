'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, EYES, formatRefraction, type ExchangedPrescription } from '@/core';
import type { OutsidePrescription } from '@/db/outsidePrescription';
import { formatDay } from '@/i18n/format';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import listProblems from '@/i18n/messages/en/listProblems.messages.json';
import outsideProblems from '@/i18n/messages/en/outsideProblems.messages.json';
import outsideWords from '@/i18n/messages/en/outside.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { FileChoice } from '@/ui/FileChoice';
import { EyeBadge, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

interface Opened {
  readonly fileName: string;
  readonly text: string;
  readonly read: ServiceOutput<'readPrescriptionFile'>;
}
interface FilesProps {
  readonly wearer: { readonly id: string; readonly name: string };
  readonly onClose: () => void;
}

/** A prescription of another system: its file is read and shown, with what was not understood, and kept only then. */
function OutsideFilesPanel({ wearer, onClose }: FilesProps) {
  const t = useTranslations('outside');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { look } = useServer();
  const [kept, setKept] = useState<readonly OutsidePrescription[]>([]);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [refused, setRefused] = useState<Problem | null>(null);
  const [round, setRound] = useState(0);
  useEffect(() => {
    let gone = false;
    void look('readOutsidePrescriptions', { wearerId: wearer.id }).then((done) => {
      if (!gone && done?.ok) setKept(done.value.files);
    });
    return () => {
      gone = true;
    };
  }, [look, wearer.id, round]);
  const open = async (file: File): Promise<void> => {
    const fileName = file.name;
    const text = await file.text();
    setOpened(null);
    const done = await look('readPrescriptionFile', { wearerId: wearer.id, fileName, text });
    setRefused(done && !done.ok ? done.error : null);
    if (done?.ok) setOpened({ fileName, text, read: done.value });
  };
  const fault = problemAt(refused, 'text') ?? problemAt(refused, 'fileName');
  return (
    <Panel open wide onClose={onClose} title={t('title')}>
      <p className="label mb-3">{t('line')}</p>
      <FileChoice accept=".json,.csv,application/json,application/fhir+json,text/csv" onFiles={([file]) => void open(file)}>
        {t('choose')}
      </FileChoice>
      {refused ? <ProblemLine>{fault ? words(fault.code, fault.data) : refusal(refused)}</ProblemLine> : null}
      {opened ? (
        <Understood
          key={opened.fileName}
          opened={opened}
          wearer={wearer}
          onKept={() => {
            setOpened(null);
            setRound(round + 1);
          }}
        />
      ) : null}
      {kept.length > 0 ? <h2 className="mt-4 mb-1">{t('keptBefore')}</h2> : null}
      {kept.map((file) => (
        <Kept key={file.id} file={file} />
      ))}
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}

/** What was understood of a file, and what was not; then the press that keeps it. */
function Understood({ opened, wearer, onKept }: { readonly opened: Opened; readonly wearer: FilesProps['wearer']; readonly onKept: () => void }) {
  const t = useTranslations('outside');
  const words = useProblemWords();
  const { send, problem, busy } = useSending<'keepOutsidePrescription'>(onKept);
  const [why, setWhy] = useState('');
  const { document, left, doubts } = opened.read;
  const { person } = document;
  const fault = problemAt(problem, 'despiteReason') ?? problemAt(problem, 'text');
  const strange = doubts.some((doubt) => doubt !== 'nobodyNamed');
  return (
    <section className="mt-3 flex flex-col gap-2" data-testid="understood">
      <h2>{t('understood')}</h2>
      <p>{person ? t('names', { name: person.name, birth: person.birthDate === null ? 'none' : formatDay(person.birthDate) }) : t('nobody')}</p>
      {doubts.map((doubt) => (
        <Stated key={doubt} state="stop">
          {t(`doubt.${doubt}`)}
        </Stated>
      ))}
      {document.prescriptions.map((p, index) => (
        <PrescriptionLines key={index} prescription={p} by={document.prescriber?.name ?? null} />
      ))}
      <h2>{left.length === 0 ? t('leftNone') : t('left')}</h2>
      <ul className="note max-h-[180px] overflow-auto" data-testid="left-aside">
        {left.map((one) => (
          <li key={one.path}>
            {one.path}
            {': '}
            {one.value}
          </li>
        ))}
      </ul>
      {strange ? (
        <Field label={t('why')} value={why} onValue={setWhy} problem={fault ? words(fault.code, fault.data) : null} autoComplete="off" maxLength={300} />
      ) : fault ? (
        <ProblemLine>{words(fault.code, fault.data)}</ProblemLine>
      ) : null}
      <span>
        <Button
          look="act"
          disabled={busy}
          onClick={() => void send('keepOutsidePrescription', { wearerId: wearer.id, fileName: opened.fileName, text: opened.text, despiteReason: why })}
        >
          {t('keep', { name: wearer.name })}
        </Button>
      </span>
    </section>
  );
}

function PrescriptionLines({ prescription, by }: { readonly prescription: ExchangedPrescription; readonly by: string | null }) {
  const t = useTranslations('outside');
  return (
    <div>
      <p className="label">
        {t('prescription', {
          kind: prescription.kind,
          number: prescription.number === '' ? 'none' : prescription.number,
          expires: prescription.expiresOn === null ? 'none' : formatDay(prescription.expiresOn),
        })}
        {by ? ` · ${t('by', { name: by })}` : ''}
      </p>
      {EYES.map((eye) => {
        const lens = prescription.eyes[eye];
        return (
          <p key={eye} className="flex gap-3 items-baseline flex-wrap">
            <EyeBadge eye={eye} />
            {lens ? (
              <>
                <span className="power">{formatRefraction(lens.power)}</span>
                <span>
                  {t('lens', {
                    brand: lens.brand,
                    curve: lens.baseCurveMm === null ? 'none' : lens.baseCurveMm.toFixed(1),
                    diameter: lens.diameterMm === null ? 'none' : lens.diameterMm.toFixed(1),
                  })}
                </span>
              </>
            ) : (
              <span className="label">{t('none')}</span>
            )}
          </p>
        );
      })}
    </div>
  );
}

function Kept({ file }: { readonly file: OutsidePrescription }) {
  const t = useTranslations('outside');
  const { session } = useServer();
  return (
    <div className="border-t border-rule py-2" data-testid="kept-file">
      <p className="note">
        {t('keptLine', { file: file.fileName, day: formatDay(dayIn(file.recordedAt, session.practice.timeZone)), name: file.recordedByName })}
      </p>
      {file.document.prescriptions.map((p, index) => (
        <PrescriptionLines key={index} prescription={p} by={file.document.prescriber?.name ?? null} />
      ))}
    </div>
  );
}

export const OutsideFiles = withWords({ eyes: eyesWords, outside: outsideWords, problems: { ...listProblems, ...outsideProblems } }, OutsideFilesPanel);
