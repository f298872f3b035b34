import { secondsBetween } from '../calendar/dates';
import type { IsoInstant } from '../units';

/** What happened to a diagnostic lens: each as it was recorded. */
export interface DiagnosticLensPast {
  /** Puttings-on, oldest first; `offAt` null while it is on. */
  readonly uses: readonly { readonly onAt: IsoInstant; readonly offAt: IsoInstant | null }[];
  /** Disinfections by the set's own instructions, oldest first. */
  readonly disinfections: readonly { readonly beganAt: IsoInstant; readonly endsAt: IsoInstant }[];
  /** When it was taken out of the set for good; null while it belongs to it. */
  readonly endedAt: IsoInstant | null;
}

/**
 * How a diagnostic lens stands: `new` was never on an eye, `ready` was disinfected since, `onEye` is on somebody, `used` waits to be
 * disinfected, `soaking` is being disinfected until `until`, `ended` is out of its set. Only `new` and `ready` may go on an eye.
 */
export type Readiness =
  { readonly state: 'new' | 'ready' | 'onEye' | 'used' | 'ended'; readonly until: null } | { readonly state: 'soaking'; readonly until: IsoInstant };

/**
 * How a diagnostic lens stands at a moment. A disinfection counts only if it began after the lens was last taken off an eye.
 * @example readinessOf({uses: [], disinfections: [], endedAt: null}, '2026-11-24T10:00:00Z').state → 'new'
 * @source a lens that was on somebody goes on nobody until it was disinfected by its set's instructions: common practice
 */
export function readinessOf({ uses, disinfections, endedAt }: DiagnosticLensPast, now: IsoInstant): Readiness {
  if (endedAt !== null && isBy(endedAt, now)) return { state: 'ended', until: null };
  const last = uses.at(-1);
  if (!last) return { state: 'new', until: null };
  const { offAt } = last;
  if (offAt === null) return { state: 'onEye', until: null };
  const since = disinfections.filter((d) => isBy(offAt, d.beganAt)).at(-1);
  if (!since) return { state: 'used', until: null };
  return isBy(since.endsAt, now) ? { state: 'ready', until: null } : { state: 'soaking', until: since.endsAt };
}
const isBy = (moment: IsoInstant, other: IsoInstant): boolean => secondsBetween(moment, other) >= 0;
/** May it go on an eye now? @example mayGoOn({state: 'used', until: null}) → false */
export const mayGoOn = ({ state }: Readiness): boolean => state === 'new' || state === 'ready';

/** Why a lens leaves its set for good. */
export const SET_LENS_ENDS = ['damaged', 'lost', 'expired', 'wornHome'] as const;
export type SetLensEnd = (typeof SET_LENS_ENDS)[number];
