import { formatRefraction, type TimelineEntry } from '@/core';

/** What a line of the timeline holds, column by column: read as what it should be, and as nothing where it is not. */
export type Data = TimelineEntry['data'];
export const text = (value: unknown): string => (typeof value === 'string' ? value : typeof value === 'number' ? String(value) : '');
export const list = (value: unknown): readonly string[] => (Array.isArray(value) ? value.filter((v): v is string => typeof v === 'string') : []);
export const numeric = (value: unknown): number => Number(value ?? 0);
export const powerOf = (d: Data): string => formatRefraction({ sphere: numeric(d['sphereD']), cylinder: numeric(d['cylinderD']), axis: numeric(d['axisDeg']) });
/** Both, where both are said. */
export const joined = (...parts: readonly string[]): string => parts.filter((part) => part !== '').join(', ');
