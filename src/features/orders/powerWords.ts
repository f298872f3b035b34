import { formatRefraction } from '@/core';
import type { AwaitedLine } from '@/db/orderDesk';

/** Power of a line, with its addition; null where a laboratory works it out. */
export const powerWords = ({ power, add }: Pick<AwaitedLine, 'power' | 'add'>): string | null =>
  power === null ? null : [formatRefraction(power), add].filter(Boolean).join(' ');
