import { sql, eq } from 'drizzle-orm'
import type { KnockKind, KnockStep } from '~~/core/knock/kinds'
import { nextStep } from '~~/core/knock/steps'
import { once, read, tx } from '../db/door'
import { at } from '../db/instants'
import { conversation, knock, knockFor, line } from '../db/schema'
import { readHouseRules } from '../identity/house-rules'
import { beFor, endSettled, knockAt } from './knock'
import { KNOCK_SOURCES } from './registry'
import { candidatesFor, wanting } from './whom'

const MINUTE = 60_000
const AT_ONCE = 50

/** Knocks for what has become due, and passes on what nobody has taken in time. */
export async function knockByTheClock(now: Date): Promise<void> {
  const rules = await readHouseRules()
  await endSettled(now)
  for (const [kind, { due }] of KNOCK_SOURCES)
    for (const one of await due?.(rules, now) ?? [])
      await knockAt({ ...one, kind, whom: one.whom.map(({ id }) => id) }, now)
  await passOn(rules.knockMinutes, now)
}

type Passing = Record<string, unknown> & {
  id: string
  kind: KnockKind
  step: KnockStep
  conversation_id: string | null
  task_id: string | null
}

async function passOn(minutes: number, now: Date): Promise<void> {
  await tx(async () => {
    // another process may be passing on the others
    const { rows } = await once<Passing>(sql`
      select k.id, k.kind, k.step, k.conversation_id, k.task_id from ${knock} k
      where k.ended_at is null and k.goes_on_at <= ${at(now)} order by k.goes_on_at limit ${sql.raw(String(AT_ONCE))} for update skip locked`)
    for (const one of rows) await passOnOne(one, minutes, now)
  })
}

async function passOnOne({ id, kind, step, ...on }: Passing, minutes: number, now: Date): Promise<void> {
  await tx(async (database) => {
    const knocksAt = (await database.select({ id: knockFor.colleagueId }).from(knockFor).where(eq(knockFor.knockId, id))).map(one => one.id)
    const about = on.task_id ? { taskId: on.task_id } : await conversationOf(on.conversation_id!)
    const candidates = await candidatesFor(about, knocksAt)
    const next = nextStep(step, knocksAt, {
      'owner': [],
      'stand-in': await wanting(candidates['stand-in'], kind),
      'lead': await wanting(candidates.lead, kind),
    })
    await database.update(knock)
      .set({ step: next?.step ?? step, goesOnAt: next && next.step !== 'lead' ? new Date(now.getTime() + minutes * MINUTE) : null })
      .where(eq(knock.id, id))
    if (next) await beFor(id, next.whom, next.step, now)
  })
}

async function conversationOf(id: string) {
  const [found] = await read(database => database.select({ conversation, line }).from(conversation)
    .innerJoin(line, eq(line.id, conversation.lineId)).where(eq(conversation.id, id)))
  return found!
}
