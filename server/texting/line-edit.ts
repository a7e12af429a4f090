import { asc, eq } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { LineForm } from '~~/shared/schemas/line'
import { whyNotStandIn } from '~~/core/lines/stand-in'
import { lineFormOf, type LinePorting, type SetUpLine } from '~~/shared/set-up'
import { carrierRegistered } from '../carriers/registry'
import { read, tx } from '../db/door'
import { colleague, line, numberPorting, team } from '../db/schema'
import { badInput, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { whoAnswers } from './who-answers'

/** All lines of the firm, for those who set them up. */
export async function listLines(asker: SignedIn): Promise<SetUpLine[]> {
  mustEditLines(asker)
  const found = await read(database =>
    database
      .select({
        id: line.id,
        name: line.name,
        e164: line.e164,
        state: line.state,
        country: line.country,
        turnsAt: line.turnsAt,
        rentMicros: line.rentMicros,
        rentCurrency: line.rentCurrency,
        private: line.private,
        colleague: colleague.name,
        team: team.name,
        carrier: line.carrier,
        standInId: line.standInId,
        languages: line.languages,
        records: line.records,
        ownerFirst: line.ownerFirst,
        ringOrder: line.ringOrder,
        takeOrder: line.takeOrder,
        greeting: line.greeting,
        busyGreeting: line.busyGreeting,
        ringSound: line.ringSound,
        ringSeconds: line.ringSeconds,
        textsAMinute: line.textsAMinute,
        textsADay: line.textsADay,
        hours: line.hours,
        porting: numberPorting,
      })
      .from(line)
      .leftJoin(colleague, eq(colleague.id, line.colleagueId))
      .leftJoin(team, eq(team.id, line.teamId))
      .leftJoin(numberPorting, eq(numberPorting.lineId, line.id))
      .orderBy(asc(line.name)),
  )
  return found.map(({ turnsAt, rentMicros, rentCurrency, porting, ...one }) => ({
    ...one,
    porting: porting && one.state === 'ordered' ? asShown(porting) : null,
    turnsAt: turnsAt?.getTime() ?? null,
    rent: rentMicros !== null && rentCurrency ? { micros: rentMicros, currency: rentCurrency } : null,
    rented: carrierRegistered(one.carrier)?.rental !== undefined && turnsAt !== null,
  }))
}

type Porting = typeof numberPorting.$inferSelect
const asShown = ({ lineId: _of, askedAt, ...one }: Porting): LinePorting => ({ ...one, askedAt: askedAt.getTime() })

export function mustEditLines(asker: SignedIn): void {
  if (!can(asker, 'line.edit', {})) throw notAllowed('set up lines; an admin does')
}

/** What is written already keeps the coding that it was measured with, and the carrier that may have it already. */
export async function changeLine(asker: SignedIn, id: string, form: LineForm, now: Date): Promise<SetUpLine[]> {
  return tx(async (database) => {
    const all = await listLines(asker)
    const before = all.find(one => one.id === id)
    if (!before) throw notFound('line')
    if (!carrierRegistered(form.carrier)) throw badInput({ carrier: 'There is no such carrier here. Choose one from the list.' })
    const why = form.standInId && whyNotStandIn({ ...before, carrier: form.carrier }, all.find(one => one.id === form.standInId))
    if (why) throw badInput({ standInId: why })
    const [own] = await database.select({ colleagueId: line.colleagueId, teamId: line.teamId }).from(line).where(eq(line.id, id))
    for (const order of ['ringOrder', 'takeOrder'] as const) {
      if ((await whoAnswers(form[order], own!)).length < form[order].length)
        throw badInput({ [order]: 'Somebody in this order does not answer this line. Remove them, or put them into the team that does.' })
    }
    await database.update(line).set(form).where(eq(line.id, id))
    await note('line-changed', asker.id, now, { lineId: id, from: lineFormOf(before), to: form })
    return listLines(asker)
  })
}
