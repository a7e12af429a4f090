import { asc, eq } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { LineForm } from '~~/shared/schemas/line'
import type { SetUpLine } from '~~/shared/set-up'
import { tx } from '../db/door'
import { colleague, line, team } from '../db/schema'
import { notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'

/** All lines of the firm, for those who set them up. */
export async function listLines(asker: SignedIn): Promise<SetUpLine[]> {
  if (!can(asker, 'line.edit', {})) throw notAllowed('see how lines are set up; an admin does')
  return tx(database => database
    .select({ id: line.id, name: line.name, e164: line.e164, active: line.active, private: line.private, colleague: colleague.name, team: team.name, languages: line.languages, records: line.records, ownerFirst: line.ownerFirst, greeting: line.greeting, ringSeconds: line.ringSeconds, hours: line.hours })
    .from(line)
    .leftJoin(colleague, eq(colleague.id, line.colleagueId))
    .leftJoin(team, eq(team.id, line.teamId))
    .orderBy(asc(line.name)))
}

/** What is written already keeps the coding that it was measured with. */
export async function changeLine(asker: SignedIn, id: string, form: LineForm, now: Date): Promise<SetUpLine[]> {
  return tx(async (database) => {
    const all = await listLines(asker)
    const before = all.find(one => one.id === id)
    if (!before) throw notFound('line')
    await database.update(line).set(form).where(eq(line.id, id))
    const { languages, records, ownerFirst, greeting, ringSeconds, hours } = before
    await note('line-changed', asker.id, now, { lineId: id, from: { languages, records, ownerFirst, greeting, ringSeconds, hours }, to: form })
    return listLines(asker)
  })
}
