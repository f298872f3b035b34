/** Calls back once when nobody reads any more what is printed (`… | head`): what was started is then stopped, as Ctrl-C would. */
export function whenNobodyReads(then: () => void): void {
  let told = false;
  for (const output of [process.stdout, process.stderr]) {
    output.on('error', (cause: NodeJS.ErrnoException) => {
      if (cause.code !== 'EPIPE') throw cause;
      if (!told) then();
      told = true;
    });
  }
}
