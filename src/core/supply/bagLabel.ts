import type { Eye } from '../units';

const LETTER: Readonly<Record<Eye, string>> = { right: 'R', left: 'L' };
const SHAPE = /^KFB1\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})\/([RL])$/;

/** What the label of a bag names: the boxes of one receipt, and their eye. */
export interface BagLabel {
  readonly receiptId: string;
  readonly eye: Eye;
}

/**
 * The text of a bag label's code: which boxes, and of which eye; nobody's name.
 * @example bagCode({receiptId: '2f1c9a60-6f43-4f0e-9f6c-0a6f3f6f2b11', eye: 'right'}) → 'KFB1/2f1c9a60-6f43-4f0e-9f6c-0a6f3f6f2b11/R'
 */
export const bagCode = ({ receiptId, eye }: BagLabel): string => `KFB1/${receiptId}/${LETTER[eye]}`;

/** Reads the code of a bag label; null where it is none. @example readBagCode('hello') → null */
export function readBagCode(text: string): BagLabel | null {
  const found = SHAPE.exec(text.trim());
  return found?.[1] ? { receiptId: found[1], eye: found[2] === 'R' ? 'right' : 'left' } : null;
}
