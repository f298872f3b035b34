import { forget, keep, readKept } from './drafts';

/** `elsewhere`: the same person has typed later in another tab; this text is kept here and stands in for nothing. */
export type DraftState = 'empty' | 'saving' | 'saved' | 'waiting' | 'elsewhere';
export type Arrived = 'saved' | 'away' | 'older';
export type DraftBody = Readonly<Record<string, string>>;
export interface DraftSnapshot {
  readonly body: DraftBody;
  readonly state: DraftState;
}
export interface DraftKeeperOptions {
  readonly key: string;
  /** What the server had when the page was made. */
  readonly stored: { readonly body: DraftBody; readonly sequence: number } | null;
  /** Sends one version: saved, not arrived, or older than what the server has. */
  readonly save: (body: DraftBody, sequence: number) => Promise<Arrived>;
  readonly clock: () => number;
}

const SAVE_AFTER_MS = 400;
const RETRY_MS = 3000;
/** Longest that a recording waits for a save on its way: a server that is away is found by the recording itself. */
const HOLD_MS = 2000;

/** Keepers of this page. */
const KEEPERS = new Set<DraftKeeper>();

/**
 * Lets no draft be sent while something is recorded, and waits for what is on its way: a save that arrives behind the record
 * would bring the draft back, and the page may be left before it can be taken back.
 * @returns a function that lets saving go on
 */
export async function holdDrafts(): Promise<() => void> {
  const held = [...KEEPERS];
  const flights = held.map((keeper) => keeper.hold());
  await Promise.race([Promise.all(flights), new Promise((resolve) => setTimeout(resolve, HOLD_MS))]);
  return () => {
    for (const keeper of held) keeper.release();
  };
}

/** Is something typed on this page that is not recorded? */
export const isTyping = (): boolean => [...KEEPERS].some((keeper) => Object.keys(keeper.snapshot().body).length > 0);

/**
 * Keeps one draft: at once in the tab, a moment later on the server, one save in flight at a time, last version wins.
 * While the server is away the newest version waits and is tried again.
 */
export class DraftKeeper {
  private current: DraftSnapshot;
  private readonly first: DraftSnapshot;
  private pending: { readonly body: DraftBody; readonly sequence: number } | null = null;
  private flying = false;
  private flight: Promise<void> = Promise.resolve();
  private holds = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();

  constructor(private readonly options: DraftKeeperOptions) {
    this.current = options.stored ? { body: options.stored.body, state: 'saved' } : { body: {}, state: 'empty' };
    this.first = this.current;
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): DraftSnapshot => this.current;
  /** What the server rendered. */
  readonly firstSnapshot = (): DraftSnapshot => this.first;

  /** Takes up what this tab kept and was never sent; retries until stopped. */
  readonly start = (): (() => void) => {
    const kept = readKept(this.options.key);
    if (kept && kept.sequence > (this.options.stored?.sequence ?? 0)) this.push(kept.body);
    KEEPERS.add(this);
    const retry = setInterval(() => void this.flush(), RETRY_MS);
    return () => {
      KEEPERS.delete(this);
      clearInterval(retry);
    };
  };

  /** Sends nothing until released; resolves when what is on its way has arrived. */
  readonly hold = (): Promise<void> => {
    this.holds += 1;
    return this.flight;
  };
  readonly release = (): void => {
    this.holds -= 1;
    if (this.pending && this.holds === 0) this.soon();
  };

  readonly set = (name: string, value: string): void => {
    const { [name]: _old, ...rest } = this.current.body;
    this.push(value === '' ? rest : { ...rest, [name]: value });
  };

  /** Lets go: what was typed is recorded. */
  readonly clear = (): void => {
    if (this.timer) clearTimeout(this.timer);
    // A save that is on its way would bring the draft back behind the record: an empty one follows it.
    this.pending = this.flying ? { body: {}, sequence: this.options.clock() } : null;
    forget(this.options.key);
    this.show({ body: {}, state: 'empty' });
  };

  private push(body: DraftBody): void {
    this.pending = { body, sequence: this.options.clock() };
    if (Object.keys(body).length === 0) forget(this.options.key);
    else keep(this.options.key, this.pending);
    this.show({ ...this.current, body });
    this.soon();
  }

  private soon(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), SAVE_AFTER_MS);
  }

  private async flush(): Promise<void> {
    if (this.flying || this.holds > 0 || !this.pending) return;
    this.flight = this.send(this.pending);
    await this.flight;
  }

  private async send(sent: { readonly body: DraftBody; readonly sequence: number }): Promise<void> {
    this.flying = true;
    this.show({ ...this.current, state: 'saving' });
    const arrived = await this.options.save(sent.body, sent.sequence);
    this.flying = false;
    if (arrived === 'older') {
      // Not tried again by itself: the next key typed here makes this the newest.
      if (this.pending === sent) this.pending = null;
      this.show({ ...this.current, state: 'elsewhere' });
    } else if (arrived === 'away') {
      if (this.pending) this.show({ ...this.current, state: 'waiting' });
    } else if (this.pending === sent) {
      this.pending = null;
      this.show({ ...this.current, state: Object.keys(sent.body).length === 0 ? 'empty' : 'saved' });
    } else void this.flush();
  }

  private show(next: DraftSnapshot): void {
    this.current = next;
    for (const listener of this.listeners) listener();
  }
}
