import type { Eye, IsoDate, IsoInstant } from '../units';
import { latest, type FactChain } from './chains';
import type { Order } from './order';
import { arrivedOn, isEnded } from './orderState';
import type { Prescription } from './prescription';
import type { HandOverFact, OnEyeFact, VisitFacts } from './visitFacts';
import type { WearerFile } from './wearerFile';

/** The facts, strongest evidence first; never mixed. */
export type LensFactKind = 'handedOver' | 'ordered' | 'sellerVerified' | 'boughtElsewhere' | 'broughtAlong' | 'prescribed' | 'tried';

/** A lens that this practice verified to a seller: whoever asked for it has probably bought it. */
export interface SellerVerified {
  readonly eye: Eye;
  readonly lensId: string;
  readonly at: IsoInstant;
}
/** What a wearer is said to have worn before coming here, from a list that the practice took over. */
export interface BroughtAlong {
  readonly eye: Eye;
  readonly lensId: string;
  /** The day of which the list speaks. */
  readonly asOf: IsoDate;
  readonly recordedAt: IsoInstant;
}
export interface ProvenanceNode {
  readonly kind: LensFactKind;
  readonly lensId: string;
  readonly at: IsoInstant;
  /** Number of the order, the prescription or the trial. */
  readonly number: number | null;
  /** What its box says; null where nobody here has seen it. */
  readonly lot: string | null;
  readonly expiresOn: IsoDate | null;
}
export interface Provenance {
  /** Newest of each kind for the eye. */
  readonly nodes: Readonly<Record<LensFactKind, ProvenanceNode | null>>;
  /** What counts as worn now; null when there is nothing. */
  readonly worn: ProvenanceNode | null;
}
/** What it is known from. */
export type ProvenanceFile = Pick<WearerFile, 'handOvers' | 'orders' | 'prescriptions' | 'onEye' | 'broughtAlong' | 'sellerVerified' | 'wornAnswers'>;

/** What a visit knows of it: what was tried before and here. */
export const provenanceInVisit = ({
  handOvers,
  orders,
  prescriptions,
  broughtAlong,
  sellerVerified,
  wornAnswers,
  trials,
  facts,
}: Omit<ProvenanceFile, 'onEye'> & { readonly trials: readonly OnEyeFact[]; readonly facts: Pick<VisitFacts, 'onEye'> }): ProvenanceFile => ({
  handOvers,
  orders,
  prescriptions,
  broughtAlong,
  sellerVerified,
  wornAnswers,
  onEye: [...trials.map((row) => ({ rootId: row.rootId, rows: [row], current: row })), ...facts.onEye],
});

/** The last lens handed over for an eye; null when none was. */
export const lastHandOver = (handOvers: readonly FactChain<HandOverFact>[], eye: Eye): HandOverFact | null =>
  latest(handOvers, (h) => h.eye === eye)?.current ?? null;

/** Nothing of it ever came, nor will. */
const cameToNothing = (order: Order): boolean => isEnded(order) && order.receipts.length === 0;

/** The newest order of lenses for an eye that named one and was not refused; orders of the other eye alone are passed by. */
export const lastOrder = (orders: readonly Order[], eye: Eye): Order | null =>
  orders.find((o) => o.lines.some((l) => l.eye === eye && l.lensId !== null) && !cameToNothing(o)) ?? null;

/** The order that a lens was handed over from; null for a trial. */
export const orderOfHandOver = (orders: readonly Order[], given: HandOverFact): Order | null =>
  given.orderLineId === null ? null : (orders.find((o) => o.lines.some((l) => l.id === given.orderLineId)) ?? null);

/** The newest prescription for an eye that names a lens. */
const lastPrescribed = (prescriptions: readonly Prescription[], eye: Eye): Prescription | null =>
  prescriptions.find((p) => p.eyes.some((e) => e.eye === eye)) ?? null;

const UNSEEN = { lot: null, expiresOn: null } as const;

/**
 * Where one eye's lens comes from. Worn now is the last lens handed over for that eye (a trial or a received order), else the
 * last ordered one, else what a seller had verified or a list or file brought along, whichever is newer; a lens bought elsewhere counts where it was named later than all of these.
 * A trial that was only tried, or a lens that was only prescribed or discussed, is never copied as the current lens.
 * @source common practice: five facts that are never mixed
 */
