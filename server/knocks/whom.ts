import { and, eq, isNotNull, inArray } from 'drizzle-orm'
import type { KnockKind, KnockStep } from '~~/core/knock/kinds'
import type { Candidates } from '~~/core/knock/steps'
import { can } from '~~/shared/permissions'
import { withWhom } from '../activity/with-whom'
import { read } from '../db/door'
import { colleague, record, task } from '../db/schema'
import { everybodyAtWork, type SignedIn } from '../identity/sign-in'
import type { OpenConversation } from '../texting/conversations'
import { lineBelongs, type Line } from '../texting/lines'

const whoMay = async (may: (asker: SignedIn) => boolean) => (await everybodyAtWork()).filter(may)

const answers = (line: Line) => (asker: SignedIn) => can(asker, 'line.answer', lineBelongs(line))

/** At whom it knocks first: whoever has the conversation; else whose records it is with; else all whose line it is. */
export async function ownersOf({ conversation, line }: OpenConversation): Promise<SignedIn[]> {
  const all = await whoMay(answers(line))
  const { with: records } = await withWhom(line.id, conversation.remote)
  const holders = records.length === 0
    ? []
    : await read(database => database.select({ id: record.ownerId }).from(record).where(inArray(record.id, records)))
  const assigned = all.filter(({ id }) => id === conversation.assigneeId)
  if (assigned.length > 0) return assigned
  const owners = all.filter(one => holders.some(({ id }) => id === one.id))
  if (owners.length > 0) return owners
  return all.filter(({ id, teamIds }) => line.colleagueId ? id === line.colleagueId : !!line.teamId && teamIds.includes(line.teamId))
}

/** Who leads those that answer a line; where nobody does, an admin. */
export const leadsOf = async (line: Line): Promise<SignedIn[]> => leadsAmong(await whoMay(answers(line)))

function leadsAmong(all: SignedIn[]): SignedIn[] {
  const leads = all.filter(({ role }) => role === 'lead')
  return leads.length > 0 ? leads : all.filter(({ role }) => role === 'admin')
}

/** Whom each step would add to a knock that is with some already. */
export async function candidatesFor(about: OpenConversation | { taskId: string }, knocksAt: string[]): Promise<Candidates> {
  const all = await whoMay('taskId' in about ? await seesTask(about.taskId) : answers(about.line))
  const standIns = await read(database => database.select({ id: colleague.standInId }).from(colleague)
    .where(and(inArray(colleague.id, knocksAt), isNotNull(colleague.standInId))))
  return {
    'owner': [],
    'stand-in': all.filter(one => standIns.some(({ id }) => id === one.id)).map(({ id }) => id),
    'lead': leadsAmong(all).map(({ id }) => id),
  } satisfies Record<KnockStep, string[]>
}

async function seesTask(taskId: string): Promise<(asker: SignedIn) => boolean> {
  const [found] = await read(database => database.select({ record }).from(task)
    .innerJoin(record, eq(record.id, task.recordId)).where(eq(task.id, taskId)))
  return asker => found !== undefined && can(asker, 'record.see', found.record)
}

/** Those of them who want to hear of such things. */
export async function wanting(ids: readonly string[], kind: KnockKind): Promise<string[]> {
  const rows = await read(database => database.select({ id: colleague.id, off: colleague.knocksOff }).from(colleague)
    .where(inArray(colleague.id, [...ids])))
  return rows.filter(({ off }) => !off.includes(kind)).map(({ id }) => id)
}
