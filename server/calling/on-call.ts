import { and, inArray, isNull } from 'drizzle-orm'
import { read } from '../db/door'
import { call } from '../db/schema'

/** Who of these is on a call; whose spoken message is still being left is free. */
export async function whoIsOnCall(colleagueIds: string[]): Promise<Set<string>> {
  if (colleagueIds.length === 0) return new Set()
  const rows = await read(database =>
    database
      .select({ colleagueId: call.colleagueId })
      .from(call)
      .where(and(inArray(call.colleagueId, colleagueIds), isNull(call.endedAt), isNull(call.leavingAt))),
  )
  return new Set(rows.map(({ colleagueId }) => colleagueId!))
}

export const isOnCall = async (colleagueId: string): Promise<boolean> => (await whoIsOnCall([colleagueId])).has(colleagueId)
