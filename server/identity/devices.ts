import { and, eq, sql } from 'drizzle-orm'
import { read, tx } from '../db/door'
import { colleague, knownDevice } from '../db/schema'

/** Of one colleague, the ones used last; more is a script. */
const MOST_KNOWN = 20

/** Whether somebody was signed in to this account in this browser before. */
export async function isKnownFor(deviceHash: string, account: string): Promise<boolean> {
  const found = await read(database =>
    database
      .select({ usedAt: knownDevice.usedAt })
      .from(knownDevice)
      .innerJoin(colleague, eq(colleague.id, knownDevice.colleagueId))
      .where(and(eq(knownDevice.tokenHash, deviceHash), eq(colleague.mail, account))),
  )
  return found.length > 0
}

export async function rememberDevice(deviceHash: string, colleagueId: string, now: Date): Promise<void> {
  await tx(async (database) => {
    await database.insert(knownDevice).values({ tokenHash: deviceHash, colleagueId, usedAt: now })
      .onConflictDoUpdate({ target: [knownDevice.tokenHash, knownDevice.colleagueId], set: { usedAt: now } })
    await database.delete(knownDevice).where(and(eq(knownDevice.colleagueId, colleagueId), sql`${knownDevice.tokenHash} not in (
      select k.token_hash from ${knownDevice} k where k.colleague_id = ${colleagueId}::uuid order by k.used_at desc limit ${MOST_KNOWN})`))
  })
}

/** A browser in a few words, as its owner knows it again: "Firefox on Windows". */
export function browserNamed(userAgent: string): string {
  const browser = /Edg\//.test(userAgent)
    ? 'Edge'
    : /Firefox\//.test(userAgent)
      ? 'Firefox'
      : /Chrome\//.test(userAgent)
        ? 'Chrome'
        : /Safari\//.test(userAgent)
          ? 'Safari'
          : 'A browser'
  const system = (
    [
      ['Android', 'Android'],
      ['iPhone', 'iPhone'],
      ['iPad', 'iPad'],
      ['Windows', 'Windows'],
      ['Mac OS X', 'macOS'],
      ['Linux', 'Linux'],
    ] as const
  ).find(([mark]) => userAgent.includes(mark))
  return system ? `${browser} on ${system[1]}` : browser
}
