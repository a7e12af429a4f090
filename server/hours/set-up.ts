import { and, eq, gte, isNull, sql } from 'drizzle-orm'
import { dayAt } from '~~/core/hours/days'
import { weeksInForce } from '~~/core/hours/house'
import { LAWS } from '~~/core/hours/laws'
import { zoneRules } from '~~/core/hours/zones'
import type { HolidayCountry, HoursFront, PlaceHours } from '~~/shared/hours'
import { can } from '~~/shared/permissions'
import type { ClosedDayForm, PlaceHoursForm } from '~~/shared/schemas/hours'
import { ask, read, tx } from '../db/door'
import { closedDay, colleague, firm, holidayCountry, line, placeHours, record } from '../db/schema'
import { conflict, notAllowed, notFound } from '../http/problem'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { HOLIDAY_COUNTRIES, holidaysIn } from './holidays'

function mustEditHours(asker: SignedIn): void {
  if (!can(asker, 'rules.edit', {})) throw notAllowed('change when people are reached; an admin does')
}

/** The hours in which people are reached, by place. */
export async function readHours(asker: SignedIn, now: Date): Promise<HoursFront> {
  mustEditHours(asker)
  const today = dayAt(zoneRules(asker.zone) ?? zoneRules('Etc/UTC')!, now.getTime())
  return tx(async database => ({
    today,
    places: await placesOf(),
    countries: await countriesOf(today),
    closed: await database.select({ id: closedDay.id, place: closedDay.place, day: closedDay.day, name: closedDay.name })
      .from(closedDay).where(gte(closedDay.day, today)).orderBy(closedDay.day, closedDay.place),
  }))
}

async function placesOf(): Promise<PlaceHours[]> {
  const choices = await read(database => database
    .select({ place: placeHours.place, week: placeHours.week, by: colleague.name, at: placeHours.madeAt })
    .from(placeHours).innerJoin(colleague, eq(colleague.id, placeHours.madeBy)))
  const inForce = new Map(weeksInForce(choices).map(({ place, week }) => [place, week]))
  return [...new Set([...LAWS.map(({ place }) => place), ...choices.map(({ place }) => place)])].sort().map((place) => {
    const law = LAWS.find(one => one.place === place)
    const chosen = choices.find(one => one.place === place)
    return {
      place,
      week: inForce.get(place) ?? null,
      law: law ? { week: law.week, source: law.source, asOf: law.asOf } : null,
      chosen: chosen ? { by: chosen.by, at: chosen.at.getTime() } : null,
    }
  })
}

/** As many as show what is meant. */
const NEXT = 4

/** Where the firm is, has lines or knows people, and where holidays are kept. */
async function countriesOf(today: string): Promise<HolidayCountry[]> {
  const { rows } = await ask<{ country: string, kept: boolean }>(sql`
    select country, exists (select 1 from ${holidayCountry} h where h.country = c.country) as kept from (
      select country from ${firm} union select country from ${line} union select country from ${record} where country is not null
      union select country from ${holidayCountry}) c
    order by country`)
  const year = Number(today.slice(0, 4))
  return rows.filter(({ country }) => HOLIDAY_COUNTRIES.has(country)).map(({ country, kept }) => ({
    country,
    kept,
    next: [...holidaysIn(country, year), ...holidaysIn(country, year + 1)].filter(({ day }) => day >= today).slice(0, NEXT),
  }))
}

/** Holds to other hours at a place than its law says, or to none. */
export async function setPlaceHours(asker: SignedIn, place: string, { week }: PlaceHoursForm, now: Date): Promise<void> {
  mustEditHours(asker)
  const made = { week, madeBy: asker.id, madeAt: now }
  await tx(async (database) => {
    await database.insert(placeHours).values({ place, ...made }).onConflictDoUpdate({ target: placeHours.place, set: made })
    await note('place-hours-set', asker.id, now, { place, week })
  })
}

/** The law of the place holds again as it is, or nothing stricter where there is none. */
export async function takeBackPlaceHours(asker: SignedIn, place: string, now: Date): Promise<void> {
  mustEditHours(asker)
  await tx(async (database) => {
    const gone = await database.delete(placeHours).where(eq(placeHours.place, place)).returning()
    if (gone.length === 0) throw notFound('change')
    await note('place-hours-taken-back', asker.id, now, { place })
  })
}

/** Whether somebody is reached in a country on its public holidays. */
export async function keepHolidays(asker: SignedIn, country: string, kept: boolean, now: Date): Promise<void> {
  mustEditHours(asker)
  if (!HOLIDAY_COUNTRIES.has(country)) throw notFound('country')
  await tx(async (database) => {
    if (kept) await database.insert(holidayCountry).values({ country, madeBy: asker.id, madeAt: now }).onConflictDoNothing()
    else await database.delete(holidayCountry).where(eq(holidayCountry.country, country))
    await note('holidays-set', asker.id, now, { country, kept })
  })
}

/** @throws Problem 409 for a day that is there already */
export async function addClosedDay(asker: SignedIn, form: ClosedDayForm, now: Date): Promise<void> {
  mustEditHours(asker)
  await tx(async (database) => {
    const [known] = await database.select().from(closedDay)
      .where(and(eq(closedDay.day, form.day), form.place === null ? isNull(closedDay.place) : eq(closedDay.place, form.place)))
    // the same once more, after an answer that was lost
    if (known?.id === form.id) return
    if (known) throw conflict('day-is-there', 'There already', `Nobody is reached there on that day already: ${known.name}.`)
    await database.insert(closedDay).values({ ...form, madeBy: asker.id, madeAt: now })
    await note('closed-day-added', asker.id, now, { day: form.day, place: form.place, name: form.name })
  })
}

export async function removeClosedDay(asker: SignedIn, id: string, now: Date): Promise<void> {
  mustEditHours(asker)
  await tx(async (database) => {
    const [gone] = await database.delete(closedDay).where(eq(closedDay.id, id)).returning()
    if (!gone) throw notFound('day')
    await note('closed-day-removed', asker.id, now, { day: gone.day, place: gone.place, name: gone.name })
  })
}
