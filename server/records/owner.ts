import { and, asc, eq, isNull } from 'drizzle-orm'
import { tx } from '../db/door'
import { colleague, teamMember } from '../db/schema'
import { badInput } from '../http/problem'

/** To whom a record belongs. */
export interface Belonging { ownerId: string, teamId: string }

/**
 * With its owner a record goes to one of the owner's teams; it stays where it is if the owner is in that one.
 *
 * @throws Problem 422 for an owner who does not exist or is in no team
 */
export async function belongingTo(ownerId: string, teamId: string | null): Promise<Belonging> {
  return tx(async (database) => {
    const [owner] = await database.select({ id: colleague.id, name: colleague.name }).from(colleague)
      .where(and(eq(colleague.id, ownerId), isNull(colleague.leftAt)))
    if (!owner) throw badInput({ ownerId: 'There is no such colleague. Choose one from the list.' })
    const teams = (
      await database
        .select({ id: teamMember.teamId })
        .from(teamMember)
        .where(eq(teamMember.colleagueId, ownerId))
        .orderBy(asc(teamMember.teamId))
    ).map(({ id }) => id)
    const team = teamId && (teams.includes(teamId) || teams.length === 0) ? teamId : teams[0]
    if (!team)
      throw badInput({ ownerId: `${owner.name} is in no team yet, so nobody else would see it. Choose somebody else, or ask an admin.` })
    return { ownerId, teamId: team }
  })
}
