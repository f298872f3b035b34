import { expose } from 'comlink';
import { soFar, type AskedSoFar, type SoFar, type SoFarRoom } from '../core';

let room: SoFarRoom | null = null;

const api = {
  /** Keeps practice and wearer, so that each question is only what was typed. */
  enter(next: SoFarRoom): void {
    room = next;
  },
  /** The best families for what is typed; null before anything was entered. */
  rank: (asked: AskedSoFar): SoFar | null => (room === null ? null : soFar(room, asked)),
};
export type SoFarApi = typeof api;

expose(api);
