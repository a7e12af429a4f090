import { and, eq, inArray } from 'drizzle-orm'
import { formatOfCountry } from '~~/core/hours/format'
import { showRef } from '~~/core/message/ref'
import { readPhone } from '~~/core/phone/read'
import { showPhone } from '~~/core/phone/show'
import type { PersonsClock } from '~~/core/template/dates'
import type { FieldValues } from '~~/core/template/fields'
import { isPersonModule } from '~~/shared/modules'
import { CONTEXT_MODULES } from '~~/shared/fields'
import type { Related } from '~~/shared/record'
import type { FillContext } from '~~/shared/schemas/template'
import { tx } from '../db/door'
import { conversation, line, phone, record, stage } from '../db/schema'
import { badInput, notFound } from '../http/problem'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import type { StoredRecord } from '../records/one'
import { zonesOf, type Place } from '../records/phones'

/** Everything a template may say to a person, and by whose clock, in whose format, it says times. */
export interface PersonValues { values: FieldValues, clock: PersonsClock }

const NOWHERE: Place = { zone: null, country: null, region: null }

interface NumberPlace { e164: string | null, country: string | null }

/** As in the country of their address, else of their number, else of the firm. */
function clockOf(asker: SignedIn, us: { country: string }, place: Place, number?: NumberPlace): PersonsClock {
  return {
    zone: zonesOf(place, number?.e164 ?? null)[0] ?? asker.zone,
    format: formatOfCountry(place.country ?? number?.country ?? us.country),
  }
}

/**
 * Whose values stand in a text to a person: the person's own, those of the company if the asker may see it, the sender, the firm, and of
 * what the person is on: of each kind the one that is chosen, else the first that is not over.
 *
 * @param related what the person is on, as the asker may see it
 */
export async function valuesFor(
  asker: SignedIn,
  found: StoredRecord,
  related: Related[],
  { aboutId, ref }: FillContext,
): Promise<PersonValues> {
  return tx(async (database) => {
    const about = aboutOf(related, aboutId)
    const [company] = found.companyId
      ? await database
          .select()
          .from(record)
          .where(and(eq(record.id, found.companyId), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
      : []
    const things
      = about.length > 0
        ? await database
            .select()
            .from(record)
            .where(
              inArray(
                record.id,
                about.map(({ id }) => id),
              ),
            )
        : []
    const stageIds = [found, ...things].flatMap(({ stageId }) => stageId ?? [])
    const stages = new Map(
      (stageIds.length > 0 ? await database.select().from(stage).where(inArray(stage.id, stageIds)) : []).map(({ id, name }) => [id, name]),
    )
    const valuesOf = ({ name, city, stageId, fields }: StoredRecord) => ({
      ...fields,
      name,
      city,
      stage: stages.get(stageId ?? '') ?? null,
    })
    const us = await firmHome()
    const [first] = await database
      .select({ e164: phone.e164, country: phone.country })
      .from(phone)
      .where(eq(phone.recordId, found.id))
      .orderBy(phone.position)
      .limit(1)
    return {
      values: {
        ...ownValues(found, valuesOf(found), { name: company?.name, city: company?.city }),
        sender: senderValues(asker),
        firm: { name: us.name },
        message: { ref: ref && showRef(ref) },
        ...Object.fromEntries(things.map(thing => [thing.module, valuesOf(thing)])),
      },
      clock: clockOf(asker, us, found, first),
    }
  })
}

/**
 * What a template may say to a number on no record: of the sender, the firm and the text, and nothing of the person.
 *
 * @throws Problem 404 if the conversation's line is not the asker's to answer
 */
export async function valuesForNobody(asker: SignedIn, conversationId: string, ref: string | null): Promise<PersonValues> {
  return tx(async (database) => {
    const [found] = await database.select({ remote: conversation.remote }).from(conversation)
      .innerJoin(line, and(eq(line.id, conversation.lineId), visible(asker, 'line.answer', { owner: line.colleagueId, team: line.teamId })))
      .where(eq(conversation.id, conversationId))
    if (!found) throw notFound('conversation')
    const reading = readPhone(found.remote)
    const us = await firmHome()
    return {
      values: { person: {}, company: {}, sender: senderValues(asker), firm: { name: us.name }, message: { ref: ref && showRef(ref) } },
      clock: clockOf(asker, us, NOWHERE, { e164: found.remote, country: reading.ok ? reading.country : null }),
    }
  })
}

/** A person's own values, or those of a company or a deal that has a number of its own; with the company's. */
function ownValues(
  { module, firstName, lastName, title, mail }: StoredRecord,
  own: Record<string, unknown>,
  company: Record<string, unknown>,
): FieldValues {
  if (isPersonModule(module)) return { person: { ...own, first_name: firstName, last_name: lastName, title, mail }, company }
  return module === 'company' ? { company: own } : { [module]: own, company }
}

export const senderValues = ({ firstName, name, title, mail, directLine }: SignedIn) =>
  ({ first_name: firstName, name, title, mail, direct_line: directLine && showPhone(directLine) })

/** Of each kind one: what was chosen, else the first that is not over. */
function aboutOf(related: Related[], aboutId: string | null): Related[] {
  const chosen = related.find(({ id }) => id === aboutId)
  if (aboutId && !chosen) throw badInput({ aboutId: 'This person is not on it any more. Choose another one.' })
  return CONTEXT_MODULES.flatMap(
    module => (chosen?.module === module ? chosen : related.find(one => one.module === module && !one.over)) ?? [],
  )
}
