import { and, asc, eq, sql } from 'drizzle-orm'
import type { InferType } from 'yup'
import { checkTemplate } from '~~/core/template/check'
import { can } from '~~/shared/permissions'
import type { editTemplate, makeTemplate, TemplateForm } from '~~/shared/schemas/template'
import type { TemplateDetail } from '~~/shared/template'
import { tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, template, templateVersion } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { catalogueOf } from './catalogue'

/** Every template, by name. */
export async function listTemplates(asker: SignedIn): Promise<TemplateDetail[]> {
  const rows = await tx(database => database
    .select({
      id: template.id, name: template.name, modules: template.modules, body: template.body, version: template.version,
      ownerId: template.ownerId, owner: colleague.name, changedAt: milliseconds(template.changedAt),
    })
    .from(template)
    .innerJoin(colleague, eq(colleague.id, template.ownerId))
    .orderBy(asc(sql`${template.name} collate "und-x-icu"`)))
  return rows.map(row => ({ ...row, mayEdit: can(asker, 'template.edit', { ownerId: row.ownerId }) }))
}

/** @throws Problem 422 with every mistake and its place, if it may not be saved so */
async function mustBeSound({ body, modules }: TemplateForm): Promise<void> {
  const problems = checkTemplate(body, await catalogueOf(modules))
  if (problems.length > 0) {
    const [first] = problems
    throw badInput({ body: `Line ${first!.line}, character ${first!.column}: ${first!.message}` })
  }
}

export async function addTemplate(asker: SignedIn, { id, ...form }: InferType<typeof makeTemplate>, now: Date): Promise<string> {
  return tx(async (database) => {
    await mustBeSound(form)
    const [made] = await database.insert(template).values({ ...form, id, version: 1, ownerId: asker.id, changedAt: now }).onConflictDoNothing().returning({ id: template.id })
    if (made) await keepVersion(id, 1, form, asker, now)
    return id
  })
}

/** @throws Problem 409 if somebody else has saved it meanwhile */
export async function changeTemplate(asker: SignedIn, id: string, { version, ...form }: InferType<typeof editTemplate>, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select().from(template).where(eq(template.id, id))
    if (!found) throw notFound('template')
    if (!can(asker, 'template.edit', found)) throw notAllowed('change this template; only its owner and leads may')
    await mustBeSound(form)
    const [changed] = await database.update(template)
      .set({ ...form, version: version + 1, changedAt: now })
      .where(and(eq(template.id, id), eq(template.version, version)))
      .returning({ id: template.id })
    if (!changed) throw conflict('stale', 'Changed meanwhile', `Somebody else has saved version ${found.version} since you opened it. Copy your wording, reload, and put it in again.`)
    await keepVersion(id, version + 1, form, asker, now)
  })
}

async function keepVersion(templateId: string, version: number, { name, body }: TemplateForm, asker: SignedIn, at: Date): Promise<void> {
  await tx(database => database.insert(templateVersion).values({ templateId, version, name, body, at, colleagueId: asker.id }))
}
