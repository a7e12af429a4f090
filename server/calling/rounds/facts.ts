import { sql, type SQL } from 'drizzle-orm'
import { passOver } from '~~/core/call/pass-over'
import { wishOf } from '~~/core/hours/wish'
import { call, numberState, phone } from '../../db/schema'
import { milliseconds } from '../../db/instants'
import type { House } from '../../hours/house'
import { placesOf, zonesOf } from '../../records/phones'

const HOUR = 3_600_000

/** What is known of somebody of whom it is to be decided whether they are called now. */
export interface PersonRow extends Record<string, unknown> {
  recordId: string
  zone: string | null
  country: string | null
  region: string | null
  wishFrom: number | null
  wishTo: number | null
  phoneId: string | null
  e164: string | null
  refused: boolean
  lastHeardAt: number | null
  lastCalledAt: number | null
}

/** Columns of a record `r` with its `reach`, for a `PersonRow`. */
export const PERSON_COLUMNS: SQL = sql`
  r.id as "recordId", r.zone, r.country, r.region, r.wish_from as "wishFrom", r.wish_to as "wishTo", reach.id as "phoneId", reach.e164, coalesce(reach.refused, false) as refused,
  ${milliseconds(sql`reach.last_heard_at`)} as "lastHeardAt", ${milliseconds(sql`reach.last_called_at`)} as "lastCalledAt"`

/** The number on which a record `r` is called, the first that may be, and when we last called any of its numbers. */
export const JOIN_REACH: SQL = sql`
  left join lateral (
    select p.id, p.e164, coalesce(n.calls = 'refused', false) as refused, n.last_heard_at,
      (select max(c.made_at) from ${call} c join ${phone} own on own.e164 = c.remote where own.record_id = r.id
        and c.direction = 'out') as last_called_at
    from ${phone} p left join ${numberState} n on n.e164 = p.e164
    where p.record_id = r.id and p.e164 is not null
    order by coalesce(n.calls = 'refused', false), p.position limit 1) reach on true`

export const zonesOfRow = ({ e164, ...place }: PersonRow): string[] => zonesOf(place, e164)
export const placesOfRow = ({ e164, ...place }: PersonRow): string[] => placesOf(place, e164)

/** Why somebody is passed over now; null if they may be called. */
export const whyPassed = (row: PersonRow, house: House, notWithinHours: number, now: Date) =>
  passOver({
    now: now.getTime(),
    hasNumber: row.e164 !== null,
    refused: row.refused,
    zones: zonesOfRow(row),
    house: house(placesOfRow(row)),
    wish: wishOf(row),
    lastHeardAt: row.lastHeardAt,
    lastCalledAt: row.lastCalledAt,
    notWithinMs: notWithinHours * HOUR,
  })
