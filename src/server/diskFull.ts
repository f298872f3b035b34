/** PostgreSQL's code for a disk that is full, and the system's. */
const CODES: readonly unknown[] = ['53100', 'ENOSPC'];

/** Did something fail because there is no room left on the server's disk? @example isDiskFull(Object.assign(new Error(), { code: '53100' })) → true */
export const isDiskFull = (cause: unknown): boolean => cause instanceof Error && CODES.includes((cause as Error & { readonly code?: unknown }).code);
