import 'server-only';
import { hash, verify } from '@node-rs/argon2';

// Algorithm 2 is argon2id; the package exports it as a const enum, which isolated modules cannot read.
const OPTIONS = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** argon2id hash of a password. */
export const hashPassword = (password: string): Promise<string> => hash(password, OPTIONS);

/** True when the password fits the hash. */
export const checkPassword = (stored: string, password: string): Promise<boolean> => verify(stored, password).catch(() => false);
