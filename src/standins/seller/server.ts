import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';

/** A lens as a seller asks for it. */
export interface SellerLens {
  readonly power: string;
  readonly lensName: string;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
  readonly boxes: number;
}
/** A request as the seller's system hands it out; documented in docs/sellers-requests.md. */
export interface SellerDocument {
  readonly id: string;
  readonly seller: { readonly name: string; readonly contact: string };
  readonly wearer: { readonly name: string; readonly address: string };
  readonly askedOn: string | null;
  readonly right: SellerLens | null;
  readonly left: SellerLens | null;
}

/** Failures on demand. `down`: 503. `lostAnswer`: the next answer is taken, then the line is cut. `nonsense`: what is handed out is none. */
export type SellerFault = 'none' | 'down' | 'lostAnswer' | 'nonsense';

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  let text = '';
  for await (const chunk of request) text += String(chunk);
  return JSON.parse(text) as unknown;
}
const send = (response: ServerResponse, status: number, body: unknown): void => {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
};

/**
 * A stand-in for a seller of lenses: hands out requests in the order in which it made them, takes answers under their identity.
 * @param first requests that it has from the start
 */
export function sellerServer(first: readonly SellerDocument[] = []): Server {
  const requests: SellerDocument[] = [...first];
  const answers = new Map<string, { readonly body: unknown; seen: number }>();
  let fault: SellerFault = 'none';

  const handle = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://seller');
    const what = `${request.method ?? ''} ${pathname}`;
    if (what === 'PUT /fault') {
      fault = ((await bodyOf(request)) as { fault: SellerFault }).fault;
      return send(response, 200, { fault });
    }
    if (what === 'POST /requests') {
      requests.push((await bodyOf(request)) as SellerDocument);
      return send(response, 201, { count: requests.length });
    }
    if (what === 'GET /answers') return send(response, 200, { answers: [...answers].map(([id, a]) => ({ id, ...a })) });
    if (fault === 'down') return send(response, 503, { problem: 'closed' });
    if (what === 'GET /requests') {
      if (fault === 'nonsense') return send(response, 200, { requests: [{ id: 7, wearer: null }, 'x'], next: 'soon' });
      const after = Number(searchParams.get('after') ?? '0');
      return send(response, 200, { requests: requests.slice(after), next: requests.length });
    }
    if (what !== 'POST /answers') return send(response, 404, { problem: 'no such page' });
    const key = request.headers['idempotency-key'];
    if (typeof key !== 'string') return send(response, 422, { problem: 'an answer needs its key' });
    const known = answers.get(key);
    if (known) known.seen += 1;
    else answers.set(key, { body: await bodyOf(request), seen: 1 });
    if (fault === 'lostAnswer') {
      fault = 'none';
      request.socket.destroy();
      return;
    }
    send(response, known ? 200 : 201, { taken: true });
  };

  return createServer((request, response) => {
    handle(request, response).catch(() => send(response, 400, { problem: 'not understood' }));
  });
}
