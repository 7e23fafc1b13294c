/** Passwords by Argon2id: memory-hard, its parameters stored with the hash. */
import { hash, verify } from '@node-rs/argon2';

/** OWASP's minimum for Argon2id: 19 MiB, two passes, one lane (from memory). */
const COST = { memoryCost: 19456, timeCost: 2, parallelism: 1 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, COST);
export const passwordFits = (stored: string, password: string): Promise<boolean> => verify(stored, password);

/** What a wrong handle is checked against, so that it takes as long as a wrong password. */
export const DECOY_HASH = hashPassword('no such person');
