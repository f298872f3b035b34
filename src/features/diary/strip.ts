import { MISSED_AFTER_MINUTES, takesPlace } from '@/core';
import { formatTime } from '@/i18n/format';
import type { AppointmentRow } from '@/db/appointment';
import type { DiaryDay } from '@/services/appointment/queries';

export type Row = AppointmentRow;
/** A drag moves in steps of so many minutes. */
export const STEP_MINUTES = 5;
/** Height of one appointment in a room's row, px. */
export const LANE_PX = 56;

/** Minutes from midnight, as the practice's clock shows an instant. */
export function minuteOf(instant: string | number, zone: string): number {
  const [hour = '0', minute = '0'] = formatTime(instant, zone).split(':');
  return Number(hour) * 60 + Number(minute);
}

/** A room's row: its appointments, those that overlap one below the other. */
export interface StripRoom {
  /** Null for appointments without a room. */
  readonly id: string | null;
  readonly name: string | null;
  readonly blocks: readonly StripBlock[];
  readonly lanes: number;
}
export interface StripBlock {
  readonly row: Row;
  readonly from: number;
  readonly lane: number;
}
export interface Strip {
  /** Whole hours, minutes from midnight. */
  readonly from: number;
  readonly to: number;
  readonly rooms: readonly StripRoom[];
}

/** Puts blocks into lanes, so that none covers another. */
function inLanes(rows: readonly Row[], zone: string): Pick<StripRoom, 'blocks' | 'lanes'> {
  const ends: number[] = [];
  const blocks = rows.map((row) => {
    const from = minuteOf(row.startsAt, zone);
    const free = ends.findIndex((end) => end <= from);
    const lane = free < 0 ? ends.length : free;
    ends[lane] = from + row.chairMinutes;
    return { row, from, lane };
  });
  return { blocks, lanes: Math.max(1, ends.length) };
}

/** A day as a strip: every room a row, the hours of the practice across, and whatever lies outside them. What takes no place is left out. */
export function stripOf(day: DiaryDay, zone: string): Strip {
  const rows = day.rows.filter((row) => takesPlace(row.state));
  const starts = rows.map((row) => minuteOf(row.startsAt, zone));
  const ends = rows.map((row, i) => (starts[i] ?? 0) + row.chairMinutes);
  const opening = day.opening ?? { opensMinute: 9 * 60, closesMinute: 17 * 60 };
  const hour = (minute: number, up: boolean): number => Math[up ? 'ceil' : 'floor'](minute / 60) * 60;
  const known = day.rooms.map(({ id, name }) => ({
    id,
    name,
    ...inLanes(
      rows.filter((row) => row.roomId === id),
      zone,
    ),
  }));
  const others = rows.filter((row) => !day.rooms.some((room) => room.id === row.roomId));
  return {
    from: hour(Math.min(opening.opensMinute, ...starts), false),
    to: Math.min(24 * 60, hour(Math.max(opening.closesMinute, ...ends), true)),
    rooms: others.length > 0 ? [...known, { id: null, name: null, ...inLanes(others, zone) }] : known,
  };
}

/** Per cent of the strip's width. */
export const across = (strip: Strip, minute: number): number => ((minute - strip.from) / (strip.to - strip.from)) * 100;

/** Full hours to write above the strip. */
export const hoursOf = (strip: Strip): number[] => Array.from({ length: (strip.to - strip.from) / 60 + 1 }, (_, i) => strip.from + i * 60);

/** Where a block is once it was dragged. */
export interface Dropped {
  readonly roomId: string | null;
  readonly minute: number;
}

/**
 * Where a block lands.
 * @param by pixels that it was dragged
 * @param width the strip's, px
 */
export function droppedAt(strip: Strip, room: StripRoom, block: StripBlock, by: { readonly x: number; readonly y: number }, width: number): Dropped {
  const minutes = Math.round(((by.x / width) * (strip.to - strip.from)) / STEP_MINUTES) * STEP_MINUTES;
  const minute = Math.min(Math.max(0, block.from + minutes), 24 * 60 - STEP_MINUTES);
  const tops = strip.rooms.map((_, i) => strip.rooms.slice(0, i).reduce((sum, r) => sum + r.lanes, 0) * LANE_PX);
  const index = strip.rooms.indexOf(room);
  const middle = (tops[index] ?? 0) + (block.lane + 0.5) * LANE_PX + by.y;
  const found = strip.rooms.findIndex((r, i) => middle < (tops[i] ?? 0) + r.lanes * LANE_PX);
  const target = strip.rooms[found < 0 ? strip.rooms.length - 1 : found];
  // What has a room does not lose it by a drag.
  return { roomId: target?.id ?? room.id, minute };
}

/** How a row may be called a no-show: its time, and what was said of being late, is well past. */
export const mayBeMissed = (row: Row, now: number): boolean => now >= Date.parse(row.startsAt) + (row.lateMinutes + MISSED_AFTER_MINUTES) * 60_000;

/** Room that a strip takes with its ruler, px: kept free while the strip is on its way, so that nothing below it jumps. */
export const stripHeight = ({ rooms }: Strip): number => rooms.reduce((sum, room) => sum + room.lanes, 0) * LANE_PX + 28;
