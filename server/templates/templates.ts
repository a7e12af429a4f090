import { and, desc, eq, isNull, or, sql } from 'drizzle-orm'
import { checkTemplate } from '~~/core/template/check'
import { can } from '~~/shared/permissions'
import type { EditTemplate, MakeTemplate, TemplateForm } from '~~/shared/schemas/template'
import type { TemplateDetail, TemplateVersion } from '~~/shared/template'
import { once, read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, team, template, templateMine, templateVersion } from '../db/schema'
import { badInput, conflict, notAllowed, notFound } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'
import { visible } from '../reading/visible'
import { catalogueOf } from './catalogue'
import { usedBy } from './used-by'

type StoredTemplate = typeof template.$inferSelect

/** Those that are offered to somebody: one's own, one's teams', and those for all. */
export const offered = (asker: SignedIn) =>
  and(
    isNull(template.retiredAt),
    or(eq(template.audience, 'all'), visible(asker, 'template.see', { owner: template.ownerId, team: template.teamId })),
  )

/** Every template that is offered to somebody, by name. */
export async function listTemplates(asker: SignedIn): Promise<TemplateDetail[]> {
  const rows = await read(database =>
    database
      .select({
        template,
        owner: colleague.name,
        changedAt: milliseconds(template.changedAt),
        team: { id: team.id, name: team.name },
        favourite: templateMine.favourite,
        times: templateMine.times,
        usedBy: usedBy(sql`${template.id}`),
      })
      .from(template)
      .innerJoin(colleague, eq(colleague.id, template.ownerId))
      .leftJoin(team, eq(team.id, template.teamId))
      .leftJoin(templateMine, and(eq(templateMine.templateId, template.id), eq(templateMine.colleagueId, asker.id)))
      .where(offered(asker))
      .orderBy(sql`${template.name} collate "und-x-icu"`),
  )
  return rows.map(
    ({
      template: { id, name, description, folder, modules, body, fillIns, audience, version, ownerId },
      owner,
      changedAt,
      team: of,
      favourite,
      times,
      usedBy,
    }) => ({
      id,
      name,
      description,
      folder,
      modules,
      body,
      fillIns,
      audience,
      version,
      ownerId,
      owner,
      changedAt,
      team: of,
      mayEdit: can(asker, 'template.edit', { ownerId }),
      favourite: favourite ?? false,
      times: times ?? 0,
      usedBy,
    }),
  )
}

/** Sending the same again makes nothing more. */
export async function addTemplate(asker: SignedIn, { id, ...form }: MakeTemplate, now: Date): Promise<string> {
  if (!can(asker, 'template.edit', { ownerId: asker.id })) throw notAllowed('write templates. Ask an admin for that')
  return tx(async (database) => {
    await mustBeSound(form)
    const [made] = await database
      .insert(template)
      .values({ ...form, teamId: teamFor(asker, form), id, version: 1, ownerId: asker.id, changedAt: now })
      .onConflictDoNothing()
      .returning({ id: template.id })
    if (made) await keepVersion(id, 1, form, asker, now)
    return id
  })
}

/** @throws Problem 409 if somebody else has saved it meanwhile */
export async function changeTemplate(asker: SignedIn, id: string, { version, ...form }: EditTemplate, now: Date): Promise<void> {
  await tx(async (database) => {
    const found = await mustMayEdit(asker, id)
    await mustBeSound(form)
    const [changed] = await database.update(template)
      .set({ ...form, teamId: teamFor(asker, form, found), version: version + 1, changedAt: now })
      .where(and(eq(template.id, id), eq(template.version, version)))
      .returning({ id: template.id })
    if (!changed)
      throw conflict(
        'stale',
        'Changed meanwhile',
        `Somebody else has saved version ${found.version} since you opened it. Copy your wording, reload, and put it in again.`,
      )
    await keepVersion(id, version + 1, form, asker, now)
  })
}

/** Every wording that a template had, the newest first. */
export async function versionsOf(asker: SignedIn, id: string): Promise<TemplateVersion[]> {
  await mustSeeTemplate(asker, id)
  return read(database =>
    database
      .select({
        version: templateVersion.version,
        name: templateVersion.name,
        body: templateVersion.body,
        fillIns: templateVersion.fillIns,
        at: milliseconds(templateVersion.at),
        by: colleague.name,
      })
      .from(templateVersion)
      .innerJoin(colleague, eq(colleague.id, templateVersion.colleagueId))
      .where(eq(templateVersion.templateId, id))
      .orderBy(desc(templateVersion.version)),
  )
}

export async function setFavourite(asker: SignedIn, id: string, favourite: boolean): Promise<void> {
  await mustSeeTemplate(asker, id)
  await tx(database => database.insert(templateMine).values({ colleagueId: asker.id, templateId: id, favourite })
    .onConflictDoUpdate({ target: [templateMine.colleagueId, templateMine.templateId], set: { favourite } }))
}

/** What I use comes first where templates are chosen. The text has left already: a template that is not there fails nothing. */
export async function countUse(colleagueId: string, templateId: string): Promise<void> {
  await once(sql`
    insert into ${templateMine} as mine (colleague_id, template_id, times) select ${colleagueId}::uuid, id, 1 from ${template}
      where id = ${templateId}::uuid
    on conflict (colleague_id, template_id) do update set times = mine.times + 1`)
}

/** @throws Problem 404 for one that is not there, or not for this asker */
export async function mustSeeTemplate(asker: SignedIn, id: string): Promise<StoredTemplate> {
  const [found] = await read(database => database.select().from(template).where(and(eq(template.id, id), offered(asker))))
  if (!found) throw notFound('template')
  return found
}

export async function mustMayEdit(asker: SignedIn, id: string): Promise<StoredTemplate> {
  const found = await mustSeeTemplate(asker, id)
  if (!can(asker, 'template.edit', found)) throw notAllowed('change this template; only its owner and leads may')
  return found
}

/** @throws Problem 422 at the field, if somebody else’s team is named, or all by who may not */
function teamFor(asker: SignedIn, { audience, teamId }: TemplateForm, before?: StoredTemplate): string | null {
  if (audience === 'all' && before?.audience !== 'all' && !can(asker, 'template.for-all', {}))
    throw badInput({ audience: 'Only leads and admins make templates for everyone. Share it with your team, and ask your lead.' })
  if (audience !== 'team') return null
  const chosen = teamId ?? asker.teamIds[0]
  if (!chosen || (!asker.teamIds.includes(chosen) && chosen !== before?.teamId))
    throw badInput({ audience: 'Choose a team that you are in.' })
  return chosen
}

/** @throws Problem 422 with the first mistake and its place, if it may not be saved so */
async function mustBeSound({ body, modules, fillIns }: TemplateForm): Promise<void> {
  const [first] = checkTemplate(body, await catalogueOf(modules, fillIns))
  if (first) throw badInput({ body: `Line ${first.line}, character ${first.column}: ${first.message}` })
}

async function keepVersion(
  templateId: string,
  version: number,
  { name, body, fillIns }: TemplateForm,
  asker: SignedIn,
  at: Date,
): Promise<void> {
  await tx(database => database.insert(templateVersion).values({ templateId, version, name, body, fillIns, at, colleagueId: asker.id }))
}
