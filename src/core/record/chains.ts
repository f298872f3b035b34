/** What every appended fact carries. */
export interface Appended {
  readonly id: string;
  /** First row of its chain of corrections. */
  readonly rootId: string;
  readonly correctsId: string | null;
  readonly voided: boolean;
}

/** One fact with everything it once said. */
export interface FactChain<Row extends Appended> {
  readonly rootId: string;
  /** Oldest first; every row but the last was corrected. */
  readonly rows: readonly Row[];
  /** What holds now; null when the fact was taken back. */
  readonly current: Row | null;
}

/**
 * Gathers appended rows into chains of corrections, in the order in which the chains began.
 * @param rows in any order; a chain is followed by `correctsId`, never by time
 * @example chains([{id: 'a', rootId: 'a', correctsId: null, voided: false}])[0].current.id → 'a'
 * @source a fact is corrected once, so that each chain is a line: the schema's unique `corrects_id`
 */
export function chains<Row extends Appended>(rows: readonly Row[]): FactChain<Row>[] {
  const followers = new Map<string, Row>();
  for (const row of rows) if (row.correctsId !== null) followers.set(row.correctsId, row);
  return rows
    .filter((row) => row.correctsId === null)
    .map((root) => {
      const line = [root];
      for (let next = followers.get(root.id); next; next = followers.get(next.id)) line.push(next);
      const last = line[line.length - 1] ?? root;
      return { rootId: root.rootId, rows: line, current: last.voided ? null : last };
    });
}

/** The chain that holds now and began last, of those that pass; null when there is none. */
export function latest<Row extends Appended>(
  all: readonly FactChain<Row>[],
  passes: (row: Row) => boolean,
): (FactChain<Row> & { readonly current: Row }) | null {
  for (let i = all.length - 1; i >= 0; i--) {
    const chain = all[i];
    if (chain?.current && passes(chain.current)) return { ...chain, current: chain.current };
  }
  return null;
}
