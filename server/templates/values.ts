import { and, eq, inArray } from 'drizzle-orm'
import { showRef } from '~~/core/message/ref'
import { showPhone } from '~~/core/phone/show'
import type { FieldValues } from '~~/core/template/fields'
import { CONTEXT_MODULES } from '~~/shared/fields'
import type { Related } from '~~/shared/record'
import type { FillContext } from '~~/shared/schemas/template'
import { tx } from '../db/door'
import { firm, phone, record, stage } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import type { StoredRecord } from '../records/one'
import { zonesOf } from '../records/phones'

/** Everything a template may say to a person, and the zone in which it says times. */
export interface PersonValues { values: FieldValues, zone: string }

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
    const [us] = await database.select({ name: firm.name }).from(firm)
    const [first] = await database
      .select({ e164: phone.e164 })
      .from(phone)
      .where(eq(phone.recordId, found.id))
      .orderBy(phone.position)
      .limit(1)
    return {
      values: {
        person: { ...valuesOf(found), first_name: found.firstName, last_name: found.lastName, title: found.title, mail: found.mail },
        company: { name: company?.name, city: company?.city },
        sender: senderValues(asker),
        firm: { name: us?.name },
        message: { ref: ref && showRef(ref) },
        ...Object.fromEntries(things.map(thing => [thing.module, valuesOf(thing)])),
      },
      zone: zonesOf(found, first?.e164 ?? null)[0] ?? asker.zone,
    }
  })
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
