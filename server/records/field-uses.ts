import { and, eq, isNull, sql } from 'drizzle-orm'
import { isGroup, type Conditions } from '~~/core/conditions/conditions'
import { groupOf } from '~~/shared/fields'
import { ask, read } from '../db/door'
import type { customField } from '../db/schema'
import { disposition, record, template, view } from '../db/schema'
import { allGroups } from './groups/one'

type StoredField = typeof customField.$inferSelect

/** The templates, kept lists, groups and dispositions that speak of a field; of one of its choices, those that speak of it. */
export async function usersOf(field: StoredField, choice?: string): Promise<string[]> {
  const { module, key } = field
  const column = `own.${key}`
  const templates = choice === undefined ? await templatesWith(field) : []
  const views = await read(database => database.select().from(view).where(eq(view.module, module)).orderBy(view.name))
  const groups = (await allGroups()).filter(one => one.module === module)
  const dispositions = await read(database =>
    database
      .select()
      .from(disposition)
      .where(and(sql`${disposition.module} = ${module}`, isNull(disposition.retiredAt)))
      .orderBy(disposition.name))
  const shows = (one: typeof view.$inferSelect) => choice === undefined && (one.columns.includes(column) || one.sort === column)
  return [
    ...templates.map(({ name }) => `the template “${name}”`),
    ...views.filter(one => shows(one) || asksFor(one.conditions, column, choice)).map(({ name }) => `the list “${name}”`),
    ...groups.filter(one => asksFor(one.conditions!, column, choice)).map(({ name }) => `the group “${name}”`),
    ...dispositions
      .filter(({ effects }) => effects.some(effect =>
        effect.kind === 'field' && effect.field === key && (choice === undefined || effect.value === choice)))
      .map(({ name }) => `the disposition “${name}”`),
  ]
}

const templatesWith = ({ module, key }: StoredField) => read(database =>
  database
    .select({ name: template.name })
    .from(template)
    .where(and(
      isNull(template.retiredAt),
      sql`${module} = any(${template.modules})`,
      sql`${template.body} ~ ${`${groupOf(module)}\\.${key}\\M`}`,
    ))
    .orderBy(template.name))

const asksFor = ({ of }: Conditions, field: string, choice?: string): boolean => of.some(one =>
  isGroup(one)
    ? asksFor(one, field, choice)
    : one.field === field && (choice === undefined || [one.value].flat().some(value => value === choice)))

/** How many records hold a choice of a field. */
export async function holdersOf({ module, key }: StoredField, choice: string): Promise<number> {
  const { rows: [counted] } = await ask<{ count: number }>(sql`
    select count(*)::int as count from ${record} where module = ${module} and fields ->> ${key} = ${choice}`)
  return counted!.count
}
