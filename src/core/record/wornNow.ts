import type { Eye, IsoDate, IsoInstant } from '../units';
import type { WearerFile } from './wearerFile';

/** The facts, strongest evidence first; never mixed. */
export type LensFactKind = 'handedOver' | 'ordered' | 'broughtAlong' | 'prescribed' | 'tried';

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
  readonly at: string;
  readonly number: number | null;
}
export interface Provenance {
  /** Newest of each kind for the eye. */
  readonly nodes: Readonly<Record<LensFactKind, ProvenanceNode | null>>;
  /** What counts as worn now: last handed over, else last ordered, else brought along; null when there is none. */
  readonly worn: ProvenanceNode | null;
}

/**
 * Where one eye's lens comes from. Worn now is the last lens handed over for that eye, else the last ordered one, else
 * what a list brought along from elsewhere:
 * a trial that was only tried, or a lens that was only prescribed, is never copied as the current lens.
 */
export function provenance(file: Pick<WearerFile, 'handOvers' | 'orders' | 'prescriptions' | 'onEye' | 'broughtAlong'>, eye: Eye): Provenance {
  const handed =
    file.handOvers
      .map((c) => c.current)
      .filter((h) => h?.eye === eye)
      .at(-1) ?? null;
  const order = file.orders.find((o) => o.lines.some((l) => l.eye === eye && l.lensId !== null) && !o.events.some((e) => e.state === 'refused'));
  const line = order?.lines.find((l) => l.eye === eye);
  const prescription = file.prescriptions.find((p) => p.eyes.some((e) => e.eye === eye));
  const prescribed = prescription?.eyes.find((e) => e.eye === eye);
  const tried =
    file.onEye
      .map((c) => c.current)
      .filter((o) => o?.eye === eye && o.source === 'trial')
      .sort((a, b) => (a && b ? a.putOnAt.localeCompare(b.putOnAt) : 0))
      .at(-1) ?? null;
  const brought = file.broughtAlong.find((b) => b.eye === eye);
  const nodes = {
    handedOver: handed ? { kind: 'handedOver' as const, lensId: handed.lensId, at: handed.observedAt, number: null } : null,
    ordered: order && line?.lensId ? { kind: 'ordered' as const, lensId: line.lensId, at: order.placedAt, number: order.number } : null,
    broughtAlong: brought ? { kind: 'broughtAlong' as const, lensId: brought.lensId, at: brought.recordedAt, number: null } : null,
    prescribed:
      prescription && prescribed?.lensId
        ? { kind: 'prescribed' as const, lensId: prescribed.lensId, at: prescription.issuedAt, number: prescription.number }
        : null,
    tried: tried?.lensId ? { kind: 'tried' as const, lensId: tried.lensId, at: tried.putOnAt, number: tried.trialNumber } : null,
  };
  return { nodes, worn: nodes.handedOver ?? nodes.ordered ?? nodes.broughtAlong };
}
