import { and, eq, sql } from 'drizzle-orm'
import type { OwedFor } from '~~/core/owed/owed'
import { readPhone } from '~~/core/phone/read'
import type { Asker } from '~~/shared/permissions'
import type { Module } from '~~/shared/modules'
import type { ConversationDetail, ShelfItem } from '~~/shared/shelf'
import { read, tx } from '../db/door'
import { milliseconds } from '../db/instants'
import { colleague, conversation, line, numberState, phone, record } from '../db/schema'
import { notFound } from '../http/problem'
import { joinContact } from '../reading/contact'
import { seesRecord, visible } from '../reading/visible'
import { clockRules, phonesOf, zonesOf } from '../records/phones'
import { readConversationEntries } from '../timeline/read'
import { owesMe } from './inbox'

/** As many as anybody can look over; more are counted. */
const MOST = 100

/** Conversations on my lines that wait for an answer, the longest waiting first. */
export async function readShelf(asker: Asker): Promise<{ items: ShelfItem[], total: number }> {
  const { rows } = await read(database => database.execute<Row>(sql`
    select v.id, v.remote, ${milliseconds(sql`v.waits_since`)} as waits_since, v.waits_for, l.id as line_id, l.name as line_name,
      h.id as record_id, h.name as record_name, h.module, coalesce(h.holders, 0)::int as holders, count(*) over ()::int as total
    from ${conversation} v
    join ${line} l on l.id = v.line_id and ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })}
    left join lateral (
      select r.id, r.name, r.module, count(*) over () as holders from ${phone} p join ${record} r on r.id = p.record_id ${joinContact}
      where p.e164 = v.remote and ${seesRecord(asker, 'r')}
      order by contact.at desc nulls last limit 1
    ) h on true
    where ${owesMe(asker)}
    order by v.waits_since limit ${MOST}`))
  return {
    total: rows[0]?.total ?? 0,
    items: rows.map(row => ({
      conversationId: row.id,
      record: row.record_id ? { id: row.record_id, name: row.record_name, module: row.module } : null,
      holders: row.holders,
      remote: row.remote,
      lineId: row.line_id,
      line: row.line_name,
      waitsSince: row.waits_since,
      waitsFor: row.waits_for,
    })),
  }
}

type Row = Record<string, unknown> & {
  id: string
  remote: string
  waits_since: number
  waits_for: OwedFor
  line_id: string
  line_name: string
  record_id: string | null
  record_name: string
  module: Module
  holders: number
  total: number
}

function countryOf(remote: string): string | null {
  const reading = readPhone(remote)
  return reading.ok ? reading.country : null
}

/**
 * A conversation with its newest texts, as it opens from the shelf.
 *
 * @throws Problem 404 if its line is not mine to answer
 */
export async function readConversation(asker: Asker, conversationId: string, now: Date): Promise<ConversationDetail> {
  return tx(async (database) => {
    const [found] = await database
      .select({
        conversation,
        lineId: line.id,
        lineName: line.name,
        assignee: { id: colleague.id, firstName: colleague.firstName },
        languages: line.languages,
        texts: numberState.texts,
        lastHeardAt: milliseconds(numberState.lastHeardAt),
      })
      .from(conversation)
      .innerJoin(line, and(eq(line.id, conversation.lineId), visible(asker, 'line.answer', { owner: line.colleagueId, team: line.teamId })))
      .leftJoin(colleague, eq(colleague.id, conversation.assigneeId))
      .leftJoin(numberState, eq(numberState.e164, conversation.remote))
      .where(eq(conversation.id, conversationId))
    if (!found) throw notFound('conversation')
    const records = await database
      .selectDistinct({ record })
      .from(phone)
      .innerJoin(record, and(eq(record.id, phone.recordId), visible(asker, 'record.see', { owner: record.ownerId, team: record.teamId })))
      .where(eq(phone.e164, found.conversation.remote))
    const holder = records[0]?.record
    const number = holder && (await phonesOf(asker, [holder.id])).find(one => one.e164 === found.conversation.remote)
    const zoneNames = number?.zones ?? zonesOf({ zone: null, country: null, region: null }, found.conversation.remote)
    return {
      id: conversationId,
      lineId: found.lineId,
      lineName: found.lineName,
      languages: found.languages,
      remote: found.conversation.remote,
      country: number?.country ?? countryOf(found.conversation.remote),
      waitsSince: found.conversation.waitsSince?.getTime() ?? null,
      returnsAt: found.conversation.returnsAt?.getTime() ?? null,
      assignee: found.assignee,
      records: records.map(({ record: { id, name, firstName, module, title, city } }) => ({ id, name, firstName, module, title, city })),
      phone: number ?? null,
      optedOut: found.texts === 'refused',
      lastHeardAt: found.lastHeardAt,
      zones: clockRules(zoneNames, now),
      zoneNames,
      entries: await readConversationEntries(conversationId),
    }
  })
}
