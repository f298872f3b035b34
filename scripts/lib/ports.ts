import { createServer } from 'node:net';

/** A loopback port that is free now. */
export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      server.close(() => resolve(port));
    });
  });
}

/** `preferred` when it is free, else any. */
export function portNear(preferred: number): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer();
    server.on('error', () => resolve(freePort()));
    server.listen(preferred, '127.0.0.1', () => server.close(() => resolve(preferred)));
  });
}
