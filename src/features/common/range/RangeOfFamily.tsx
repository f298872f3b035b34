'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import {
  bestOf,
  cellOf,
  EYES,
  formatRefraction,
  rangeGrid,
  type LensAdd,
  type Eye,
  type LensBlock,
  type LensFamily,
  type LensPower,
  type Refraction,
  addFor,
  nameOfAdd,
} from '@/core';
import { EyeBadge } from '@/ui/marks';
import { AxisFan } from './AxisFan';
import { RangeMap } from './RangeMap';

/** A family's range with an eye's need on it, and the axes of the cell that is given. */
export function RangeOfFamily({
  family,
  announced,
  drawer,
  needs,
  adds,
}: {
  readonly family: LensFamily;
  readonly announced?: readonly LensBlock[];
  readonly drawer: readonly LensPower[];
  readonly needs: Readonly<Record<Eye, Refraction | null>>;
  readonly adds: Readonly<Record<Eye, number | null>>;
}) {
  const t = useTranslations('range');
  const bands = [...new Set(family.blocks.flatMap((b) => b.adds))].filter((a): a is LensAdd => a !== null);
  const asked = EYES.map((e) => adds[e]).find((a) => a !== null);
  const [chosenBand, setBand] = useState<LensAdd | null>(null);
  const band = chosenBand ?? (asked !== undefined && asked !== null ? (addFor(family, asked)?.add ?? bands[0] ?? null) : (bands[0] ?? null));
  const grid = rangeGrid(family.blocks);
  const best = (e: Eye): LensPower | null => {
    const need = needs[e];
    if (!need) return null;
    const blocks = bands.length === 0 ? family.blocks : family.blocks.filter((b) => b.adds.includes(band));
    return bestOf({ ...family, blocks }, need, null, { limit: 1 })[0]?.power ?? null;
  };
  const given = { right: best('right'), left: best('left') };
  const toric = grid.axes.length > 0;
  return (
    <div>
      {bands.length > 1 && toric ? (
        <label className="note block mb-2">
          {t('addShown')}{' '}
          <select className="choice" value={band ?? ''} onChange={(event) => setBand(event.target.value as LensAdd)}>
            {bands.map((b) => (
              <option key={b} value={b}>
                {nameOfAdd(b, (named) => t(`add.${named}`))}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      <RangeMap
        blocks={family.blocks}
        {...(announced ? { announced } : {})}
        drawer={drawer}
        add={band}
        label={t('label', { family: family.name })}
        eyes={{ right: { need: needs.right, given: given.right }, left: { need: needs.left, given: given.left } }}
      />
      {toric ? (
        <div className="flex flex-wrap justify-around gap-4 mt-3">
          {EYES.map((e) => {
            const lens = given[e];
            const need = needs[e];
            if (!lens || !need) return null;
            return (
              <div key={e} className="min-w-0">
                <div className="flex gap-2 items-center">
                  <EyeBadge eye={e} /> <span className="value font-mono">{formatRefraction(lens)}</span>
                </div>
                <AxisFan
                  made={cellOf(grid, lens, grid.rows.some((r) => r.add === null) ? null : band)?.axes ?? []}
                  given={lens.cylinder === 0 ? null : lens.axis}
                  asked={need.cylinder === 0 ? null : need.axis}
                />
              </div>
            );
          })}
        </div>
      ) : null}
    </div>
  );
}
