import { readdirSync, readFileSync } from 'node:fs';

const read = (path: string): string => {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return '';
  }
};
const pids = (): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number);
const commandOf = (pid: number): string => read(`/proc/${pid}/cmdline`).replaceAll('\0', ' ');
const parentOf = (pid: number): number => Number(/^\S+ \(.*\) \S (\d+)/s.exec(read(`/proc/${pid}/stat`))?.[1] ?? -1);

/** The running process whose command line holds some words; arguments are parted by one space. */
export const findProcess = (words: string): number | undefined => pids().find((pid) => commandOf(pid).includes(words));
/** Processes that another started, whose command line holds some words. */
export const childrenOf = (parent: number, words: string): number[] => pids().filter((pid) => parentOf(pid) === parent && commandOf(pid).includes(words));
