import { createHash, timingSafeEqual } from 'node:crypto'
import { can } from '~~/shared/permissions'
import { notAllowed, Problem } from '../http/problem'
import { whoSignedIn } from '../identity/sign-in'
import { settings } from '../settings'
import { lookAround } from './house'
import { registry } from './registry'

const digest = (text: string) => createHash('sha256').update(text).digest()

/**
 * How Plauder is doing, for an admin or for whatever has the token.
 *
 * @param given who asks: the header `Authorization`, and the token of a sign-in
 * @throws Problem 401 or 403 for others
 */
export async function showMetrics(given: { authorization?: string, signIn?: string }, now: Date): Promise<{ type: string, text: string }> {
  await mustSee(given, now)
  await lookAround(now)
  return { type: registry.contentType, text: await registry.metrics() }
}

async function mustSee({ authorization, signIn }: { authorization?: string, signIn?: string }, now: Date): Promise<void> {
  const token = settings().PLAUDER_METRICS_TOKEN
  if (token && authorization && timingSafeEqual(digest(authorization), digest(`Bearer ${token}`))) return
  const asker = await whoSignedIn(signIn, now)
  if (!asker) throw new Problem(401, 'not-signed-in', 'Please sign in', 'Send “Authorization: Bearer” with the token in PLAUDER_METRICS_TOKEN, or sign in as an admin.')
  if (!can(asker, 'stuck.see', {})) throw notAllowed('see how Plauder is doing; an admin does')
}
