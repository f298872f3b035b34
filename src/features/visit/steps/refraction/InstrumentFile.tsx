'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, type Eye, type Keratometry, type MeasuredPart } from '@/core';
import { formatDay } from '@/i18n/format';
import listProblems from '@/i18n/messages/en/listProblems.messages.json';
import outsideProblems from '@/i18n/messages/en/outsideProblems.messages.json';
import measurementProblems from '@/i18n/messages/en/measurementProblems.messages.json';
import measurementWords from '@/i18n/messages/en/measurement.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem, Result } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { FileChoice } from '@/ui/FileChoice';
import { EyeBadge, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import type { ServiceOutput } from '../../../common/server';
import { problemAt, useProblemWords, useRefusalWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';

type Read = ServiceOutput<'readMeasurementFile'>;
interface Of {
  /** Takes powers as typed ones; vertex distance as text, null where the file does not say. */
  readonly onPowers: (powers: Readonly<Record<Eye, string | null>>, vertex: string | null) => void;
  readonly onClose: () => void;
}

/** A file of an instrument: read, shown as it was understood, and taken only then; one of another person never. */
function InstrumentFilePart({ onPowers, onClose }: Of) {
  const t = useTranslations('measurement');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { record } = useVisit();
  const [read, setRead] = useState<Read | null>(null);
  const [refused, setRefused] = useState<Problem | 'away' | null>(null);
  const open = async (file: File): Promise<void> => {
    setRead(null);
    setRefused(null);
    try {
      const response = await fetch(`/api/uploads/measurement?visit=${record.visit.id}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: file,
      });
      const result = (await response.json()) as Result<Read>;
      if (result.ok) setRead(result.value);
      else setRefused(result.error);
    } catch {
      setRefused('away');
    }
  };
  const fault = refused === null || refused === 'away' ? null : problemAt(refused, 'file');
  return (
    <Panel open wide onClose={onClose} title={t('title')}>
      <p className="label mb-3">{t('line')}</p>
      <FileChoice accept=".dcm,.csv,application/dicom,text/csv" onFiles={([file]) => void open(file)}>
        {t('choose')}
      </FileChoice>
      {refused ? <ProblemLine>{refused === 'away' ? t('away') : fault ? words(fault.code, fault.data) : refusal(refused)}</ProblemLine> : null}
      {read ? <Understood read={read} onPowers={onPowers} onClose={onClose} /> : null}
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}

/** What was understood, of whom, and what was not. */
function Understood({ read, onPowers, onClose }: { readonly read: Read } & Of) {
  const t = useTranslations('measurement');
  const { record } = useVisit();
  const [theirs, setTheirs] = useState(false);
  const { person, doubts, left } = read;
  const { name, birthDate } = record.wearer;
  const another = doubts.some((doubt) => doubt !== 'nobodyNamed');
  const nobody = doubts.includes('nobodyNamed');
  const may = !another && (!nobody || theirs);
  return (
    <section className="mt-3 flex flex-col gap-2" data-testid="measured">
      <p>
        {t('of', { name: person?.name ?? '', birth: person?.birthDate ? formatDay(person.birthDate) : 'none', has: person ? 'yes' : 'no' })}
        {' · '}
        {t('by', { device: read.device ?? '', has: read.device ? 'yes' : 'no', at: read.measuredAt?.replace('T', ' ') ?? '–' })}
      </p>
      {another ? <Stated state="stop">{t('another', { name, birth: formatDay(birthDate) })}</Stated> : null}
      {nobody ? (
        <label className="flex gap-2 items-center">
          <input type="checkbox" checked={theirs} onChange={(event) => setTheirs(event.target.checked)} />
          {t('theirs', { name, birth: formatDay(birthDate) })}
        </label>
      ) : null}
      {read.parts.map((part, i) => (
        <Part key={part.how} part={part} leads={i === 0} may={may} onPowers={onPowers} onClose={onClose} />
      ))}
      {left.length > 0 ? <h2>{t('left')}</h2> : null}
      <ul className="note max-h-[140px] overflow-auto">
        {left.map((one) => (
          <li key={one.path}>{one.path.endsWith('rounded') ? t('rounded', { from: one.value }) : `${one.path}: ${one.value}`}</li>
        ))}
      </ul>
    </section>
  );
}

const curveText = ({ flatMm, flatAxis, steepMm }: Keratometry): string =>
  `${flatMm.toFixed(2)}${flatAxis === null ? '' : ` × ${flatAxis}`} / ${steepMm.toFixed(2)} mm`;
/** Findings that curves are recorded as. */
const findingsOf = (curves: Keratometry | null | undefined) =>
  curves
    ? [
        { sign: 'kFlatMm', value: Math.round(curves.flatMm * 100) / 100 },
        { sign: 'kSteepMm', value: Math.round(curves.steepMm * 100) / 100 },
        ...(curves.flatAxis === null ? [] : [{ sign: 'kFlatAxis', value: curves.flatAxis }]),
      ]
    : [];

function Part({ part, leads, may, onPowers, onClose }: { readonly part: MeasuredPart; readonly leads: boolean; readonly may: boolean } & Of) {
  const t = useTranslations('measurement');
  const { run, busy, health } = useVisit();
  const hasPower = EYES.some((e) => part.eyes[e]?.power);
  const hasCurves = EYES.some((e) => part.eyes[e]?.curves);
  const irregular = EYES.some((e) => part.eyes[e]?.power && (health.findings[e].cornea === 'prolate' || health.findings[e].cornea === 'oblate'));
  const power = (e: Eye): string | null => (part.eyes[e]?.power ? formatRefraction(part.eyes[e].power) : null);
  return (
    <div className="border-t border-rule pt-2 flex flex-col gap-2" data-testid={`measured-${part.how}`}>
      <h2>{t(`how.${part.how}`)}</h2>
      {EYES.map((e) => (
        <p key={e} className="flex gap-3 items-center">
          <EyeBadge eye={e} />
          {power(e) !== null || !part.eyes[e]?.curves ? <span className="value">{power(e) ?? t('nothing')}</span> : null}
          {part.eyes[e]?.curves ? <span className="value">{curveText(part.eyes[e].curves)}</span> : null}
        </p>
      ))}
      {hasPower ? <p className="note">{t('vertex', { mm: part.vertexMm ?? 0, has: part.vertexMm === null ? 'no' : 'yes' })}</p> : null}
      {irregular && part.how === 'autorefraction' ? <Stated state="watch">{t('misleads')}</Stated> : null}
      <span className="flex gap-3">
        {hasPower ? (
          <Button
            look={leads ? 'act' : 'plain'}
            disabled={!may}
            onClick={() => {
              onPowers({ right: power('right'), left: power('left') }, part.vertexMm === null ? null : String(part.vertexMm));
              onClose();
            }}
          >
            {t('usePowers')}
          </Button>
        ) : null}
        {hasCurves ? (
          <Button
            look={leads && !hasPower ? 'act' : 'plain'}
            disabled={!may || busy}
            onClick={() =>
              void run('recordFindings', { right: findingsOf(part.eyes.right?.curves), left: findingsOf(part.eyes.left?.curves) }, t('curvesDone'))
            }
          >
            {t('useCurves')}
          </Button>
        ) : null}
      </span>
    </div>
  );
}

export const InstrumentFile = withWords(
  { measurement: measurementWords, problems: { ...listProblems, ...outsideProblems, ...measurementProblems } },
  InstrumentFilePart,
);
