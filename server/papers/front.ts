import { asc, desc, eq, isNull, sql } from 'drizzle-orm'
import { differ, missingFrom, type Papers } from '~~/core/papers/papers'
import { LEAST_LIKENESS, nearestSample } from '~~/core/papers/likeness'
import type { PapersFront, PapersWanted, Registration } from '~~/shared/papers'
import type { Carrier } from '../carriers/port'
import { allCarriers, carrierRegistered } from '../carriers/registry'
import { ask, read } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, line, registration, registrationStep, template } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { listFiles, mustEditPapers, readPapers } from './written'

/** What is written, what lies with whom, and what is still asked for. */
export async function readFront(asker: SignedIn): Promise<PapersFront> {
  mustEditPapers(asker)
  const { papers, version } = await readPapers()
  const registrations = await readRegistrations(papers)
  const { wanted, away } = await wantedBy(registrations)
  return {
    papers,
    version,
    missing: missingFrom(papers),
    files: await listFiles(),
    registrations,
    wanted,
    byHand: allCarriers().filter(carrier => !carrier.papers).map(({ name, title }) => ({ name, title })),
    away,
    drifting: registrations.length > 0 ? await drifting() : [],
  }
}

async function readRegistrations(papers: Papers): Promise<Registration[]> {
  const rows = await read(database => database
    .select({
      id: registration.id, carrier: registration.carrier, country: registration.country, state: registration.state, ref: registration.ref,
      papers: registration.papers, handedAt: milliseconds(registration.handedAt), answeredAt: milliseconds(registration.answeredAt),
      leastDays: registration.leastDays, mostDays: registration.mostDays,
    })
    .from(registration).orderBy(asc(registration.handedAt), asc(registration.id)))
  const steps = await read(database => database
    .select({
      registrationId: registrationStep.registrationId, at: milliseconds(registrationStep.at), kind: registrationStep.kind,
      words: registrationStep.words, by: colleague.name,
    })
    .from(registrationStep).leftJoin(colleague, eq(colleague.id, registrationStep.colleagueId))
    .orderBy(desc(registrationStep.at), desc(registrationStep.id)))
  return rows.map(({ papers: handed, ...one }) => {
    const carrier = carrierRegistered(one.carrier)
    return {
      ...one,
      title: carrier?.title ?? 'A carrier that is not there any more',
      changedSince: differ(handed, papers),
      byItself: carrier?.papers !== undefined,
      steps: steps.filter(({ registrationId }) => registrationId === one.id).map(({ registrationId: _of, ...step }) => step),
    }
  })
}

/** Asks the carriers that take papers by themselves for which countries they want them, and leaves out what they have. */
async function wantedBy(registrations: Registration[]): Promise<{ wanted: PapersWanted[], away: string[] }> {
  const { rows } = await ask<{ carrier: string, country: string, lines: number }>(sql`
    select carrier, country, count(*)::int as lines from ${line} where state <> 'ended' group by carrier, country`)
  const asked = await Promise.all(allCarriers().filter(({ papers }) => papers).map(carrier => wants(carrier)))
  const linesOf = (carrier: string, country: string) => rows.find(row => row.carrier === carrier && row.country === country)?.lines ?? 0
  const has = (carrier: string, country: string) => registrations.some(one => one.carrier === carrier && one.country === country)
  return {
    wanted: asked.flatMap(({ carrier: { name, title }, wants }) => (wants ?? [])
      .filter(({ country }) => !has(name, country))
      .map(one => ({ ...one, carrier: name, title, lines: linesOf(name, one.country) }))),
    away: asked.filter(({ wants }) => wants === null).map(({ carrier }) => carrier.title),
  }
}

const wants = async (carrier: Carrier) => ({ carrier, wants: await carrier.papers!.wants().catch(() => null) })

/** Templates that are unlike every sample which a carrier has: it may ask what they are. */
async function drifting(): Promise<PapersFront['drifting']> {
  const handed = await read(database => database.select({ papers: registration.papers }).from(registration))
  const samples = [...new Set(handed.flatMap(({ papers }) => papers.samples))]
  const templates = await read(database => database.select({ id: template.id, name: template.name, body: template.body })
    .from(template).where(isNull(template.retiredAt)))
  return templates
    .map(({ id, name, body }) => ({ id, name, ...nearestSample(body, samples)! }))
    .filter(({ likeness }) => likeness < LEAST_LIKENESS)
    .sort((a, b) => a.likeness - b.likeness)
    .map(({ id, name, likeness, sample }) => ({ id, name, likeness, nearest: sample }))
}
