import {
  aftercareSaid,
  careFindings,
  caredFor,
  carePrescribed,
  EYES,
  proposeCare,
  type CareFinding,
  type CareProposal,
  type CareSystemFact,
  type EyeState,
  type Eye,
  type HealthState,
} from '@/core';
import type { VisitRecord } from '../visitData';

type Product = VisitRecord['careProducts'][number];

/** The care system of a visit as its page shows it. */
export interface CareOfVisit {
  readonly prescribed: CareSystemFact | null;
  /** Its product as it is known today; null where the practice knows it no longer. */
  readonly product: Product | null;
  /** What is to be said of it with today's lenses. */
  readonly findings: readonly CareFinding[];
  /** False: every lens known is thrown away each day; null: none is known. */
  readonly reusable: boolean | null;
  readonly proposal: CareProposal;
  /** Products that can be named, those of the proposed kind first. */
  readonly products: readonly Product[];
  readonly findingsOf: (product: Product) => readonly CareFinding[];
}

/** Needs the practice's library to have come. */
export function careOfVisit(record: VisitRecord, health: HealthState, eye: (e: Eye) => EyeState): CareOfVisit {
  const { materials, reusable } = caredFor({
    lenses: record.lenses,
    families: record.ofLenses,
    onEye: record.facts.onEye,
    prescriptions: record.prescriptions,
  });
  const findingsOf = (product: Product): readonly CareFinding[] => careFindings(product, materials, record.carePairs);
  const prescribed = carePrescribed(record.careSystems);
  const product = record.careProducts.find((p) => p.productId === prescribed?.productId) ?? null;
  const troubles = EYES.flatMap((e) => aftercareSaid(record.health.aftercare, 'trouble', e, null) ?? []);
  const deposits = EYES.some((e) => ['film', 'spots'].includes(String(eye(e).findings.deposits ?? 'none')));
  const proposal = proposeCare({ answers: health.answers, troubles, deposits });
  const place = (p: Product): number => (p.ended ? 2 : 0) + (p.system === proposal.system ? 0 : 1);
  return {
    prescribed,
    product,
    findings: product ? findingsOf(product) : [],
    reusable,
    proposal,
    products: record.careProducts.toSorted((a, b) => place(a) - place(b)),
    findingsOf,
  };
}
