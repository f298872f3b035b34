import {
  EYES,
  LIMITS,
  onStep,
  parseAcuity,
  parseNearAcuity,
  USUAL_NEAR_CM,
  withinLimit,
  type AcuityNotation,
  type AddByAge,
  type Eye,
  type RefractionFact,
} from '@/core';
import { powerReady } from '../../../common/PowerField';
import type { DraftOf } from '../../shell/draftKeys';
import { addsTyped } from './model';

type Body = DraftOf<'refraction'>;
type Recorded = Readonly<Record<Eye, RefractionFact | null>>;

/** What the sheet holds of both eyes: typed, and recorded before. */
export interface Typed {
  readonly body: Body;
  readonly recorded: Recorded;
  readonly age: number;
  readonly addByAge: AddByAge;
  readonly notation: AcuityNotation;
}

const text = (body: Body, key: Eye | `${Eye}${'Va' | 'NearVa' | 'Add'}`): string => (body[key] ?? '').trim();

/** The near distance as it stands: typed, else as it was recorded, else the usual one. */
export const nearCmText = ({ body, recorded }: Pick<Typed, 'body' | 'recorded'>): string =>
  body.nearCm ?? String(EYES.map((e) => recorded[e]?.nearCm).find((cm) => cm != null) ?? USUAL_NEAR_CM);

/** What stands for a distance, cm; null where it is none that near is tested at. */
export function nearCmOf(typed: string): number | null {
  const cm = Number(typed.trim());
  return typed.trim() !== '' && withinLimit(cm, LIMITS.nearCm) && onStep(cm, LIMITS.nearCm) ? cm : null;
}

/** Is something typed that was found at a distance? */
export const foundNear = (body: Body): boolean =>
  body.addFromAge === 'yes' || EYES.some((e) => text(body, `${e}Add`) !== '' || text(body, `${e}NearVa`) !== '');

/** What is wrong with a near distance; null when nothing is. @param asked something was found at it */
export function nearCmProblem(typed: string, asked: boolean): 'addWithoutDistance' | 'nearCmOutOfRange' | null {
  if (typed.trim() === '') return asked ? 'addWithoutDistance' : null;
  return nearCmOf(typed) === null ? 'nearCmOutOfRange' : null;
}

/** What would be sent for an eye: typed, or the recorded power again where only its add or its sight is new. */
function powerSent({ body, recorded, age, addByAge }: Typed, e: Eye): string {
  if (text(body, e) !== '') return body[e] ?? '';
  const added = addsTyped(body, age, addByAge, nearCmOf(nearCmText({ body, recorded }))).text[e].trim() !== '';
  const nearElsewhere = body.nearCm !== undefined && (recorded[e]?.addD ?? null) !== null && Number(body.nearCm) !== recorded[e]?.nearCm;
  const more = added || nearElsewhere || text(body, `${e}Va`) !== '' || text(body, `${e}NearVa`) !== '';
  return more ? (recorded[e]?.typedText ?? '') : '';
}

/** What goes with a power that is sent again unchanged: its own add and sight stay, unless typed anew. */
const kept = ({ body, recorded }: Typed, e: Eye): RefractionFact | null => (text(body, e) === '' ? recorded[e] : null);

function addSent(typed: Typed, e: Eye): string | null {
  if (powerSent(typed, e) === '') return null;
  const add = addsTyped(typed.body, typed.age, typed.addByAge, nearCmOf(nearCmText(typed))).text[e];
  const before = kept(typed, e)?.addD ?? null;
  return add.trim() !== '' ? add : before === null ? null : `+${before.toFixed(2)}`;
}

function acuitySent(typed: Typed, e: Eye): { readonly logMar: number; readonly typed: string } | null {
  if (powerSent(typed, e) === '') return null;
  const va = text(typed.body, `${e}Va`);
  const read = parseAcuity(va, typed.notation);
  if (read.ok) return { logMar: read.value, typed: va };
  const before = kept(typed, e);
  return before && before.acuityLogMar !== null && before.acuityTyped !== null ? { logMar: before.acuityLogMar, typed: before.acuityTyped } : null;
}

function nearSent(typed: Typed, e: Eye): string | null {
  if (powerSent(typed, e) === '') return null;
  return text(typed.body, `${e}NearVa`) || (kept(typed, e)?.nearAcuityTyped ?? null);
}

/** Is anything typed that would be recorded? */
export const anythingTyped = (typed: Typed): boolean => EYES.some((e) => powerSent(typed, e) !== '');

/** The field that cannot be recorded as it stands, by its id; null when all can. */
export function faultyField({ body, recorded, notation }: Typed): string | null {
  const typedCm = nearCmText({ body, recorded });
  const cm = nearCmOf(typedCm);
  if (nearCmProblem(typedCm, foundNear(body)) !== null) return 'near-cm';
  const near = EYES.find((e) => text(body, `${e}NearVa`) !== '' && cm !== null && !parseNearAcuity(text(body, `${e}NearVa`), cm).ok);
  if (near) return `near-va-${near}`;
  const va = EYES.find((e) => text(body, `${e}Va`) !== '' && !parseAcuity(text(body, `${e}Va`), notation).ok);
  if (va) return `va-${va}`;
  const power = EYES.find((e) => text(body, e) !== '' && !powerReady(body[e] ?? '', body[`${e}Kept`] ?? null));
  return power ? `power-${power}` : null;
}

/** Both eyes as they are recorded. */
export function refractionToRecord(typed: Typed, vertexMm: number) {
  const cm = nearCmText(typed);
  const adds = addsTyped(typed.body, typed.age, typed.addByAge, nearCmOf(cm));
  const source = EYES.map((e) => kept(typed, e)?.addSource).find((s) => s !== null && s !== undefined);
  const near = { right: nearSent(typed, 'right'), left: nearSent(typed, 'left') };
  const added = { right: addSent(typed, 'right'), left: addSent(typed, 'left') };
  const atDistance = EYES.some((e) => near[e] !== null || added[e] !== null);
  return {
    right: powerSent(typed, 'right') || null,
    left: powerSent(typed, 'left') || null,
    vertexMm,
    rightAdd: added.right,
    leftAdd: added.left,
    nearCm: atDistance ? nearCmOf(cm) : null,
    rightNear: near.right,
    leftNear: near.left,
    addSource: EYES.some((e) => adds.text[e].trim() !== '') ? adds.source : (source ?? adds.source),
    rightAcuity: acuitySent(typed, 'right'),
    leftAcuity: acuitySent(typed, 'left'),
  };
}
