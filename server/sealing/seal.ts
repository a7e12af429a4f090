import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { settings } from '../settings'

/** AES-256-GCM (NIST SP 800-38D): a nonce of 96 bits, and a tag that says whether it was changed. */
const [CIPHER, NONCE_BYTES, TAG_BYTES] = ['aes-256-gcm', 12, 16] as const

/** The key, or null where none is set: then nothing can be kept that nobody may read. */
function key(): Buffer | null {
  const { PLAUDER_SEAL_KEY } = settings()
  return PLAUDER_SEAL_KEY ? Buffer.from(PLAUDER_SEAL_KEY, 'base64') : null
}

export const canSeal = (): boolean => key() !== null

/**
 * Seals something that is kept: it can be read only with a key that is in no backup of the database.
 *
 * @param owner to whom it belongs; elsewhere it cannot be opened
 * @throws Error where no key is set
 */
export function seal(secret: string, owner: string): string {
  const nonce = randomBytes(NONCE_BYTES)
  const cipher = createCipheriv(CIPHER, mustHaveKey(), nonce).setAAD(Buffer.from(owner))
  const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64')
}

/** @returns null where it was sealed with another key, for another owner, or has been changed */
export function unseal(sealed: string, owner: string): string | null {
  const octets = Buffer.from(sealed, 'base64')
  const [nonce, tag] = [octets.subarray(0, NONCE_BYTES), octets.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES)]
  try {
    const decipher = createDecipheriv(CIPHER, mustHaveKey(), nonce).setAAD(Buffer.from(owner)).setAuthTag(tag)
    return Buffer.concat([decipher.update(octets.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8')
  }
  catch {
    return null
  }
}

function mustHaveKey(): Buffer {
  const found = key()
  if (!found) throw new Error('PLAUDER_SEAL_KEY is not set.')
  return found
}
