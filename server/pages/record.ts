import { eq } from 'drizzle-orm'
import { isPersonModule } from '~~/shared/modules'
import { can, type Asker } from '~~/shared/permissions'
import type { RecordDetail } from '~~/shared/record'
import { read, tx } from '../db/door'
import { colleague, contact, record } from '../db/schema'
import { sharedNumbers } from '../reading/sharing'
import { customFieldsOf } from '../records/fields'
import type { SignedIn } from '../identity/sign-in'
import { groupsOfRecords } from '../records/groups/of-records'
import { authorize } from '../records/one'
import { clockRules, phonesOf } from '../records/phones'
import { pipelineById } from '../records/pipelines'
import { peopleOf, relatedTo } from '../records/related'
import { stagesOf } from '../records/stages'
import { openTasks } from '../tasks/tasks'
import { scheduledOn } from '../texting/scheduled'

/** Everything that a record page shows beside its timeline. */
export async function readRecord(asker: SignedIn, recordId: string, now: Date): Promise<RecordDetail> {
  return tx(async (database) => {
    const found = await authorize(asker, 'record.see', recordId)
    const [owner] = await database
      .select({ id: colleague.id, name: colleague.name, firstName: colleague.firstName })
      .from(colleague)
      .where(eq(colleague.id, found.ownerId))
    const [last] = await database.select({ at: contact.at }).from(contact).where(eq(contact.recordId, recordId))
    const company = found.companyId ? await seenRecord(asker, found.companyId) : null
    const people = isPersonModule(found.module) ? [] : await peopleOf(asker, found)
    const phones = [...await phonesOf(asker, [recordId]), ...await phonesOf(asker, people.map(({ id }) => id), true)]
    const { ownerId: _owner, teamId: _team, companyId: _company, pipelineId, stageId, aboutId, foundBy: _foundBy, ...shown } = found
    const stages = await stagesOf(found.module, pipelineId)
    return {
      ...shown,
      owner: owner!,
      company: company && { id: company.id, name: company.name },
      pipeline: pipelineId ? await pipelineById(pipelineId) : null,
      about: aboutId ? await seenRecord(asker, aboutId) : null,
      stage: stages.find(({ id }) => id === stageId) ?? null,
      stages,
      lastContactAt: last?.at.getTime() ?? null,
      stageSince: found.stageSince?.getTime() ?? null,
      madeAt: found.madeAt.getTime(),
      groups: (await groupsOfRecords(asker, found.module, [recordId], now)).get(recordId) ?? [],
      people,
      related: await relatedTo(asker, found),
      scheduled: await scheduledOn(asker, recordId),
      tasks: await openTasks(asker, { recordId }),
      phones,
      sharing: await sharedNumbers(asker, recordId),
      customFields: await customFieldsOf(found.module),
      mayEdit: can(asker, 'record.edit', found),
      zones: clockRules(phones.flatMap(p => p.zones), now),
    }
  })
}

async function seenRecord(asker: Asker, id: string): Promise<RecordDetail['about']> {
  const [found] = await read(database => database.select().from(record).where(eq(record.id, id)))
  return found && can(asker, 'record.see', found) ? { id: found.id, name: found.name, module: found.module } : null
}
