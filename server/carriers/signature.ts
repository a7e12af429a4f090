import { Webhook } from 'standardwebhooks'

/** Checks signatures as the Standard Webhooks specification says: over the raw body, and no older than five minutes. */
export function signatureCheck(secret: string): (rawBody: Buffer, headers: Record<string, string | undefined>) => boolean {
  const webhook = new Webhook(secret)
  return (rawBody, headers) => {
    try {
      webhook.verify(rawBody.toString('utf8'), headers as Record<string, string>)
      return true
    }
    catch {
      return false
    }
  }
}

/** A fetch that failed before anything was sent: the connection itself was refused. */
export function neverConnected(error: unknown): boolean {
  const cause = (error as { cause?: { code?: string } }).cause?.code
  return cause === 'ECONNREFUSED' || cause === 'ENOTFOUND' || cause === 'EHOSTUNREACH'
}
