import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { createServer, type Server } from 'node:https';
import { networkInterfaces } from 'node:os';
import { generate } from 'selfsigned';

/** This machine's addresses on its networks. */
export const lanAddresses = (): string[] =>
  Object.values(networkInterfaces()).flatMap((list) => (list ?? []).filter((a) => a.family === 'IPv4' && !a.internal).map((a) => a.address));

interface Certificate {
  readonly private: string;
  readonly cert: string;
}

async function certificate(file: string): Promise<Certificate> {
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as Certificate;
  const names = [{ type: 2 as const, value: 'localhost' }, ...lanAddresses().map((ip) => ({ type: 7 as const, ip }))];
  const made = await generate([{ name: 'commonName', value: 'Keen Fit demo' }], { keySize: 2048, extensions: [{ name: 'subjectAltName', altNames: names }] });
  writeFileSync(file, JSON.stringify({ private: made.private, cert: made.cert }), { mode: 0o600 });
  return made;
}

/** Https on every network of this machine in front of the web server: tablets need it for secure cookies. */
export async function startLanProxy(targetPort: number, port: number, certificateFile: string): Promise<Server> {
  const made = await certificate(certificateFile);
  const server = createServer({ key: made.private, cert: made.cert }, (incoming, outgoing) => {
    const headers = { ...incoming.headers, 'x-forwarded-for': incoming.socket.remoteAddress ?? '', 'x-forwarded-proto': 'https' };
    const onward = request({ host: '127.0.0.1', port: targetPort, method: incoming.method, path: incoming.url, headers }, (answer) => {
      outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(outgoing);
    });
    onward.on('error', () => {
      outgoing.writeHead(502);
      outgoing.end();
    });
    incoming.pipe(onward);
  });
  await new Promise<void>((resolve, reject) => {
    server.on('error', reject);
    server.listen(port, '0.0.0.0', resolve);
  });
  return server;
}
