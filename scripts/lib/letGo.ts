import type { Worker } from 'node:cluster';

/**
 * Closes, when a process of a cluster ends, the connection that was on its way to it. Node's cluster waits for an answer
 * that a killed process never gives and keeps that one connection open: its browser would wait for minutes instead of trying again.
 */
export function letGoWhenItEnds(worker: Worker): void {
  const { process } = worker;
  let onItsWay: unknown;
  const send = process.send.bind(process) as (...args: readonly unknown[]) => boolean;
  process.send = (message: unknown, handle?: unknown, ...rest: readonly unknown[]) => {
    if (isNewConnection(message)) onItsWay = handle;
    return send(message, handle, ...rest);
  };
  // Closing twice does no harm: one that arrived was closed here already.
  const letGo = (): void => {
    if (isClosable(onItsWay)) onItsWay.close();
  };
  worker.on('exit', letGo);
  // A process that has ended counts as connected for a moment more, and may be handed one more connection meanwhile.
  worker.on('disconnect', letGo);
}

const isNewConnection = (message: unknown): boolean => typeof message === 'object' && message !== null && 'act' in message && message.act === 'newconn';
const isClosable = (handle: unknown): handle is { close(): void } =>
  typeof handle === 'object' && handle !== null && 'close' in handle && typeof handle.close === 'function';
