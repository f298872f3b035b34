'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatAxis, formatPower, parseRefraction, type Eye } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { useVisit } from '../../shell/VisitProvider';
import type { Readings } from './useReadings';

const Bracket = lazy(() => import('./Bracket').then((m) => ({ default: m.Bracket })));

/** Over a lens that masks an irregular cornea: a cylinder is looked for by answers, and what was found before stands beside it. */
export function FindCylinder({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const { draft, live } = readings;
  const { state, lens, over } = live[eye];
  const lensOnEyeId = state.onEye?.rootId;
  if (lensOnEyeId === undefined || lens?.irregular !== true) return null;
  const typed = parseRefraction(draft.body[eye] ?? '');
  const sphere = typed.ok ? typed.value.sphere : (over?.power.sphere ?? 0);
  const before = record.facts.guided.filter((g) => g.lensOnEyeId === lensOnEyeId).at(-1);
  return (
    <>
      {before ? (
        <span className="note" data-testid={`guided-${eye}`}>
          {t('guided', {
            axis: formatAxis(before.axis),
            one: before.blur[0],
            other: before.blur[1],
            cylinder: formatPower(before.cylinder),
            time: formatTime(before.foundAt, record.session.practice.timeZone),
          })}
        </span>
      ) : null}
      <Button disabled={!readings.usable(eye)} onClick={() => setOpen(true)}>
        {t('findCylinder')}
      </Button>
      {open ? (
        <Suspense fallback={null}>
          <Bracket eye={eye} lensOnEyeId={lensOnEyeId} sphere={sphere} onFound={(text) => draft.set(eye, text)} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
