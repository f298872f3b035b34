import { NextResponse, type NextRequest } from 'next/server';
import { database } from '@/server/database';
import { openNewsDesk, type NewsDesk } from '@/server/news';
import { hashToken } from '@/server/token';
import { resume } from '@/services/session/access';
import { deps, sessionToken } from '../../access';

/** So often a quiet stream says that it is there, and whether its session still stands, ms. */
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

/** What changes in the practice, as it changes: ids and versions. Listening is no sign of life, and ends with the session. */
export async function GET(request: NextRequest): Promise<Response> {
  const token = await sessionToken();
  const caller = await resume(deps(), token, false);
  if (!caller.ok || token === undefined) return new NextResponse(null, { status: 401, headers: { 'cache-control': 'no-store' } });
  const desk = (holder.keenfitNews ??= openNewsDesk(database()));
  const text = new TextEncoder();
  let stop: () => void = () => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string): void => controller.enqueue(text.encode(line));
      const deaf = desk.hear(caller.value.practiceId, (news) => send(news ? `data: ${JSON.stringify(news)}\n\n` : 'event: look\ndata: \n\n'));
      const beat = setInterval(() => {
        resume(deps(), token, false).then(
          (still) => (still.ok ? send(': \n\n') : stop()),
          () => stop(),
        );
      }, BEAT_MS);
      const leave = admit(hashToken(token), () => stop());
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
