import { sql } from 'drizzle-orm'
import { can, type Asker } from '~~/shared/permissions'
import { ask } from '../db/door'
import { colleague, teamMember } from '../db/schema'

export interface Belonging { ownerId: string, teamId: string }

/** Colleagues by id, and by name and mail address in lower case, with the team their records go to. */
export type Owners = Map<string, Belonging>

/** Who can own records; who is in no team can own nothing that others would see. */
export async function ownersByName(): Promise<Owners> {
  const { rows } = await ask<{ id: string, name: string, mail: string, team_id: string }>(sql`
    select c.id, c.name, c.mail, (select m.team_id from ${teamMember} m where m.colleague_id = c.id order by m.team_id
      limit 1) as team_id from ${colleague} c`)
  return new Map(
    rows
      .filter(({ team_id }) => team_id)
      .flatMap(({ id, name, mail, team_id }) =>
        [id, name.toLowerCase(), mail.toLowerCase()].map(key => [key, { ownerId: id, teamId: team_id }] as const),
      ),
  )
}

/** Whose a row becomes that names this owner, or why it cannot be theirs. */
export function ownerCalled(named: string, owners: Owners, asker: Asker): Belonging | string {
  const found = owners.get(named.toLowerCase())
  if (!found) return `There is no colleague “${named}”, or none in a team.`
  return can(asker, 'record.import', found) ? found : `You may not bring records in for ${named}.`
}
