import { and, desc, eq, isNotNull, sql } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import { MODULE_FACTS } from '~~/shared/modules'
import type { RetiredTemplate, TemplateUse } from '~~/shared/template'
import { read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { template } from '../db/schema'
import { conflict, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { mustMayEdit } from './templates'
import { usedBy } from './used-by'

/**
 * Takes a template away from everybody; texts that came from it still name it, and it can be brought back.
 *
 * @throws Problem 409 while a disposition sends it
 */
export async function retireTemplate(asker: SignedIn, id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const { name } = await mustMayEdit(asker, id)
    const [{ uses } = { uses: [] }] = await database.select({ uses: usedBy(sql`${template.id}`) }).from(template).where(eq(template.id, id))
    if (uses.length > 0) throw conflict('in-use', 'In use', `${sayUses(uses)}. Choose another template there, or take the text out of it, first.`)
    await database.update(template).set({ retiredAt: now }).where(eq(template.id, id))
    await note('template-retired', asker.id, now, { templateId: id, name })
  })
}

const sayUses = (uses: TemplateUse[]) =>
  `It is sent by ${uses.map(({ name, module }) => `“${name}” of ${MODULE_FACTS[module].many.toLowerCase()}`).join(' and ')}`

const mayRestore = (asker: SignedIn) => visible(asker, 'template.edit', { owner: template.ownerId, team: template.teamId })

/** Those that were retired and that I may bring back, the last first. */
export async function retiredTemplates(asker: SignedIn): Promise<RetiredTemplate[]> {
  return read(database =>
    database
      .select({ id: template.id, name: template.name, retiredAt: milliseconds(template.retiredAt).mapWith(Number) })
      .from(template)
      .where(and(isNotNull(template.retiredAt), mayRestore(asker)))
      .orderBy(desc(template.retiredAt))
      .limit(100),
  )
}

/** @throws Problem 404 for one that is not retired, or not mine to bring back */
export async function restoreTemplate(asker: SignedIn, id: string, now: Date): Promise<void> {
  await tx(async (database) => {
    const [found] = await database.select().from(template).where(and(eq(template.id, id), isNotNull(template.retiredAt)))
    if (!found || !can(asker, 'template.edit', found)) throw notFound('template')
    await database.update(template).set({ retiredAt: null }).where(eq(template.id, id))
    await note('template-restored', asker.id, now, { templateId: id, name: found.name })
  })
}
