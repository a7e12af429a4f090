import { asc, inArray } from 'drizzle-orm'
import { can } from '~~/shared/permissions'
import type { CarrierAway } from '~~/shared/today'
import { carriersAway } from '../carriers/away'
import { read } from '../db/door'
import { line } from '../db/schema'
import type { SignedIn } from '../identity/sign-in'
import { lineBelongs } from '../texting/lines'

/** Carriers that cannot be reached, each with those of its lines that a lead answers for: texts over these wait. */
export async function awayOver(asker: SignedIn): Promise<CarrierAway[]> {
  const away = carriersAway()
  if (away.length === 0) return []
  const names = away.map(({ name }) => name)
  const over = await read(database => database.select().from(line).where(inArray(line.carrier, names)).orderBy(asc(line.name)))
  const lines = over.filter(one => one.active && can(asker, 'line.answer', lineBelongs(one)))
  const linesOf = (carrier: string) => lines.filter(one => one.carrier === carrier).map(one => one.name)
  return away.map(({ name, ...one }) => ({ ...one, lines: linesOf(name) })).filter(one => one.lines.length > 0)
}
