import { and, eq, inArray, sql } from 'drizzle-orm'
import { checkTemplate } from '~~/core/template/check'
import type { PersonsClock } from '~~/core/template/dates'
import type { FieldValues } from '~~/core/template/fields'
import type { Filled } from '~~/core/template/fill'
import { exampleAnswers, readAnswers } from '~~/core/template/fill-ins'
import { fullLabel } from '~~/shared/fields'
import { hasNumbers, isPersonModule, TEXTED_MODULES, type TextedModule } from '~~/shared/modules'
import type { Related } from '~~/shared/record'
import type { FillContext, TryTemplate } from '~~/shared/schemas/template'
import type { FilledTemplate, FilledTemplates, TemplateTrial } from '~~/shared/template'
import { read, tx } from '../db/door'
import { contact, record, template, templateMine } from '../db/schema'
import { textArray } from '../db/instants'
import { badInput } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { authorize, type StoredRecord } from '../records/one'
import { relatedTo } from '../records/related'
import { Budget } from '../http/budget'
import { catalogueOf } from './catalogue'
import { fillerOf } from './fillers'
import { mustSeeTemplate, offered } from './templates'
import { valuesFor, valuesForNobody } from './values'

type StoredTemplate = typeof template.$inferSelect

/** For whom templates are filled: of which modules they may be, with which values, and what else those could speak of. */
interface Subject { modules: TextedModule[], values: FieldValues, clock: PersonsClock, related: Related[] }

/**
 * The templates of a record's module, each filled for it or with what is missing: favourites first, then what I use.
 *
 * @param only the ids of those that are wanted; all, if left out
 */
export const fillForRecord = (asker: SignedIn, recordId: string, context: FillContext, only?: string[]): Promise<FilledTemplates> =>
  fillAll(asker, () => recordSubject(asker, recordId, context), only)

/** Those of all modules, filled for a number on no record: of the person nothing is known. */
export const fillForStranger = (asker: SignedIn, conversationId: string, context: FillContext): Promise<FilledTemplates> =>
  fillAll(asker, () => strangerSubject(asker, conversationId, context))

async function fillAll(asker: SignedIn, subjectOf: () => Promise<Subject>, only?: string[]): Promise<FilledTemplates> {
  const { rows, values, clock, labels, related } = await tx(async (database) => {
    const { modules, values, clock, related } = await subjectOf()
    const labels = await labelsOf(modules)
    const rows = await database.select({ template, favourite: templateMine.favourite, times: templateMine.times }).from(template)
      .leftJoin(templateMine, and(eq(templateMine.templateId, template.id), eq(templateMine.colleagueId, asker.id)))
      .where(and(sql`${template.modules} && ${textArray(modules)}`, offered(asker), only && inArray(template.id, only)))
      .orderBy(sql`coalesce(${templateMine.favourite}, false) desc, coalesce(${templateMine.times}, 0) desc,
        ${template.name} collate "und-x-icu"`)
    return { rows, values, clock, labels, related }
  })
  // outside of the transaction, and making room for others: there may be hundreds of them, and some may be made to take long
  const budget = new Budget(FILLING_MS)
  const templates: FilledTemplates['templates'] = []
  for (const { template: one, favourite, times } of rows) {
    const filled = budget.isSpent ? TOO_MUCH : fillerOf(one.body)({ ...values, fill_in: exampleAnswers(one.fillIns) }, clock)
    templates.push({ ...shown(one, filled, labels), favourite: favourite ?? false, times: times ?? 0 })
    await budget.makeRoom()
  }
  return { templates, contexts: related.map(({ id, module, name, day, over }) => ({ id, module, name, day, over })) }
}

async function recordSubject(asker: SignedIn, recordId: string, context: FillContext): Promise<Subject> {
  const found = await mustBeTexted(asker, recordId)
  const related = await onWhat(asker, found)
  return { modules: [found.module as TextedModule], related, ...await valuesFor(asker, found, related, context) }
}

async function strangerSubject(asker: SignedIn, conversationId: string, { ref }: FillContext): Promise<Subject> {
  return { modules: [...TEXTED_MODULES], related: [], ...await valuesForNobody(asker, conversationId, ref) }
}

/** All templates of a record together are filled in so long; a usual hundred takes some ten milliseconds. */
const FILLING_MS = 500
const TOO_MUCH: Filled = {
  ok: false,
  holes: [],
  gapped: null,
  problems: [{ line: 1, column: 1, message: 'The templates together take too long to fill. Take out what some of them compute.' }],
}

