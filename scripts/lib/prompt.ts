import { createInterface } from 'node:readline';
import { Writable } from 'node:stream';

/** What is wrong with an answer, in words; null when it will do. */
export type Check = (text: string) => string | null;

export interface Prompt {
  /** Asks until the answer passes. */
  readonly ask: (question: string, check: Check) => Promise<string>;
  /** The same, and nobody reads it over a shoulder. */
  readonly askHidden: (question: string, check: Check) => Promise<string>;
  readonly close: () => void;
}

/** Questions on the terminal, or answers line by line from standard input. */
export function openPrompt(): Prompt {
  const { stdin, stdout } = process;
  let hidden = false;
  const output = new Writable({
    write: (chunk: Buffer, _encoding, done) => {
      if (!hidden) stdout.write(chunk);
      done();
    },
  });
  const lines = createInterface({ input: stdin, output, terminal: stdin.isTTY });
  const each = lines[Symbol.asyncIterator]();
  const asked = async (question: string, check: Check, hide: boolean): Promise<string> => {
    for (;;) {
      stdout.write(`${question}: `);
      hidden = hide;
      const next = await each.next();
      hidden = false;
      if (hide || !stdin.isTTY) stdout.write('\n');
      if (next.done) throw new Error(`no answer to “${question}”`);
      const problem = check(next.value.trim());
      if (problem === null) return next.value.trim();
      stdout.write(`  ${problem}\n`);
      if (!stdin.isTTY) throw new Error(`“${question}” was not answered`);
    }
  };
  return {
    ask: (question, check) => asked(question, check, false),
    askHidden: (question, check) => asked(question, check, true),
    close: () => lines.close(),
  };
}

/** A password is never given where everybody on the machine reads it. */
export function refusePasswordArgument(): void {
  if (!process.argv.slice(2).some((arg) => /^--password\b/.test(arg))) return;
  console.error('Keen Fit: a password is never given on the command line. Leave it out: it is asked for, or read from standard input.');
  process.exit(1);
}
