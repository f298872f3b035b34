import { useMemo, useState } from 'react';
import { addsKnown, addWanted, aimsOfVisit, dominanceOf, listOf, nearState, startLensOf, MATERIAL_CLASSES, shapeFor, SHAPES, type Eye } from '@/core';
import { bestFor, lastAxesOf, meanKOf, needsByFamily, needsOf, productOf, listInputOf } from '../../shell/candidates';
import { decisionOf } from '../../shell/health';
import type { Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { chosenOf, comparedOf, firstChoice, type Chosen, type Row } from './model';

type Family = Parameters<typeof bestFor>[1];

/** Families shown before the rest is asked for. */
const ROWS_SHOWN = 24;

/** What the eyes ask, and how the draft narrows the list. */
function useAsked(draft: Draft<'lens'>) {
  const { record, eye, lensOf } = useVisit();
  const needs = useMemo(() => needsOf(eye), [eye]);
  const needsFor = useMemo(() => needsByFamily(record, eye), [record, eye]);
  const adds = useMemo(() => {
    const aims = aimsOfVisit(record, record.facts.refractions);
    const known = addsKnown(record.facts.refractions, record.addsBefore);
    const wanted = (e: Eye) => addWanted(aims[e], known[e]?.addD ?? null);
    return { right: wanted('right'), left: wanted('left') };
  }, [record]);
  const lastAxes = useMemo(() => lastAxesOf(eye, lensOf), [eye, lensOf]);
  const lead: Eye = draft.body.lead === 'left' || !needs.right ? 'left' : 'right';
  return {
    needs,
    needsFor,
    adds,
    lastAxes,
    apart: draft.body.apart === 'yes',
    lead,
    shape: SHAPES.find((s) => s === draft.body.shape) ?? shapeFor(needs, adds),
    without: MATERIAL_CLASSES.find((m) => m === draft.body.without) ?? null,
    anyway: draft.body.anyway ?? '',
    product: productOf(record, draft.body.product),
  };
}

/** The list of families as the draft narrows it, and what of it is chosen for each eye. */
export function useLensList(draft: Draft<'lens'>) {
  const { record, health } = useVisit();
  const asked = useAsked(draft);
  const { needs, needsFor, adds, lastAxes, apart, lead, shape, without, product, anyway } = asked;
  const kind = decisionOf(record)?.chosen ?? null;
  const [shown, setShown] = useState(ROWS_SHOWN);
  const list = useMemo(() => {
    const wish = { needs, needsFor, adds, kind, shape, withoutMaterial: without, product, anyway };
    return listOf(listInputOf(record, health.answers, lastAxes), { ...wish, ...(apart ? { rankedBy: [lead] } : {}) });
  }, [record, health, lastAxes, needs, needsFor, adds, kind, shape, without, product, anyway, apart, lead]);
  const first = firstChoice(list.rows);
  const named = (['family', 'rightFamily', 'leftFamily'] as const).map((key) => draft.body[key]);
  const compared = comparedOf(draft.body);
  const visible = list.rows.filter((r, i) => i < shown || r === first || named.includes(r.family.code) || compared.includes(r.family.code));
  const dominant = dominanceOf(nearState(record.nearFindings)).eye;
  const wish = { age: record.wearer.age, adds, dominant };
  const bestOf = (family: Family, e: Eye) => bestFor(record, family, needsFor(family.code)[e], startLensOf(family, e, wish, needs), lastAxes[e]);
  const rows = visible.map((r): Row => ({
    ...r,
    needs: needsFor(r.family.code),
    best: { right: bestOf(r.family, 'right'), left: bestOf(r.family, 'left') },
  }));
  const meanK = { right: meanKOf(health, 'right'), left: meanKOf(health, 'left') };
  const chosenFor = (e: Eye): Chosen | null => needs[e] && chosenOf(draft.body, e, rows, first, meanK[e]);
  const leadCode = (apart ? draft.body[`${lead}Family`] || draft.body.family : draft.body.family) || first?.family.code;
  return {
    ...asked,
    list,
    first,
    compared,
    rows,
    meanK,
    chosen: { right: chosenFor('right'), left: chosenFor('left') },
    leadCode,
    leadRow: rows.find((r) => r.family.code === leadCode),
    showAll: () => setShown(list.rows.length),
  };
}
export type LensList = ReturnType<typeof useLensList>;
