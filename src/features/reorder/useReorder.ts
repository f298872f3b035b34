import { useRef, useState } from 'react';
import {
  addDays,
  bridgedOn,
  bridgeOf,
  EYES,
  examinationBooked,
  eyeReorder,
  formatRefraction,
  inForce,
  isSameLens,
  offersOf,
  oldBoxes,
  orderCost,
  provenance,
  reorderBar,
  supplyPlan,
  type Eye,
  type EyeReorder,
  type LensRow,
  type Purpose,
  type ReorderOutcome,
} from '@/core';
import type { ReorderPage } from '@/services/reorder/queries';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { plansWith } from './axis';

/** The power of a lens, with its addition. */
export const powerOf = ({ sphereD, cylinderD, axisDeg, addBand }: LensRow): string =>
  [formatRefraction({ sphere: sphereD, cylinder: cylinderD, axis: axisDeg }), addBand].filter(Boolean).join(' ');

/** Boxes as typed: a whole number, or NaN. */
const packsTyped = (text: string): number => (/^\d{1,2}$/.test(text.trim()) ? Number(text) : NaN);

/** A prescription that ends within two months: the examination is spoken of. Common practice. */
const SOON_DAYS = 61;

type Data = Omit<ReorderPage, 'session'>;

/** The prescription that is ordered under, what each eye has, and how many boxes are thought of. */
function useBoxes({ file, trade }: Data) {
  const { session } = useServer();
  const { today, settings } = session;
  const held = inForce(file.prescriptions);
  const [purpose, setPurpose] = useState<Purpose | null>(null);
  const prescription = held.find((p) => p.purpose === purpose) ?? held[0] ?? null;
  const source = { file, trade, today, marginDays: settings.reorderMarginDays };
  const of = (eye: Eye): EyeReorder | null => prescription && eyeReorder(source, prescription, eye);
  const eyes: Readonly<Record<Eye, EyeReorder | null>> = { right: of('right'), left: of('left') };
  const wornLens = (eye: Eye): LensRow | null => {
    const { worn } = provenance(file, eye);
    return (worn && file.lenses[worn.lensId]) ?? null;
  };
  const gapOf = (eye: Eye) => eyes[eye] && bridgeOf(eyes[eye], wornLens(eye));
  const [typed, setTyped] = useState<Readonly<Partial<Record<Eye, string>>>>({});
  const usual = Math.min(...EYES.flatMap((eye) => eyes[eye]?.proposed ?? []));
  const textOf = (eye: Eye): string => typed[eye] ?? (eyes[eye] ? String(usual) : '');
  const packsOf = (eye: Eye): number => (eyes[eye] ? packsTyped(textOf(eye)) : 0);
  const packs: Readonly<Record<Eye, number>> = { right: packsOf('right'), left: packsOf('left') };
  return {
    today,
    held,
    prescription,
    setPurpose,
    eyes,
    offers: offersOf(eyes),
    packs,
    textOf,
    setTyped: (eye: Eye, text: string) => setTyped({ ...typed, [eye]: text }),
    choose: (count: number) => setTyped({ ...(eyes.right ? { right: String(count) } : {}), ...(eyes.left ? { left: String(count) } : {}) }),
    plans: plansWith(eyes, packs, (eye, count) => supplyPlan({ ...eye.input, packs: count })),
    cost: orderCost(eyes, packs),
    bar: reorderBar(file, prescription, eyes, today),
    /** The examination from which a new prescription may come, where one is booked. */
    examination: examinationBooked(file.appointments, { today, until: null, timeZone: session.practice.timeZone }),
    endsSoon: prescription !== null && prescription.expiresOn < addDays(today, SOON_DAYS),
    powerOf: (eye: Eye): string => {
      const lens = eyes[eye]?.lens;
      return lens ? powerOf(lens) : '';
    },
    bridged: bridgedOn(file, today),
    bridges: { right: gapOf('right'), left: gapOf('left') },
    /** Boxes of a power that is prescribed no more. */
    old: prescription ? oldBoxes(file, prescription, today) : [],
    /** What is worn now where that is not the lens prescribed. */
    wornOther: (eye: Eye): LensRow | null => {
      const lens = wornLens(eye);
      const prescribed = eyes[eye]?.lens;
      return lens && prescribed && !isSameLens(lens, prescribed) ? lens : null;
    },
  };
}

/** A telephone reorder: what the wearer has, what is offered, what was asked and said, and the order. */
export function useReorder(data: Data, onDone: (orderId: string | null) => void) {
  const { command } = useServer();
  const boxes = useBoxes(data);
  const { prescription, packs } = boxes;
  const { wearer } = data.file;
  const [asked, setAsked] = useState({ noDanger: false, sightSame: false });
  const [pastExpiryNote, setPastExpiryNote] = useState('');
  const [note, setNote] = useState('');
  const [deliveryAddress, setDeliveryAddress] = useState('');
  const { send, problem, setProblem, busy } = useSending<'recordReorderCall'>(() => onDone(null));
  const [ordering, setOrdering] = useState(false);
  const requestKey = useRef<string | null>(null);
  const order = async (): Promise<void> => {
    if (!prescription || ordering) return;
    // One key for this intention: pressed twice, or sent again after an outage, it is one order.
    requestKey.current ??= crypto.randomUUID();
    setOrdering(true);
    const of = { wearerId: wearer.id, requestKey: requestKey.current, prescriptionId: prescription.id, rightPacks: packs.right, leftPacks: packs.left };
    // What was not pressed is refused by name.
    const done = await command('reorderLenses', {
      ...of,
      noDanger: asked.noDanger as true,
      sightSame: asked.sightSame as true,
      pastExpiryNote,
      deliveryAddress,
      note,
    });
    setOrdering(false);
    if (!done) return;
    setProblem(done.ok ? null : done.error);
    if (!done.ok) return;
    requestKey.current = null;
    onDone(done.value.orderId);
  };
  return {
    ...boxes,
    file: data.file,
    calls: data.calls,
    supplier: data.supplier,
    trials: data.trials,
    deliveryAddress,
    setDeliveryAddress,
    asked,
    setAsked,
    note,
    setNote,
    pastExpiryNote,
    setPastExpiryNote,
    problem,
    busy: busy || ordering,
    order,
    /** The call ended without an order. */
    end: (outcome: Exclude<ReorderOutcome, 'ordered'>, laterOn: string | null) => send('recordReorderCall', { wearerId: wearer.id, outcome, laterOn, note }),
  };
}
export type ReorderPageState = ReturnType<typeof useReorder>;
