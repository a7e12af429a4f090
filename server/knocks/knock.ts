import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import type { KnockKind, KnockStep } from '~~/core/knock/kinds'
import { once, tx } from '../db/door'
import { at, uuidArray } from '../db/instants'
import { knock, knockFor } from '../db/schema'
import { readHouseRules } from '../identity/house-rules'
import { announce } from '../live/notices'
import { stands } from './stands'
import { wanting } from './whom'

const MINUTE = 60_000

export interface NewKnock {
  kind: KnockKind
  about: { conversationId: string } | { taskId: string }
  /** Left out, what happens again folds into what is open. */
  once?: string
  words: string
  at: Date
  step: KnockStep
  whom: readonly string[]
}

/** Knocks at those who want to hear of such things; at nobody if none of them does. */
export async function knockAt({ kind, about, once: only, words, at: when, step, whom }: NewKnock, now: Date): Promise<void> {
  const wanted = await wanting(whom, kind)
  if (wanted.length === 0) return
  const { conversationId = null, taskId = null } = { ...about } as { conversationId?: string, taskId?: string }
  const aboutId = conversationId ?? taskId
  await tx(async () => {
    await endSettled(now, sql`k.about_id = ${aboutId}::uuid`)
    const goesOnAt = step === 'lead' ? sql`null` : at(now.getTime() + (await readHouseRules()).knockMinutes * MINUTE)
    const again = only === undefined
      ? sql`on conflict (kind, about_id) where ended_at is null do update set times = k.times + 1, words = excluded.words, at = greatest(k.at, excluded.at)`
      : sql`on conflict do nothing`
    const { rows: [made] } = await once<{ id: string }>(sql`
      insert into ${knock} as k (id, kind, conversation_id, task_id, about_id, once, words, at, step, goes_on_at)
      values (${uuid()}::uuid, ${kind}, ${conversationId}::uuid, ${taskId}::uuid, ${aboutId}::uuid, ${only ?? null}, ${words.slice(0, 300)}, ${at(when)}, ${step}, ${goesOnAt})
      ${again} returning k.id`)
    if (made) await beFor(made.id, wanted, step, now)
  })
}

/** From now on a knock is with these as well. */
export async function beFor(knockId: string, whom: readonly string[], step: KnockStep, now: Date): Promise<void> {
  await once(sql`
    insert into ${knockFor} (knock_id, colleague_id, step, at) select ${knockId}::uuid, who, ${step}, ${at(now)} from unnest(${uuidArray(whom)}) who
    on conflict do nothing`)
  announceKnock(whom)
}

/** What was settled otherwise is over: what happens from now on begins anew. */
export async function endSettled(now: Date, which = sql`true`): Promise<void> {
  await once(sql`update ${knock} k set ended_at = ${at(now)} where k.ended_at is null and ${which} and not ${stands(now)}`)
}

export function announceKnock(whom: readonly string[]): void {
  announce({ kind: 'knock' }, 'line.answer', whom.map(id => ({ ownerId: id, teamId: null })))
}
