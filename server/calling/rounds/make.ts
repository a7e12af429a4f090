import { sql } from 'drizzle-orm'
import type { Module } from '~~/shared/modules'
import { can } from '~~/shared/permissions'
import { MOST_IN_ROUND, type RoundPreview } from '~~/shared/rounds'
import type { Whom } from '~~/shared/schemas/list'
import type { RoundForm, RoundSelectionForm } from '~~/shared/schemas/round'
import { milliseconds } from '../../db/instants'
import { planned } from '../../db/prepared'
import { callRound, record, roundPerson, team } from '../../db/schema'
import { badInput } from '../../http/problem'
import { note } from '../../identity/audit'
import type { SignedIn } from '../../identity/sign-in'
import { ask, once, tx } from '../../db/door'
import { joinContact } from '../../reading/contact'
import { chosenPeople } from '../../records/chosen-people'
import { announceRound } from './one'
import { JOIN_REACH, PERSON_COLUMNS, placesOfRow, zonesOfRow, type PersonRow } from './facts'
import { countPassed } from './not-now'

/** Who would be called now and who passed over, and why, before a round of them is made. */
export async function previewRound(asker: SignedIn, { notWithinHours, ...whom }: RoundSelectionForm, now: Date): Promise<RoundPreview> {
  const people = await peopleToCall(asker, whom, now)
  const passed = await countPassed(people, notWithinHours, now)
  const all = Object.values(passed).reduce((sum, count) => sum + count, 0)
  return { chosen: people.length, callable: people.length - all, passed }
}

/**
 * Makes a round of the people that are chosen now, in the order of the list or by when we last spoke. Making the same
 * again gives the first.
 *
 * @throws Problem 422 where nobody or too many are chosen, or the team is not one of theirs
 */
export async function makeRound(asker: SignedIn, form: RoundForm, now: Date): Promise<{ id: string }> {
  const { id, name, teamId, order, pauseSeconds, notWithinHours } = form
  if (teamId && !can(asker, 'round.work', { teamId })) throw badInput({ teamId: 'You are not in this team. Choose one of yours.' })
  const people = await peopleToCall(asker, form, now)
  if (people.length === 0) throw badInput({ selection: 'Nobody is chosen any more. Choose them again.' })
  const module = mostOf(people.map(one => one.module))
  const inOrder = order === 'last-contact' ? people.toSorted((a, b) => (a.lastContactAt ?? 0) - (b.lastContactAt ?? 0)) : people
  return tx(async (database) => {
    if (
      teamId
      && !(
        await database
          .select({ id: team.id })
          .from(team)
          .where(sql`${team.id} = ${teamId}::uuid`)
      )[0]
    )
      throw badInput({ teamId: 'There is no such team.' })
    const [made] = await database
      .insert(callRound)
      .values({ id, name, module, teamId, madeBy: asker.id, madeAt: now, order, pauseSeconds, notWithinHours })
      .onConflictDoNothing()
      .returning()
    if (!made) return { id }
    const rows = inOrder.map((person, position) =>
      ({ id: person.recordId, position, zones: zonesOfRow(person).join(' '), places: placesOfRow(person).join(' ') }))
    await once(sql`
      insert into ${roundPerson} (round_id, record_id, position, zones, places)
      select ${id}::uuid, x.id, x.position, x.zones, x.places
        from jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) as x(id uuid, position int, zones text, places text)`)
    await note('round-made', asker.id, now, { roundId: id, name, people: rows.length })
    announceRound(made)
    return { id }
  })
}

type Chosen = PersonRow & { module: Module, lastContactAt: number | null }

/** What the people of a round mostly are, which is what it is called by. */
function mostOf(modules: Module[]): Module {
  const count = (module: Module) => modules.filter(one => one === module).length
  return [...new Set(modules)].sort((one, other) => count(other) - count(one))[0]!
}

async function peopleToCall(asker: SignedIn, whom: Whom, now: Date): Promise<Chosen[]> {
  const people = await chosenPeople(asker, whom, now)
  const { rows: [counted] } = await ask<{ many: boolean }>(planned(sql`select count(*) > ${sql.raw(String(MOST_IN_ROUND))} as many
    from (${people}) chosen`))
  if (counted!.many)
    throw badInput({
      selection: `A round has ${MOST_IN_ROUND.toLocaleString('en-US')} people at most. Choose fewer, by place or stage perhaps, and make several.`,
    })
  const { rows } = await ask<Chosen>(planned(sql`
    with chosen as (${people})
    select ${PERSON_COLUMNS}, r.module, ${milliseconds(sql`contact.at`)} as "lastContactAt"
    from chosen join ${record} r on r.id = chosen.id ${joinContact} ${JOIN_REACH} order by chosen.place, r.id`))
  return rows
}
