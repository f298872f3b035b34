import { useMemo, useState } from 'react';
import { listOf, shapeFor, SHAPES, type Eye } from '@/core';
import { addsOf, bestFor, lastAxesOf, meanKOf, needsByFamily, needsOf, productOf, listInputOf } from '../../shell/candidates';
import { decisionOf } from '../../shell/health';
import type { Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { chosenOf, comparedOf, firstChoice, type Chosen, type Row } from './model';

/** Families shown before the rest is asked for. */
const ROWS_SHOWN = 24;

/** The list of families as the draft narrows it, and what of it is chosen for each eye. */
export function useLensList(draft: Draft) {
  const { record, eye, health, lensOf } = useVisit();
  const needs = useMemo(() => needsOf(eye), [eye]);
  const needsFor = useMemo(() => needsByFamily(record, eye), [record, eye]);
  const adds = useMemo(() => addsOf(eye), [eye]);
  const decided = decisionOf(record)?.chosen ?? null;
  const apart = draft.body.apart === 'yes';
  const lead: Eye = draft.body.lead === 'left' || !needs.right ? 'left' : 'right';
  const shape = SHAPES.find((s) => s === draft.body.shape) ?? shapeFor(needs, adds);
  const without: 'hydrogel' | 'siliconeHydrogel' | null =
    draft.body.without === 'hydrogel' || draft.body.without === 'siliconeHydrogel' ? draft.body.without : null;
  const anyway = draft.body.anyway ?? '';
  const product = productOf(record, draft.body.product);
  const [shown, setShown] = useState(ROWS_SHOWN);
  const list = useMemo(
    () =>
      listOf(listInputOf(record, health.answers, lastAxesOf(eye, lensOf)), {
        needs,
        needsFor,
        adds,
        kind: decided,
        shape,
        withoutMaterial: without,
        product,
        anyway,
        ...(apart ? { rankedBy: [lead] } : {}),
      }),
    [record, health, eye, lensOf, needs, needsFor, adds, decided, shape, without, product, anyway, apart, lead],
  );
  const first = firstChoice(list.rows);
  const named = ['family', 'rightFamily', 'leftFamily'].map((key) => draft.body[key]);
  const compared = comparedOf(draft.body);
  const visible = list.rows.filter((r, i) => i < shown || r === first || named.includes(r.family.code) || compared.includes(r.family.code));
  const lastAxis = lastAxesOf(eye, lensOf);
  const rows = visible.map((r): Row => ({
    ...r,
    needs: needsFor(r.family.code),
    best: {
      right: bestFor(record, r.family, needsFor(r.family.code).right, adds.right, lastAxis.right),
      left: bestFor(record, r.family, needsFor(r.family.code).left, adds.left, lastAxis.left),
    },
  }));
  const meanK = { right: meanKOf(health, 'right'), left: meanKOf(health, 'left') };
  const chosen: Record<Eye, Chosen | null> = {
    right: needs.right && chosenOf(draft.body, 'right', rows, first, meanK.right),
    left: needs.left && chosenOf(draft.body, 'left', rows, first, meanK.left),
  };
  const leadCode = (apart ? draft.body[`${lead}Family`] || draft.body.family : draft.body.family) || first?.family.code;
  const leadRow = rows.find((r) => r.family.code === leadCode);
  return {
    needs,
    adds,
    apart,
    lead,
    shape,
    without,
    anyway,
    product,
    list,
    first,
    compared,
    rows,
    meanK,
    chosen,
    leadCode,
    leadRow,
    showAll: () => setShown(list.rows.length),
  };
}
