import { and, asc, eq, getTableColumns, isNull } from 'drizzle-orm'
import type { SpokenMessage } from '~~/shared/calling'
import { can } from '~~/shared/permissions'
import { LONGEST_SPOKEN_MS, TOO_LONG_SPOKEN, type SpokenForm } from '~~/shared/schemas/calling'
import { read, tx } from '../db/door'
import { colleague, spokenMessage, team } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { readSound } from './sound'

const SHORTEST_MS = 500

const belongs = ({ ownerId, teamId }: { ownerId: string, teamId: string | null }) => ({ ownerId, teamId })

/** Everything but the sound, which is long. */
const { sound: _sound, ...SHOWN } = getTableColumns(spokenMessage)

/** What I may leave on a mailbox, by name. */
export async function listSpoken(asker: SignedIn): Promise<SpokenMessage[]> {
  const rows = await read(database => database
    .select({ spoken: SHOWN, owner: { id: colleague.id, firstName: colleague.firstName }, team: { id: team.id, name: team.name } })
    .from(spokenMessage).innerJoin(colleague, eq(colleague.id, spokenMessage.ownerId)).leftJoin(team, eq(team.id, spokenMessage.teamId))
    .where(isNull(spokenMessage.retiredAt)).orderBy(asc(spokenMessage.name), spokenMessage.id))
  return rows
    .filter(({ spoken }) => can(asker, 'spoken.leave', belongs(spoken)))
    .map(({ spoken: { id, name, words, ms, peaks, ...of }, owner, team }) => ({
      id,
      name,
      words,
      ms,
      peaks,
      owner,
      team,
      mayEdit: can(asker, 'spoken.edit', belongs(of)),
    }))
}

/**
 * Keeps a spoken message under an id that the browser made, or changes one.
 *
 * @throws Problem 422 where there is no sound in it, it is too long for a mailbox, or the team is none of mine
 */
export async function saveSpoken(asker: SignedIn, id: string, { sound: base64, ...form }: SpokenForm, now: Date): Promise<SpokenMessage[]> {
  const given = base64 === null ? null : readGiven(base64)
  return tx(async (database) => {
    const [before] = await database.select().from(spokenMessage).where(eq(spokenMessage.id, id)).for('update')
    if (before && !can(asker, 'spoken.edit', belongs(before)))
      throw notAllowed('change this message; whoever has spoken it does, and their lead')
    if (form.teamId && form.teamId !== before?.teamId && !asker.teamIds.includes(form.teamId))
      throw badInput({ teamId: 'You are not in this team. Choose one of yours.' })
    if (before) await database.update(spokenMessage).set({ ...form, ...given }).where(eq(spokenMessage.id, id))
    else await database.insert(spokenMessage).values({ id, ...form, ownerId: asker.id, ...given ?? mustBeSpoken(), madeAt: now })
    await note(before ? 'spoken-changed' : 'spoken-made', asker.id, now, { name: form.name })
    return listSpoken(asker)
  })
}

function readGiven(base64: string) {
  const sound = Buffer.from(base64, 'base64')
  const read = readSound(sound)
  if (!read || read.ms < SHORTEST_MS) return mustBeSpoken()
  if (read.ms > LONGEST_SPOKEN_MS) throw badInput({ sound: TOO_LONG_SPOKEN })
  return { ...read, sound }
}

function mustBeSpoken(): never {
  throw badInput({ sound: 'There is nothing to be heard yet. Record it, or choose a WAV file.' })
}

/** The sound of a message that I may leave, to hear it. */
export const hearSpoken = async (asker: SignedIn, id: string): Promise<Buffer> => (await mustLeave(asker, id)).sound

/** What was left on mailboxes stays on their timelines. */
export async function retireSpoken(asker: SignedIn, id: string, now: Date): Promise<SpokenMessage[]> {
  return tx(async (database) => {
    const found = await mustLeave(asker, id)
    if (!can(asker, 'spoken.edit', belongs(found))) throw notAllowed('take this message away; whoever has spoken it does, and their lead')
    await database.update(spokenMessage).set({ retiredAt: now }).where(eq(spokenMessage.id, id))
    await note('spoken-retired', asker.id, now, { name: found.name })
    return listSpoken(asker)
  })
}

/** @throws Problem 404 */
export async function mustLeave(asker: SignedIn, id: string): Promise<typeof spokenMessage.$inferSelect> {
  const [found] = await read(database =>
    database
      .select()
      .from(spokenMessage)
      .where(and(eq(spokenMessage.id, id), isNull(spokenMessage.retiredAt))),
  )
  if (!found || !can(asker, 'spoken.leave', belongs(found))) throw notFound('spoken message')
  return found
}
