import { EYES, parseAcuity, type AcuityNotation, type AddByAge, type Eye, type RefractionFact } from '@/core';
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

const text = (body: Body, key: Eye | 'rightVa' | 'leftVa'): string => (body[key] ?? '').trim();

/** What would be sent for an eye: typed, or the recorded power again where only its add or its sight is new. */
function powerSent({ body, recorded, age, addByAge }: Typed, e: Eye): string {
  if (text(body, e) !== '') return body[e] ?? '';
  const more = addsTyped(body, age, addByAge).text[e].trim() !== '' || text(body, `${e}Va`) !== '';
  return more ? (recorded[e]?.typedText ?? '') : '';
}

/** What goes with a power that is sent again unchanged: its own add and sight stay, unless typed anew. */
const kept = ({ body, recorded }: Typed, e: Eye): RefractionFact | null => (text(body, e) === '' ? recorded[e] : null);

function addSent(typed: Typed, e: Eye): string | null {
  if (powerSent(typed, e) === '') return null;
  const add = addsTyped(typed.body, typed.age, typed.addByAge).text[e];
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

/** Is anything typed that would be recorded? */
export const anythingTyped = (typed: Typed): boolean => EYES.some((e) => powerSent(typed, e) !== '');

/** The field that cannot be recorded as it stands, by its id; null when all can. */
export function faultyField({ body, notation }: Typed): string | null {
  const va = EYES.find((e) => text(body, `${e}Va`) !== '' && !parseAcuity(text(body, `${e}Va`), notation).ok);
  if (va) return `va-${va}`;
  const power = EYES.find((e) => text(body, e) !== '' && !powerReady(body[e] ?? '', body[`${e}Kept`] ?? null));
  return power ? `power-${power}` : null;
}

/** Both eyes as they are recorded. */
export function refractionToRecord(typed: Typed, vertexMm: number) {
  const adds = addsTyped(typed.body, typed.age, typed.addByAge);
  const source = EYES.map((e) => kept(typed, e)?.addSource).find((s) => s !== null && s !== undefined);
  return {
    right: powerSent(typed, 'right') || null,
    left: powerSent(typed, 'left') || null,
    vertexMm,
    rightAdd: addSent(typed, 'right'),
    leftAdd: addSent(typed, 'left'),
    addSource: EYES.some((e) => adds.text[e].trim() !== '') ? adds.source : (source ?? adds.source),
    rightAcuity: acuitySent(typed, 'right'),
    leftAcuity: acuitySent(typed, 'left'),
  };
}
