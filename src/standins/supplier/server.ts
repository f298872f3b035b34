import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { stockOf, type SupplierAnswer, type SupplierLine } from './stock';

/**
 * Failures on demand. `down`: every call answers 503. `slow`: the answer takes `slowMs`. `lostAnswer`: the next
 * order is taken, then the line is cut before the answer. `duplicate`: the answer is sent as if a second order had
 * come in. `backorder`: nothing is on the shelf. `redirect`: it is sent elsewhere.
 */
export type Fault = 'none' | 'down' | 'slow' | 'lostAnswer' | 'duplicate' | 'backorder' | 'redirect' | keyof typeof ODD;

/** Answers that cannot be the answer to the order: of another one, under a name of another one, for a day that is past or years ahead, of no sense or far too long. */
const ODD = {
  otherOrder: { order: 999_999 },
  usedReference: { reference: 'MR-4101' },
  past: { dueOn: '2020-01-01' },
  far: { dueOn: '2040-01-01' },
  nonsense: { reference: 7 },
  long: { reference: 'x'.repeat(20_000) },
} as const;
const isOdd = (fault: Fault): fault is keyof typeof ODD => Object.hasOwn(ODD, fault);

export interface SupplierOptions {
  /** File that outlives a restart; null keeps orders in memory. */
  readonly file: string | null;
  readonly slowMs: number;
  /** The supplier's calendar day. */
  readonly today: () => string;
}

interface Stored {
  readonly key: string;
  readonly lines: readonly SupplierLine[];
  readonly answer: SupplierAnswer;
  /** How often an order with this key came in. */
  seen: number;
}

async function readBody(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) text += String(chunk);
  return text;
}

const send = (response: ServerResponse, status: number, body: unknown): void => {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
};

const plusDays = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

/** A stand-in for a lens supplier: orders by HTTP with an idempotency key, stock, lead times, failures on demand. */
export function supplierServer(options: SupplierOptions): Server {
  const orders = new Map<string, Stored>();
  if (options.file && existsSync(options.file)) {
    for (const order of JSON.parse(readFileSync(options.file, 'utf8')) as Stored[]) orders.set(order.key, order);
  }
  let fault: Fault = 'none';
  let nextReference = 4100 + orders.size;
  const keep = (): void => {
    if (!options.file) return;
    // Whole or not at all: a stand-in that is killed while it writes reads the file as it was.
    writeFileSync(`${options.file}.new`, JSON.stringify([...orders.values()], null, 1));
    renameSync(`${options.file}.new`, options.file);
  };

  const take = (key: string, lines: readonly SupplierLine[]): { order: Stored; isNew: boolean } => {
    const there = orders.get(key);
    if (there) {
      there.seen += 1;
      keep();
      return { order: there, isNew: false };
    }
    const short = fault === 'backorder' || lines.some((line) => stockOf(line).packs < line.packs);
    const lead = Math.max(...lines.map((line) => stockOf(line).leadDays)) + (fault === 'backorder' ? 21 : 0);
    nextReference += 1;
    const order: Stored = {
      key,
      lines,
      seen: 1,
      answer: { reference: `MR-${nextReference}`, state: short ? 'backordered' : 'acknowledged', dueOn: plusDays(options.today(), lead) },
    };
    orders.set(key, order);
    keep();
    return { order, isNew: true };
  };

  const handle = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const { pathname } = new URL(request.url ?? '/', 'http://supplier');
    if (pathname === '/fault' && request.method === 'PUT') {
      fault = (JSON.parse(await readBody(request)) as { fault: Fault }).fault;
      return send(response, 200, { fault });
    }
    if (pathname === '/orders' && request.method === 'GET') return send(response, 200, { orders: [...orders.values()] });
    if (pathname !== '/orders' || request.method !== 'POST') return send(response, 404, { problem: 'no such page' });
    if (fault === 'down') return send(response, 503, { problem: 'closed for maintenance' });
    if (fault === 'slow') await new Promise((resolve) => setTimeout(resolve, options.slowMs));
    const key = request.headers['idempotency-key'];
    const body = JSON.parse(await readBody(request)) as { number?: number; lines?: SupplierLine[] };
    if (typeof key !== 'string' || !Array.isArray(body.lines) || body.lines.length === 0) {
      return send(response, 422, { problem: 'an order needs a key and at least one line' });
    }
    const { order, isNew } = take(key, body.lines);
    if (fault === 'lostAnswer') {
      fault = 'none';
      request.socket.destroy();
      return;
    }
    if (fault === 'redirect') {
      response.writeHead(307, { location: 'http://elsewhere.invalid/orders' });
      response.end();
      return;
    }
    send(response, isNew && fault !== 'duplicate' ? 201 : 200, { order: body.number, ...order.answer, ...(isOdd(fault) ? ODD[fault] : {}) });
  };

  return createServer((request, response) => {
    // What is no order is refused for good; what could not be kept (a full disk, say) is to be sent again.
    handle(request, response).catch((cause: unknown) =>
      cause instanceof SyntaxError ? send(response, 400, { problem: 'not understood' }) : send(response, 503, { problem: 'cannot be kept now' }),
    );
  });
}
