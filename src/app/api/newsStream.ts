import type { NextRequest } from 'next/server';
import type { News } from '@/core';
import { database } from '@/server/database';
import { openNewsDesk, type NewsDesk } from '@/server/news';

/** So often a quiet stream says that it is there, and whether it may still be heard, ms. */
const BEAT_MS = 20_000;
/** Streams of one session: one a browser, and one that goes while the next comes. */
const MOST = 3;

const holder = globalThis as typeof globalThis & { keenfitNews?: NewsDesk; keenfitStreams?: Map<string, (() => void)[]> };

/** Lets the oldest stream of a session go where there are too many. */
function admit(session: string, close: () => void): () => void {
  const streams = (holder.keenfitStreams ??= new Map<string, (() => void)[]>());
  const mine = [...(streams.get(session) ?? []), close];
  streams.set(session, mine);
  for (const old of mine.slice(0, -MOST)) old();
  return () => {
    const left = (streams.get(session) ?? []).filter((c) => c !== close);
    if (left.length > 0) streams.set(session, left);
    else streams.delete(session);
  };
}

export interface Listening {
  readonly practiceId: string;
  /** Whose streams are counted together. */
  readonly session: string;
  /** What is heard. */
  readonly wants: (news: News) => boolean;
  /** May it still be heard? */
  readonly still: () => Promise<boolean>;
}

/** What changes in a practice, as it changes: ids and versions. */
export function newsStream(request: NextRequest, { practiceId, session, wants, still }: Listening): Response {
  const desk = (holder.keenfitNews ??= openNewsDesk(database()));
  const text = new TextEncoder();
  let stop: () => void = () => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string): void => controller.enqueue(text.encode(line));
      const deaf = desk.hear(practiceId, (news) => {
        if (news === null) send('event: look\ndata: \n\n');
        else if (wants(news)) send(`data: ${JSON.stringify(news)}\n\n`);
      });
      const beat = setInterval(() => {
        still().then(
          (yes) => (yes ? send(': \n\n') : stop()),
          () => stop(),
        );
      }, BEAT_MS);
      const leave = admit(session, () => stop());
      stop = () => {
        stop = () => undefined;
        clearInterval(beat);
        deaf();
        leave();
        controller.close();
      };
      request.signal.addEventListener('abort', () => stop());
      send('retry: 3000\n\n');
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    // Anything between that gathers or packs what is sent would hold it back.
    headers: { 'content-type': 'text/event-stream; charset=utf-8', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' },
  });
}
