import { FIT_WORDS, parseAcuity, type Eye, type PracticeSettings, type ReadOn } from '@/core';
import { powerReady } from '../../../common/PowerField';
import type { DraftOf } from '../../shell/draftKeys';
import { controlOf, hasReading, plusHalfOf, testedOf, typedFindings, type LiveEye } from './model';
import { problemOf } from './TurnControls';

type Notation = PracticeSettings['acuity'];
type Body = DraftOf<'onEye'>;

/** The field of an eye that cannot be recorded as it stands, by its id; null when all can. */
export function faultyField(body: Body, eye: Eye, on: ReadOn | null, notation: Notation): string | null {
  const over = body[eye] ?? '';
  const va = body[`${eye}OverVa`] ?? '';
  if (problemOf(body[`${eye}Turn`] ?? '', on)) return `turn-${eye}`;
  if (over.trim() !== '' && !powerReady(over, body[`${eye}Kept`] ?? null)) return `over-${eye}`;
  if (va.trim() !== '' && !parseAcuity(va, notation).ok) return `over-va-${eye}`;
  const unread = typedFindings(body, eye, notation).find((f) => f.value === null);
  return unread ? `finding-${eye}-${unread.sign}` : null;
}

/** What of an eye is recorded; null where nothing was typed, or no lens is on it. */
export function readingOf(body: Body, eye: Eye, live: LiveEye, { vertexMm, notation }: { readonly vertexMm: number; readonly notation: Notation }) {
  const { onEye } = live.state;
  if (!onEye || !hasReading(body, eye)) return null;
  const over = body[eye] ?? '';
  const va = parseAcuity(body[`${eye}OverVa`] ?? '', notation);
  return {
    lensOnEyeId: onEye.rootId,
    fit: FIT_WORDS.find((f) => f === body[`${eye}Fit`]) ?? null,
    findings: typedFindings(body, eye, notation).flatMap((f) =>
      f.value === null ? [] : [{ sign: f.sign, value: f.value, typed: typeof f.value === 'number' ? f.text.trim() : null }],
    ),
    blinks: [...live.logged, ...(live.pending ? [live.pending] : [])],
    continues: live.continues,
    overRefraction: over.trim() === '' ? null : over,
    overAcuity: over.trim() !== '' && va.ok ? { logMar: va.value, typed: (body[`${eye}OverVa`] ?? '').trim() } : null,
    cylinderTested: testedOf(body, eye),
    plusHalf: plusHalfOf(body, eye),
    control: controlOf(body, eye),
    vertexMm,
    sureOfLens: body[`${eye}Sure`] === 'yes',
  };
}
