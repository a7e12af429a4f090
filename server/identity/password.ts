import { hash, verify } from '@node-rs/argon2'

/** Argon2id with OWASP's first recommended parameters (19 MiB, 2 passes; value from memory). */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string) => hash(password, OPTIONS)

/** A hash of nothing anybody types, so that an unknown account takes as long as a known one. */
const decoy = hashPassword('8d1f5a0c-no-such-account')

/** @param stored of nobody, or of whom no password lets in, it is empty */
export async function passwordMatches(stored: string | undefined, password: string): Promise<boolean> {
  const matches = await verify(stored || await decoy, password)
  return !!stored && matches
}
