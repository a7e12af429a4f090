import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import { checkTemplate } from '~~/core/template/check'
import { fillTemplate, type Filled } from '~~/core/template/fill'
import type { FieldValues } from '~~/core/template/fields'
import { isPersonModule, type PersonModule } from '~~/shared/modules'
import type { FilledTemplate, TemplateTrial } from '~~/shared/template'
import { tx } from '../db/door'
import { firm, phone, record, template } from '../db/schema'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../identity/visible'
import { mustHold, type StoredRecord } from '../records/one'
import { zonesOf } from '../records/phones'
import { catalogueOf } from './catalogue'

/** The templates of a record's module, each filled for it or with what is missing. */
export async function fillForRecord(asker: SignedIn, recordId: string): Promise<FilledTemplate[]> {
  return tx(async (database) => {
    const found = await mustHold(asker, 'record.see', recordId)
    if (!isPersonModule(found.module)) throw badInput({ recordId: 'A company has no telephone of its own yet. Open one of its people.' })
    const { values, zone } = await valuesFor(asker, found)
    const labels = await labelsOf([found.module])
    const templates = await database.select().from(template)
      .where(sql`${found.module} = any(${template.modules})`)
      .orderBy(sql`${template.name} collate "und-x-icu"`)
    return templates.map(({ id, name, version, body }) => {
      const filled = fillTemplate(body, values, zone)
      return { id, name, version, text: filled.ok ? filled.text : null, missing: whatIsMissing(filled, labels) }
    })
  })
}

/** A template as it would be sent to a record; one of its modules, contacted last, if none is named. */
export async function tryTemplate(asker: SignedIn, body: string, modules: PersonModule[], recordId: string | null): Promise<TemplateTrial> {
  return tx(async () => {
    const problems = checkTemplate(body, await catalogueOf(modules))
    const found = recordId ? await mustHold(asker, 'record.see', recordId) : await exampleOf(asker, modules)
    const about = found ? { id: found.id, name: found.name } : null
    if (problems.length > 0 || !found) return { problems, holes: [], text: null, record: about }
    const { values, zone } = await valuesFor(asker, found)
    const filled = fillTemplate(body, values, zone)
    if (filled.ok) return { problems: [], holes: [], text: filled.text, record: about }
    const labels = await labelsOf(modules)
    return { problems: filled.problems, holes: filled.holes.map(hole => ({ ...hole, label: labels.get(hole.path) ?? hole.path })), text: null, record: about }
  })
}

async function exampleOf(asker: SignedIn, modules: PersonModule[]): Promise<StoredRecord | undefined> {
  if (modules.length === 0) return undefined
  const [found] = await tx(database => database.select().from(record)
    .where(and(inArray(record.module, modules), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
    .orderBy(desc(sql`coalesce(${record.lastContactAt}, '-infinity')`))
    .limit(1))
  return found
}

/** Everything a template may say to this person, and the zone in which it says times. */
export async function valuesFor(asker: SignedIn, found: StoredRecord): Promise<{ values: FieldValues, zone: string }> {
  return tx(async (database) => {
    const [company] = found.companyId ? await database.select().from(record).where(eq(record.id, found.companyId)) : []
    const [us] = await database.select({ name: firm.name }).from(firm)
    const [first] = await database.select({ e164: phone.e164 }).from(phone).where(eq(phone.recordId, found.id)).orderBy(phone.position).limit(1)
    const { firstName, lastName, name, title, city, stage, mail, fields } = found
    return {
      values: {
        person: { first_name: firstName, last_name: lastName, name, title, city, stage, mail, ...fields },
        company: { name: company?.name, city: company?.city },
        sender: { first_name: asker.firstName, name: asker.name, title: asker.title, mail: asker.email, direct_line: asker.directLine },
        firm: { name: us?.name },
      },
      zone: zonesOf(found, first?.e164 ?? null)[0] ?? asker.zone,
    }
  })
}

async function labelsOf(modules: PersonModule[]): Promise<Map<string, string>> {
  return new Map(Object.values(await catalogueOf(modules)).flat().map(field => [field.path, field.label]))
}

function whatIsMissing(filled: Filled, labels: Map<string, string>): string[] {
  if (filled.ok) return []
  return [...new Set([...filled.holes.map(hole => labels.get(hole.path) ?? hole.path), ...filled.problems.map(problem => problem.message)])]
}
