import { asc, eq } from 'drizzle-orm'
import { isPersonModule } from '~~/shared/modules'
import { can, type Asker, type Permission } from '~~/shared/permissions'
import type { RecordDetail } from '~~/shared/record'
import { tx } from '../db/door'
import { colleague, record } from '../db/schema'
import { notAllowed, notFound } from '../http/problem'
import { customFieldsOf } from './fields'
import { clockRules, phonesOf } from './phones'

export type StoredRecord = typeof record.$inferSelect

/**
 * A record, for somebody who may do this with it.
 *
 * @throws Problem 404 if it may not be seen, 403 if it may be seen but not this done
 */
export async function mustHold(asker: Asker, permission: Permission, recordId: string): Promise<StoredRecord> {
  const [found] = await tx(database => database.select().from(record).where(eq(record.id, recordId)))
  if (!found || !can(asker, 'record.see', found)) throw notFound('record')
  if (!can(asker, permission, found)) throw notAllowed('change this record')
  return found
}

/** Everything that a record page shows beside its timeline. */
export async function readRecord(asker: Asker, recordId: string, now: Date): Promise<RecordDetail> {
  return tx(async (database) => {
    const found = await mustHold(asker, 'record.see', recordId)
    const [owner] = await database.select({ id: colleague.id, name: colleague.name, firstName: colleague.firstName }).from(colleague).where(eq(colleague.id, found.ownerId))
    const [company] = found.companyId ? await database.select({ id: record.id, name: record.name }).from(record).where(eq(record.id, found.companyId)) : []
    const phones = await phonesOf(recordId, found)
    const { ownerId: _owner, teamId: _team, companyId: _company, ...shown } = found
    return {
      ...shown,
      owner: owner!,
      company: company ?? null,
      lastContactAt: found.lastContactAt?.getTime() ?? null,
      madeAt: found.madeAt.getTime(),
      people: isPersonModule(found.module) ? [] : await peopleOf(asker, recordId),
      phones,
      customFields: await customFieldsOf(found.module),
      mayEdit: can(asker, 'record.edit', found),
      zones: clockRules(phones.flatMap(p => p.zones), now),
    }
  })
}

async function peopleOf(asker: Asker, companyId: string): Promise<RecordDetail['people']> {
  const people = await tx(database => database.select().from(record).where(eq(record.companyId, companyId)).orderBy(asc(record.name)))
  return people.filter(person => can(asker, 'record.see', person)).map(({ id, name, title, module }) => ({ id, name, title, module }))
}

/** Companies to choose from, by the words of their name. */
export async function companiesNamed(asker: Asker, words: string) {
  const companies = await tx(database => database
    .select({ id: record.id, name: record.name, ownerId: record.ownerId, teamId: record.teamId })
    .from(record)
    .where(eq(record.module, 'company'))
    .orderBy(asc(record.name)))
  const wanted = words.toLowerCase()
  return companies
    .filter(company => can(asker, 'record.see', company) && company.name.toLowerCase().includes(wanted))
    .slice(0, 20)
    .map(({ id, name }) => ({ id, name }))
}
