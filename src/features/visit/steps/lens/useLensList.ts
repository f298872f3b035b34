import { useCallback, useMemo, useState } from 'react';
import {
  addsKnown,
  addWanted,
  aimsOfVisit,
  dominanceOf,
  geometryOfEyes,
  listOf,
  nearState,
  otherOf,
  setsApart,
  startLensOf,
  type Shape,
  MATERIAL_CLASSES,
  shapeFor,
  SHAPES,
  type Eye,
} from '@/core';
import { bestFor, lastAxesOf, meanKOf, needsByFamily, needsOf, productOf, listInputOf } from '../../shell/candidates';
import { decisionOf } from '../../shell/health';
import type { Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { chosenOf, comparedOf, firstChoice, isApart, type Chosen, type Row } from './model';

type Family = Parameters<typeof bestFor>[1];

/** Families shown before the rest is asked for. */
const ROWS_SHOWN = 24;

/** What the eyes ask, and how the draft narrows the list. */
function useAsked(draft: Draft<'lens'>) {
  const { record, eye, lensOf } = useVisit();
  const needs = useMemo(() => needsOf(eye), [eye]);
  const needsFor = useMemo(() => needsByFamily(record, eye), [record, eye]);
  const aims = useMemo(() => aimsOfVisit(record, record.facts.refractions), [record]);
  // A way of serving near may ask each eye for a kind of its own.
  const ownKinds = setsApart(nearState(record.nearFindings).way);
  const adds = useMemo(() => {
    const known = addsKnown(record.facts.refractions, record.addsBefore);
    const wanted = (e: Eye) => addWanted(aims[e], known[e]?.addD ?? null);
    return { right: wanted('right'), left: wanted('left') };
  }, [record, aims]);
  const lastAxes = useMemo(() => lastAxesOf(eye, lensOf), [eye, lensOf]);
  const lead: Eye = draft.body.lead === 'left' || !needs.right ? 'left' : 'right';
  return {
    needs,
    needsFor,
    adds,
    lastAxes,
    aims,
    ownKinds,
    apart: isApart(draft.body.apart, ownKinds),
    lead,
    shape: SHAPES.find((s) => s === draft.body.shape) ?? null,
    without: MATERIAL_CLASSES.find((m) => m === draft.body.without) ?? null,
    anyway: draft.body.anyway ?? '',
    product: productOf(record, draft.body.product),
  };
}

/** Of one eye only. */
const onlyOf = <T>(of: Readonly<Record<Eye, T>>, eye: Eye): Readonly<Record<Eye, T | null>> => ({
  right: eye === 'right' ? of.right : null,
  left: eye === 'left' ? of.left : null,
});

/** The list of families as the draft narrows it, and what of it is chosen for each eye. */
export function useLensList(draft: Draft<'lens'>) {
  const { record, health } = useVisit();
  const asked = useAsked(draft);
  const { needs, needsFor, adds, aims, ownKinds, lastAxes, apart, lead, without, product, anyway } = asked;
  const kind = decisionOf(record)?.chosen ?? null;
  const [shown, setShown] = useState(ROWS_SHOWN);
  // Where each eye asks for a kind of its own, each has a list of its own.
  const own = apart && ownKinds;
  const addsFor = useCallback((e: Eye) => (own ? onlyOf(adds, e) : adds), [own, adds]);
  const shape = asked.shape ?? shapeFor(own ? onlyOf(needs, lead) : needs, addsFor(lead));
  const listFor = useCallback(
    (e: Eye, ofShape: Shape) => {
      const wanted = own && kind ? { ...kind, geometry: geometryOfEyes(needs, aims)[e] } : kind;
      const wish = { needs, needsFor, adds: addsFor(e), kind: wanted, shape: ofShape, withoutMaterial: without, product, anyway };
      return listOf(listInputOf(record, health.answers, lastAxes), { ...wish, ...(apart ? { rankedBy: [e] } : {}) });
    },
    [record, health, lastAxes, needs, needsFor, addsFor, aims, kind, own, without, product, anyway, apart],
  );
  const list = useMemo(() => listFor(lead, shape), [listFor, lead, shape]);
  const other = otherOf(lead);
  const others = useMemo(() => (own ? listFor(other, shapeFor(onlyOf(needs, other), addsFor(other))).rows : null), [own, listFor, other, needs, addsFor]);
  const first = firstChoice(list.rows);
  const named = (['family', 'rightFamily', 'leftFamily'] as const).map((key) => draft.body[key]);
  const compared = comparedOf(draft.body);
  const visible = list.rows.filter((r, i) => i < shown || r === first || named.includes(r.family.code) || compared.includes(r.family.code));
  const dominant = dominanceOf(nearState(record.nearFindings)).eye;
  const wish = { age: record.wearer.age, adds, dominant };
  const bestOf = (family: Family, e: Eye) => bestFor(record, family, needsFor(family.code)[e], startLensOf(family, e, wish, needs), lastAxes[e]);
  const asRow = (r: (typeof list.rows)[number]): Row => ({
    ...r,
    needs: needsFor(r.family.code),
    best: { right: bestOf(r.family, 'right'), left: bestOf(r.family, 'left') },
  });
  const rows = visible.map(asRow);
  const meanK = { right: meanKOf(health, 'right'), left: meanKOf(health, 'left') };
  const chosenFor = (e: Eye): Chosen | null => {
    if (!needs[e]) return null;
    if (others === null || e === lead) return chosenOf(draft.body, e, rows, first, meanK[e]);
    const best = firstChoice(others);
    const wanted = others.filter((r) => r === best || r.family.code === draft.body[`${e}Family`]);
    return chosenOf({ ...draft.body, family: '' }, e, wanted.map(asRow), best, meanK[e]);
  };
  const leadCode = (apart ? draft.body[`${lead}Family`] || draft.body.family : draft.body.family) || first?.family.code;
  return {
    ...asked,
    shape,
    list,
    first,
    compared,
    rows,
    meanK,
    chosen: { right: chosenFor('right'), left: chosenFor('left') },
    leadCode,
    /** Whether the families shown are this eye's list too. */
    listed: (e: Eye): boolean => !own || e === lead,
    leadRow: rows.find((r) => r.family.code === leadCode),
    showAll: () => setShown(list.rows.length),
  };
}
export type LensList = ReturnType<typeof useLensList>;
