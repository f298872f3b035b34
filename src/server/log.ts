import 'server-only';
import pino from 'pino';
import { safeError } from './safeError';

/** Structured log on standard error. Never a name, a birth date, a power or a password. */
export const log = pino(
  { base: { app: 'keenfit' }, level: process.env.KEENFIT_LOG ?? 'warn', serializers: { err: safeError, cause: safeError } },
  pino.destination(2),
);
