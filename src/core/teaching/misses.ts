import type { Move } from './lessonGate';

interface MissKind {
  readonly id: string;
  readonly moves: readonly Move[];
}
/**
 * Why an attempt did not work, in the order of their keys. Each has its own coaching, which is words and a drawing of the screen.
 * @source common practice
 */
const KINDS = [
  { id: 'fingerWet', moves: ['on'] },
  { id: 'folded', moves: ['on'] },
  { id: 'tooFarOnPad', moves: ['on'] },
  { id: 'lidSlipped', moves: ['on', 'off'] },
  { id: 'blinked', moves: ['on', 'off'] },
  { id: 'hardFirstBlink', moves: ['on'] },
  { id: 'lashes', moves: ['on'] },
  { id: 'notOnWhite', moves: ['off'] },
  { id: 'tooDry', moves: ['off'] },
  { id: 'nails', moves: ['off'] },
  { id: 'slidAway', moves: ['off'] },
  { id: 'fell', moves: ['on', 'off'] },
] as const satisfies readonly MissKind[];
export type Miss = (typeof KINDS)[number]['id'];
export const MISSES: readonly Miss[] = KINDS.map((m) => m.id);

/**
 * The misses of one move, in the order of their keys.
 * @example missesOf('off').includes('fingerWet') → false
 */
export const missesOf = (move: Move): readonly Miss[] => KINDS.filter((m: MissKind) => m.moves.includes(move)).map((m) => m.id);
