import { sql, type SQL } from 'drizzle-orm'
import type { Asker } from '~~/shared/permissions'
import { colleague, groupMember, numberState, peopleGroup, phone, pipeline, record, stage } from '../db/schema'
import { seesRecord } from '../reading/visible'

/**
 * How the records `r` of a list are gone through in the order of a column, so that a page of them costs what a page costs
 * and not what all of them would.
 *
 * - `column`: in the order of a column, by its index; what is empty in it comes last, whichever way.
 * - `few`: by things of which there are few, each with many records, such as colleagues: from one to the next, and of each
 *   the first of its records.
 * - `many`: by things of which there are as many as records, such as companies: by their index, or, where few records are
 *   meant, from these; the database knows which is shorter.
 * - `whole`: all of them are sorted.
 */
export type Walk = { by: 'column', key: SQL, empty: Empty } | { by: 'few' | 'many', through: Through } | { by: 'whole', key: SQL }

/** How one knows that a column is empty, and whether its index has that last by itself; null where it never is. */
type Empty = { is: SQL, last: boolean } | null

interface Through {
  /** Rows of a table or a query, `w`. */
  of: SQL
  /** What these are sorted by. */
  key: SQL
  /** Which records belong to one of them. */
  link: SQL
  /** Which records belong to none of them; left out where each belongs to one. */
  none?: SQL
  /** These come last, whichever way, unless having none is the least that one can have. */
  noneIsLeast?: boolean
}

export type Direction = 'up' | 'down'

/** As people sort names, not by code points, where Zoe comes before ada. */
const COLLATION = sql`collate "und-x-icu"`

const few = (through: Through): Walk => ({ by: 'few', through })
const many = (through: Through): Walk => ({ by: 'many', through })
const column = (key: SQL, empty: Empty = { is: sql`${key} is null`, last: true }): Walk => ({ by: 'column', key, empty })
const words = (key: SQL): Walk => column(sql`${key} ${COLLATION}`)

const STAGES = sql`(select st.id, st.over, pl.position * 1000 + st.position as place from ${stage} st
  join ${pipeline} pl on pl.id = st.pipeline_id) w`
const IN_STAGE = { of: STAGES, link: sql`r.stage_id = w.id`, none: sql`r.stage_id is null` }
const REFUSED = sql`${numberState} n join ${phone} x on x.e164 = n.e164`

const WALKS: Record<string, Walk> = {
  'name': column(sql`r.name ${COLLATION}`, null),
  'stage': few({ ...IN_STAGE, key: sql`w.place` }),
  'over': few({ ...IN_STAGE, key: sql`w.over`, noneIsLeast: true }),
  'pipeline': few({
    of: sql`${pipeline} w`,
    key: sql`w.name ${COLLATION}`,
    link: sql`r.pipeline_id = w.id`,
    none: sql`r.pipeline_id is null`,
  }),
  'owner': few({ of: sql`${colleague} w`, key: sql`w.name ${COLLATION}`, link: sql`r.owner_id = w.id` }),
  'phone': many({
    of: sql`${phone} w`,
    key: sql`coalesce(w.e164, w.typed) ${COLLATION}`,
    link: sql`w.record_id = r.id and w.position = 0`,
    none: sql`not exists (select 1 from ${phone} x where x.record_id = r.id and x.position = 0)`,
  }),
  'opted-out': many({
    of: sql`(select distinct x.record_id from ${REFUSED} where n.texts = 'refused') w`,
    key: sql`w.record_id is not null`,
    link: sql`w.record_id = r.id`,
    none: sql`not exists (select 1 from ${REFUSED} where x.record_id = r.id and n.texts = 'refused')`,
    noneIsLeast: true,
  }),
  'last-contact': column(sql`contact.at`, { is: sql`contact.record_id is null`, last: false }),
  'made': column(sql`r.made_at`, null),
  'tags': column(sql`nullif(r.tags, '{}') ${COLLATION}`),
  'city': words(sql`r.city`),
  'title': words(sql`r.title`),
  'mail': words(sql`r.mail`),
  'street': words(sql`r.street`),
  'postcode': words(sql`r.postcode`),
  'region': words(sql`r.region`),
  'country': words(sql`r.country`),
}

/** Of those into which it was put by hand. */
const NAMES_OF_GROUPS = sql`(select string_agg(g.name, ', ' order by g.name ${COLLATION}) from ${groupMember} m
  join ${peopleGroup} g on g.id = m.group_id where m.record_id = r.id)`

/** By the name of another record, of those that the asker may see. */
const byNameOf = (asker: Asker, id: SQL, modules: SQL): Walk => many({
  of: sql`(select x.id, x.name from ${record} x where ${modules} and ${seesRecord(asker, 'x')}) w`,
  key: sql`w.name ${COLLATION}`,
  link: sql`w.id = ${id}`,
  none: sql`not exists (select 1 from ${record} x where x.id = ${id} and ${seesRecord(asker, 'x')})`,
})

