import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { DraftKeeper, holdDrafts, isTyping, type Arrived, type DraftBody } from './draftKeeper';

const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.useFakeTimers();
  vi.stubGlobal('sessionStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => store.set(k, v),
    removeItem: (k: string) => store.delete(k),
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function keeper(save: (body: DraftBody, sequence: number) => Promise<Arrived>, stored: { body: DraftBody; sequence: number } | null = null): DraftKeeper {
  let tick = 100;
  return new DraftKeeper({ key: 'keenfit-draft:v:power:p', stored, save, clock: () => ++tick });
}

describe('a draft', () => {
  it('is in the tab at once and on the server a moment later, once for a burst of keys', async () => {
    const saved: DraftBody[] = [];
    const draft = keeper((body) => (saved.push(body), Promise.resolve<Arrived>('saved')));
    for (const text of ['-', '-3', '-3.2', '-3.25']) draft.set('right', text);
    expect(JSON.parse(store.get('keenfit-draft:v:power:p') ?? '{}')).toMatchObject({ body: { right: '-3.25' } });
    await vi.advanceTimersByTimeAsync(500);
    expect(saved).toEqual([{ right: '-3.25' }]);
    expect(draft.snapshot().state).toBe('saved');
  });
  it('waits while the server is away and goes by itself when it is back', async () => {
    let away = true;
    const draft = keeper(() => Promise.resolve<Arrived>(away ? 'away' : 'saved'));
    const stop = draft.start();
    draft.set('right', '-3');
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.snapshot().state).toBe('waiting');
    away = false;
    await vi.advanceTimersByTimeAsync(3100);
    expect(draft.snapshot().state).toBe('saved');
    stop();
  });
  it('has one save in flight; what is typed meanwhile follows', async () => {
    const flying: ((arrived: Arrived) => void)[] = [];
    const sent: DraftBody[] = [];
    const draft = keeper((body) => (sent.push(body), new Promise((resolve) => flying.push(resolve))));
    draft.set('right', 'a');
    await vi.advanceTimersByTimeAsync(500);
    draft.set('right', 'b');
    await vi.advanceTimersByTimeAsync(500);
    expect(sent).toHaveLength(1);
    flying[0]?.('saved');
    await vi.advanceTimersByTimeAsync(10);
    expect(sent).toEqual([{ right: 'a' }, { right: 'b' }]);
  });
  it('is not sent while something is recorded: what is on its way is waited for, what was typed follows, or is let go', async () => {
    const flying: ((arrived: Arrived) => void)[] = [];
    const sent: DraftBody[] = [];
    const draft = keeper((body) => (sent.push(body), new Promise((resolve) => flying.push(resolve))));
    const stop = draft.start();
    draft.set('right', 'a');
    await vi.advanceTimersByTimeAsync(500);
    draft.set('right', 'b');
    let held = false;
    const holding = holdDrafts().then((release) => {
      held = true;
      return release;
    });
    await vi.advanceTimersByTimeAsync(1000);
    expect([held, sent.length]).toEqual([false, 1]);
    flying[0]?.('saved');
    const release = await holding;
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toHaveLength(1);
    release();
    await vi.advanceTimersByTimeAsync(500);
    expect(sent).toEqual([{ right: 'a' }, { right: 'b' }]);
    flying[1]?.('saved');
    await vi.advanceTimersByTimeAsync(10);
    // Recorded: nothing of it goes out any more.
    draft.set('right', 'c');
    const again = await holdDrafts();
    again();
    draft.clear();
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toHaveLength(2);
    stop();
  });
  it('a server that is away holds up a recording for two seconds at most', async () => {
    const draft = keeper(() => new Promise(() => undefined));
    const stop = draft.start();
    draft.set('right', 'a');
    await vi.advanceTimersByTimeAsync(500);
    let held = false;
    void holdDrafts().then(() => (held = true));
    await vi.advanceTimersByTimeAsync(2100);
    expect(held).toBe(true);
    stop();
  });
  it('takes up what this tab kept when it is newer than the server’s copy, and only then', () => {
    store.set('keenfit-draft:v:power:p', JSON.stringify({ body: { right: 'mine' }, sequence: 50 }));
    const newer = keeper(() => Promise.resolve<Arrived>('saved'), { body: { right: 'old' }, sequence: 10 });
    newer.start()();
    expect(newer.snapshot().body).toEqual({ right: 'mine' });
    store.set('keenfit-draft:v:power:p', JSON.stringify({ body: { right: 'stale' }, sequence: 5 }));
    const older = keeper(() => Promise.resolve<Arrived>('saved'), { body: { right: 'server' }, sequence: 10 });
    older.start()();
    expect(older.snapshot().body).toEqual({ right: 'server' });
  });
  it('once recorded, a save still on its way is followed by an empty one', async () => {
    const flying: ((arrived: Arrived) => void)[] = [];
    const sent: DraftBody[] = [];
    const draft = keeper((body) => (sent.push(body), new Promise((resolve) => flying.push(resolve))));
    draft.set('right', 'a');
    await vi.advanceTimersByTimeAsync(500);
    draft.clear();
    flying[0]?.('saved');
    await vi.advanceTimersByTimeAsync(10);
    flying[1]?.('saved');
    await vi.advanceTimersByTimeAsync(10);
    expect(sent).toEqual([{ right: 'a' }, {}]);
    expect(draft.snapshot()).toEqual({ body: {}, state: 'empty' });
  });
  it('once recorded leaves nothing behind', async () => {
    const draft = keeper(() => Promise.resolve<Arrived>('saved'));
    draft.set('right', '-3');
    draft.clear();
    await vi.advanceTimersByTimeAsync(500);
    expect(store.size).toBe(0);
    expect(draft.snapshot()).toEqual({ body: {}, state: 'empty' });
  });
  it('typed later in another tab: it is not called saved, is not sent again by itself, and stays here', async () => {
    let answer: Arrived = 'older';
    const sent: DraftBody[] = [];
    const draft = keeper((body) => (sent.push(body), Promise.resolve(answer)));
    const stop = draft.start();
    draft.set('right', '-3');
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.snapshot()).toEqual({ body: { right: '-3' }, state: 'elsewhere' });
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toHaveLength(1);
    answer = 'saved';
    draft.set('right', '-3.2');
    await vi.advanceTimersByTimeAsync(500);
    expect(draft.snapshot()).toEqual({ body: { right: '-3.2' }, state: 'saved' });
    stop();
  });
  it('counts as typing while something stands there, and no more once it is recorded, rubbed out or left', () => {
    const draft = keeper(() => Promise.resolve<Arrived>('saved'));
    const stop = draft.start();
    expect(isTyping()).toBe(false);
    draft.set('right', '-1');
    expect(isTyping()).toBe(true);
    draft.set('right', '');
    expect(isTyping()).toBe(false);
    draft.set('right', '-1');
    draft.clear();
    expect(isTyping()).toBe(false);
    draft.set('left', '-1');
    stop();
    expect(isTyping()).toBe(false);
  });
});