export function provenance(file: ProvenanceFile, eye: Eye): Provenance {
  const handed = lastHandOver(file.handOvers, eye);
  const order = lastOrder(file.orders, eye);
  const line = order?.lines.find((l) => l.eye === eye);
  const prescription = lastPrescribed(file.prescriptions, eye);
  const prescribed = prescription?.eyes.find((e) => e.eye === eye);
  const tried =
    file.onEye
      .map((c) => c.current)
      .filter((o) => o?.eye === eye && o.source === 'trial')
      .sort((a, b) => (a && b ? a.putOnAt.localeCompare(b.putOnAt) : 0))
      .at(-1) ?? null;
  const brought = file.broughtAlong.find((b) => b.eye === eye);
  const verified = file.sellerVerified
    .filter((v) => v.eye === eye)
    .sort((a, b) => a.at.localeCompare(b.at))
    .at(-1);
  const bought = latest(file.wornAnswers, (a) => a.eye === eye && a.answer === 'boughtElsewhere' && a.lensId !== null)?.current;
  const node = (kind: LensFactKind, lensId: string, at: IsoInstant, rest: Partial<ProvenanceNode> = {}): ProvenanceNode => ({
    kind,
    lensId,
    at,
    number: null,
    ...UNSEEN,
    ...rest,
  });
  const nodes = {
    handedOver: handed
      ? node('handedOver', handed.lensId, handed.observedAt, {
          number: orderOfHandOver(file.orders, handed)?.number ?? null,
          lot: handed.lot,
          expiresOn: handed.expiresOn,
        })
      : null,
    ordered: order && line?.lensId ? node('ordered', line.lensId, order.placedAt, { number: order.number }) : null,
    sellerVerified: verified ? node('sellerVerified', verified.lensId, verified.at) : null,
    boughtElsewhere: bought?.lensId ? node('boughtElsewhere', bought.lensId, bought.observedAt) : null,
    broughtAlong: brought ? node('broughtAlong', brought.lensId, brought.recordedAt) : null,
    prescribed: prescription && prescribed?.lensId ? node('prescribed', prescribed.lensId, prescription.issuedAt, { number: prescription.number }) : null,
    tried: tried?.lensId ? node('tried', tried.lensId, tried.putOnAt, { number: tried.trialNumber, lot: tried.lot, expiresOn: tried.expiresOn }) : null,
  };
  const said =
    [nodes.sellerVerified, nodes.broughtAlong]
      .filter((n) => n !== null)
      .sort((a, b) => a.at.localeCompare(b.at))
      .at(-1) ?? null;
  // A parcel sent straight to the wearer, who says that it came, is worn rather than what was handed over before it.
  const arrived = order && nodes.ordered ? arrivedOn(order) : null;
  const straight = arrived !== null && (handed === null || arrived > handed.observedAt) ? nodes.ordered : null;
  const here = straight ?? nodes.handedOver ?? nodes.ordered ?? said;
  const later = nodes.boughtElsewhere && (here === null || nodes.boughtElsewhere.at > here.at);
  return { nodes, worn: later ? nodes.boughtElsewhere : here };
}

/** Why the lens that counts as worn is the one: each fact and the one before it that led to it, newest first. */
export function wornChain(file: ProvenanceFile, eye: Eye): readonly ProvenanceNode[] {
  const { worn } = provenance(file, eye);
  if (worn?.kind === 'handedOver') {
    const given = lastHandOver(file.handOvers, eye);
    const order = given && orderOfHandOver(file.orders, given);
    return [worn, ...(order ? fromOrder(file, order, eye) : [])];
  }
  if (worn?.kind === 'ordered') {
    const order = lastOrder(file.orders, eye);
    return order ? fromOrder(file, order, eye) : [worn];
  }
  return worn ? [worn] : [];
}

/** An order, the prescription it was under, and the trial that this rests on. */
function fromOrder(file: ProvenanceFile, order: Order, eye: Eye): readonly ProvenanceNode[] {
  const line = order.lines.find((l) => l.eye === eye);
  const prescription = file.prescriptions.find((p) => p.id === order.prescriptionId);
  const prescribed = prescription?.eyes.find((e) => e.eye === eye);
  const tried = prescribed && file.onEye.find((c) => c.rootId === prescribed.triedLensOnEyeId)?.current;
  const links: ProvenanceNode[] = [];
  if (line?.lensId) links.push({ kind: 'ordered', lensId: line.lensId, at: order.placedAt, number: order.number, ...UNSEEN });
  if (prescription && prescribed?.lensId)
    links.push({ kind: 'prescribed', lensId: prescribed.lensId, at: prescription.issuedAt, number: prescription.number, ...UNSEEN });
  if (tried?.lensId)
    links.push({ kind: 'tried', lensId: tried.lensId, at: tried.putOnAt, number: tried.trialNumber, lot: tried.lot, expiresOn: tried.expiresOn });
  return links;
}