type Answered = FillContext & { answers: Record<string, unknown> }

/**
 * One template with what whoever sends it has filled in.
 *
 * @throws Problem 422 at each fill-in that is empty or does not fit
 */
export const fillOneForRecord = (asker: SignedIn, recordId: string, templateId: string, { answers, ...context }: Answered) =>
  fillOne(asker, templateId, answers, () => recordSubject(asker, recordId, context))

export const fillOneForStranger = (asker: SignedIn, conversationId: string, templateId: string, { answers, ...context }: Answered) =>
  fillOne(asker, templateId, answers, () => strangerSubject(asker, conversationId, context))

async function fillOne(
  asker: SignedIn,
  templateId: string,
  answers: Record<string, unknown>,
  subjectOf: () => Promise<Subject>,
): Promise<Pick<FilledTemplate, 'text' | 'missing'>> {
  return tx(async () => {
    const { modules, values, clock } = await subjectOf()
    const one = await mustSeeTemplate(asker, templateId)
    const read = readAnswers(one.fillIns, answers)
    if (!read.ok) throw badInput(Object.fromEntries(Object.entries(read.problems).map(([key, reason]) => [`answers.${key}`, reason])))
    const { text, missing } = shown(one, fillerOf(one.body)({ ...values, 'fill_in': read.values, 'fill-in as typed': read.typed }, clock), await labelsOf(modules))
    return { text, missing }
  })
}

/** A template as it would be sent to a record; one of its modules, contacted last, if none is named. */
export async function tryTemplate(asker: SignedIn, { body, modules, fillIns, recordId }: TryTemplate): Promise<TemplateTrial> {
  return tx(async () => {
    const catalogue = await catalogueOf(modules, fillIns)
    const problems = checkTemplate(body, catalogue)
    const found = recordId ? await mustBeTexted(asker, recordId) : await exampleOf(asker, modules)
    const about = found ? { id: found.id, name: found.name } : null
    if (problems.length > 0 || !found) return { problems, holes: [], text: null, record: about }
    const { values, clock } = await valuesFor(asker, found, await onWhat(asker, found), { aboutId: null, ref: EXAMPLE_REF })
    const filled = fillerOf(body)({ ...values, fill_in: exampleAnswers(fillIns) }, clock)
    if (filled.ok) return { problems: [], holes: [], text: filled.text, record: about }
    const labels = await labelsOf(modules)
    return {
      problems: filled.problems,
      holes: filled.holes.map(hole => ({ ...hole, label: labels.get(hole.path) ?? hole.path })),
      text: null,
      record: about,
    }
  })
}

const EXAMPLE_REF = '4K7P2M9X'

async function mustBeTexted(asker: SignedIn, recordId: string): Promise<StoredRecord> {
  const found = await authorize(asker, 'record.see', recordId)
  if (!hasNumbers(found.module)) throw badInput({ recordId: 'Templates are for whom can be texted. Open one of the people on this record.' })
  return found
}

/** What a person is on; templates for other modules speak of nothing besides. */
const onWhat = async (asker: SignedIn, found: StoredRecord) => isPersonModule(found.module) ? relatedTo(asker, found) : []

async function exampleOf(asker: SignedIn, modules: TextedModule[]): Promise<StoredRecord | undefined> {
  if (modules.length === 0) return undefined
  const [found] = await read(database => database.select({ record }).from(record).leftJoin(contact, eq(contact.recordId, record.id))
    .where(and(inArray(record.module, modules), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
    .orderBy(sql`${contact.at} desc nulls last`)
    .limit(1))
  return found?.record
}

async function labelsOf(modules: TextedModule[]): Promise<Map<string, string>> {
  return new Map(Object.values(await catalogueOf(modules)).flat().map(field => [field.path, fullLabel(field)]))
}

function shown(
  { id, name, description, folder, version, fillIns }: StoredTemplate,
  filled: Filled,
  labels: Map<string, string>,
): Omit<FilledTemplate, 'favourite' | 'times'> {
  return { id, name, description, folder, version, fillIns, text: filled.ok ? filled.text : null, missing: whatIsMissing(filled, labels) }
}

function whatIsMissing(filled: Filled, labels: Map<string, string>): string[] {
  if (filled.ok) return []
  return [...new Set([...filled.holes.map(hole => labels.get(hole.path) ?? hole.path), ...filled.problems.map(problem => problem.message)])]
}