/** By what the company is in, of those that the asker may see. */
const bySector = (asker: Asker): Walk => many({
  of: sql`(select x.id, nullif(x.fields ->> 'sector', '') as sector from ${record} x
    where x.module = 'company' and nullif(x.fields ->> 'sector', '') is not null and ${seesRecord(asker, 'x')}) w`,
  key: sql`w.sector ${COLLATION}`,
  link: sql`w.id = r.company_id`,
  none: sql`not exists (select 1 from ${record} x where x.id = r.company_id and nullif(x.fields ->> 'sector', '') is not null
    and ${seesRecord(asker, 'x')})`,
})

/**
 * @param key of a column
 * @param value what stands in it, as `conditions` ask for it
 */
export function walkOf(asker: Asker, key: string, kind: string, value: SQL): Walk {
  if (key === 'company') return byNameOf(asker, sql`r.company_id`, sql`x.module = 'company'`)
  if (key === 'sector') return bySector(asker)
  if (key === 'about') return byNameOf(asker, sql`r.about_id`, sql`true`)
  // a sentence that is made for whoever looks, of several names
  if (key === 'people') return { by: 'whole', key: sql`${value} ${COLLATION}` }
  if (key === 'groups') return { by: 'whole', key: sql`${NAMES_OF_GROUPS} ${COLLATION}` }
  return WALKS[key] ?? column(inOrder(kind, value))
}

/** A value as it is sorted by. */
export const inOrder = (kind: string, value: SQL): SQL => kind === 'words' || kind === 'one' ? sql`${value} ${COLLATION}` : value

/** The order of a walk, for whoever reads all of it. */
export function orderOf(walk: Walk, direction: Direction): SQL {
  const way = wayOf(direction)
  if (walk.by === 'column' || walk.by === 'whole') return sql`${walk.key} ${way} nulls last, r.id ${way}`
  const { of, key, link, none, noneIsLeast } = walk.through
  const keyOfIts = sql`(select ${key} from ${of} where ${link})`
  const nonesFirst = noneIsLeast && direction === 'up'
  return sql`${none ? sql`(${none}) ${nonesFirst ? sql`desc` : sql`asc`}, ` : sql``}${keyOfIts} ${way}, r.id ${way}`
}

/** These stand in the words: with an unknown limit the database would rather sort everything. */
const cut = (size: number, after: number): SQL => sql.raw(`limit ${size} offset ${after}`)

const wayOf = (direction: Direction): SQL => direction === 'up' ? sql`asc` : sql`desc`

/** A stretch of a walk: `which` records there are on it, and the ids of so many of them in order, after some that are left out. */
interface Stretch { which: SQL, ids: (size: number, after: number) => SQL }

/**
 * The stretches of a walk, one after the other, each as statements that give ids.
 *
 * @param from records `r` with what conditions speak of
 */
export function stretchesOf(walk: Walk, direction: Direction, { from, where }: { from: SQL, where: SQL }): Stretch[] {
  const way = wayOf(direction)
  const all = (condition: SQL, order: SQL): Stretch => {
    const which = sql`${from} where ${where} and ${condition}`
    return { which, ids: (size, after) => sql`select r.id from ${which} order by ${order} ${cut(size, after)}` }
  }
  const byId = (condition: SQL) => all(condition, sql`r.id ${way}`)
  if (walk.by === 'whole') return [all(sql`true`, orderOf(walk, direction))]
  if (walk.by === 'column') {
    const { key, empty } = walk
    const byKey = (condition: SQL) => all(condition, sql`${key} ${way}, r.id ${way}`)
    // read backwards an index has first what it has last
    return !empty || (empty.last && direction === 'up') ? [byKey(sql`true`)] : [byKey(sql`${key} is not null`), byId(empty.is)]
  }
  const { of, key, link, none, noneIsLeast } = walk.through
  const theirs: Stretch = walk.by === 'many'
    ? {
        which: sql`${from} join ${of} on ${link} where ${where}`,
        ids: (size, after) => sql`select r.id from ${from} join ${of} on ${link} where ${where}
          order by ${key} ${way}, r.id ${way} ${cut(size, after)}`,
      }
    : {
        which: sql`${from} where ${where} and exists (select 1 from ${of} where ${link})`,
        ids: (size, after) => sql`
          select its.id from ${of} cross join lateral (select r.id from ${from} where ${where} and ${link}
            order by r.id ${way} ${cut(size + after, 0)}) its
          order by ${key} ${way}, its.id ${way} ${cut(size, after)}`,
      }
  if (!none) return [theirs]
  return noneIsLeast && direction === 'up' ? [byId(none), theirs] : [theirs, byId(none)]
}
