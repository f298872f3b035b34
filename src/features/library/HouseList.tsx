'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { ADVISED_MODALITIES, GEOMETRIES, type Geometry, type Modality } from '@/core';
import { formatMoment } from '@/i18n/format';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import type { Problem } from '@/lib/outcome';
import type { LibraryPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import { lifeOf, type Family } from './model';

interface Cell {
  readonly modality: Modality;
  readonly geometry: Geometry;
}
const PLACES = [0, 1, 2];

/** What the practice tries first: up to three families in each cell, in order. */
function HouseListSection({
  families,
  houseList,
  mayChange,
}: {
  readonly families: readonly Family[];
  readonly houseList: LibraryPage['houseList'];
  readonly mayChange: boolean;
}) {
  const t = useTranslations('library');
  const ofFamily = useTranslations('family');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const [open, setOpen] = useState<Cell | null>(null);
  const [codes, setCodes] = useState<readonly string[]>([]);
  const [problem, setProblem] = useState<Problem | null>(null);
  const listOf = (cell: Cell) => houseList.find((h) => h.modality === cell.modality && h.geometry === cell.geometry);
  const nameOf = (code: string): Family | undefined => families.find((f) => f.code === code);
  const edit = (cell: Cell): void => {
    setCodes(listOf(cell)?.codes ?? []);
    setProblem(null);
    setOpen(cell);
  };
  const save = async (): Promise<void> => {
    if (!open) return;
    const done = await command('changeHouseList', { ...open, codes: codes.filter((c) => c !== ''), lastId: listOf(open)?.id ?? null });
    if (done?.ok) {
      setOpen(null);
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const choices = open ? families.filter((f) => f.modality === open.modality && f.geometry === open.geometry) : [];
  const newest = open ? listOf(open) : undefined;
  return (
    <section className="px-6 pb-6" data-testid="house-list">
      <h2 className="settings-group">{t('houseList')}</h2>
      <p className="label mb-2">{t('houseLine')}</p>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col" aria-label={t('worn')} />
            {GEOMETRIES.map((g) => (
              <th key={g} scope="col">
                {ofFamily(`geometry.${g}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ADVISED_MODALITIES.map((m) => (
            <tr key={m}>
              <th scope="row">{ofFamily(`modality.${m}`)}</th>
              {GEOMETRIES.map((g) => {
                const cell = { modality: m, geometry: g };
                const list = listOf(cell)?.codes ?? [];
                return (
                  <td key={g}>
                    {list.length === 0 ? <span className="label">{t('noneChosen')}</span> : null}
                    <ol>
                      {list.map((code, i) => {
                        const family = nameOf(code);
                        const life = family ? lifeOf(family, session.today) : 'ended';
                        return (
                          <li key={code}>
                            <span className="label">{i + 1}</span>{' '}
                            <span className={life === 'ended' ? 'struck' : i === 0 ? 'font-[620]' : ''}>{family?.name ?? code}</span>
                          </li>
                        );
                      })}
                    </ol>
                    {mayChange ? (
                      <button
                        type="button"
                        className="btn btn-quiet"
                        aria-label={t('changeCell', { modality: ofFamily(`modality.${m}`), geometry: ofFamily(`geometry.${g}`) })}
                        onClick={() => edit(cell)}
                      >
                        {t('change')}
                      </button>
                    ) : null}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <Panel
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open ? t('cellTitle', { modality: ofFamily(`modality.${open.modality}`), geometry: ofFamily(`geometry.${open.geometry}`) }) : ''}
      >
        {choices.length === 0 ? <p className="mb-3">{t('cellEmpty')}</p> : null}
        {PLACES.map((i) => (
          <label key={i} className="flex gap-3 items-center mb-2">
            <span className="label">{t('place', { place: i + 1 })}</span>
            <select
              className="choice flex-1"
              value={codes[i] ?? ''}
              onChange={(event) => setCodes(PLACES.map((at) => (at === i ? event.target.value : (codes[at] ?? ''))))}
            >
              <option value="">{t('nobody')}</option>
              {choices.map((f) => (
                <option key={f.code} value={f.code}>
                  {f.name}
                </option>
              ))}
            </select>
          </label>
        ))}
        {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        {newest ? (
          <p className="note">{t('setBy', { name: newest.recordedByName, moment: formatMoment(newest.recordedAt, session.practice.timeZone) })}</p>
        ) : null}
        <div className="flex justify-end gap-3 mt-3">
          <Button onClick={() => setOpen(null)}>{t('close')}</Button>
          <Button look="act" onClick={() => void save()}>
            {t('save')}
          </Button>
        </div>
      </Panel>
    </section>
  );
}

export const HouseList = withWords({ problems: libraryProblems }, HouseListSection);
