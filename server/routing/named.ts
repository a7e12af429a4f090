import { sql, type SQL } from 'drizzle-orm'
import { can, type Asker, type Permission } from '~~/shared/permissions'
import type { Named } from '~~/shared/schemas/common'
import { ask } from '../db/door'
import { uuidArray } from '../db/instants'
import {
  audit,
  bulkChange,
  bulkText,
  call,
  callTransfer,
  callRound,
  carrierAccount,
  closedDay,
  consentProposal,
  conversation,
  job,
  line,
  message,
  phone,
  picture,
  record,
  recording,
  recordImport,
  setAsideEvent,
  signIn,
  spokenMessage,
  task,
  template,
  view,
  inboxView,
  invitation,
  moneyAsk,
  moneyEntry,
  moneyLimit,
  paperFile,
  registration,
  knock,
  knockFor,
  activity,
  activityOnRecord,
} from '../db/schema'
import { notFound } from '../http/problem'
import { mayReadEntry } from '../reading/entries'
import { visible } from '../reading/visible'

/** An id that a request names, and what it names. */
export interface NamedId { what: Named, id: string }

interface Kind {
  /** What it is called where it is not found. */
  words: string
  from: SQL
  id: SQL
  /** Whether somebody may see the thing; null for what everybody in the firm may. */
  seen: ((asker: Asker) => SQL) | null
}

const sees = (asker: Asker, owner: string, team: string): SQL =>
  visible(asker, 'record.see', { owner: sql.raw(owner), team: sql.raw(team) })
const answers = (asker: Asker, lineId: SQL): SQL => sql`${lineId} in (select l.id from ${line} l
  where ${visible(asker, 'line.answer', { owner: sql`l.colleague_id`, team: sql`l.team_id` })})`
const everybodys = (words: string, table: SQL): Kind => ({ words, from: sql`${table} x`, id: sql`x.id`, seen: null })
const forWhoMay = (permission: Permission, words: string, table: SQL): Kind => ({
  words,
  from: sql`${table} x`,
  id: sql`x.id`,
  seen: asker => (can(asker, permission, {}) ? sql`true` : sql`false`),
})

const ofCall = (asker: Asker): SQL => sql`(x.colleague_id = ${asker.id}::uuid or ${answers(asker, sql`x.line_id`)}
  or ${mayReadEntry(asker, sql`x.activity_id`)}
  or exists (select 1 from ${callTransfer} h where h.call_id = x.id and h.to_id = ${asker.id}::uuid))`

/** Of everything that a request can name: where it is, and who may see it. The compiler names what is missing here. */
const KINDS: Record<Named, Kind> = {
  'record': { words: 'record', from: sql`${record} x`, id: sql`x.id`, seen: asker => sees(asker, 'x.owner_id', 'x.team_id') },
  'phone': {
    words: 'number',
    from: sql`${phone} x join ${record} r on r.id = x.record_id`,
    id: sql`x.id`,
    seen: asker => sees(asker, 'r.owner_id', 'r.team_id'),
  },
  'conversation': { words: 'conversation', from: sql`${conversation} x`, id: sql`x.id`, seen: asker => answers(asker, sql`x.line_id`) },
  'message': { words: 'text', from: sql`${message} x`, id: sql`x.id`, seen: asker => mayReadEntry(asker, sql`x.activity_id`) },
  'entry': {
    words: 'entry',
    from: sql`${activity} x`,
    id: sql`x.id`,
    // what shows nowhere yet, such as the beginning of a file, tells nothing
    seen: asker => sql`(${mayReadEntry(asker, sql`x.id`)} or not exists (select 1 from ${activityOnRecord} s where s.activity_id = x.id))`,
  },
  'picture': {
    words: 'picture',
    from: sql`${picture} x left join ${message} m on m.id = x.message_id`,
    id: sql`x.id`,
    seen: asker => sql`(x.colleague_id = ${asker.id}::uuid or ${mayReadEntry(asker, sql`m.activity_id`)})`,
  },
  'proposal': { words: 'proposal', from: sql`${consentProposal} x`, id: sql`x.id`, seen: asker => mayReadEntry(asker, sql`x.activity_id`) },
  'call': { words: 'call', from: sql`${call} x`, id: sql`x.id`, seen: ofCall },
  'recording': { words: 'recording', from: sql`${recording} y join ${call} x on x.id = y.call_id`, id: sql`y.id`, seen: ofCall },
  'spoken': {
    words: 'message',
    from: sql`${spokenMessage} x`,
    id: sql`x.id`,
    seen: asker => visible(asker, 'spoken.leave', { owner: sql`x.owner_id`, team: sql`x.team_id` }),
  },
  'round': {
    words: 'round',
    from: sql`${callRound} x`,
    id: sql`x.id`,
    seen: asker => visible(asker, 'round.work', { owner: sql`x.made_by`, team: sql`x.team_id` }),
  },
  'task': {
    words: 'task',
    from: sql`${task} x join ${record} r on r.id = x.record_id`,
    id: sql`x.id`,
    seen: asker => sql`(x.colleague_id = ${asker.id}::uuid or ${sees(asker, 'r.owner_id', 'r.team_id')})`,
  },
  'knock': {
    words: 'knock',
    from: sql`${knock} x`,
    id: sql`x.id`,
    seen: asker => sql`exists (select 1 from ${knockFor} f where f.knock_id = x.id and f.colleague_id = ${asker.id}::uuid)`,
  },
  'template': {
    words: 'template',
    from: sql`${template} x`,
    id: sql`x.id`,
    seen: asker => sql`(x.audience = 'all' or ${visible(asker, 'template.see', { owner: sql`x.owner_id`, team: sql`x.team_id` })}
      or ${visible(asker, 'template.edit', { owner: sql`x.owner_id`, team: sql`x.team_id` })})`,
  },
  'line': {
    words: 'line',
    from: sql`${line} x`,
    id: sql`x.id`,
    seen: asker =>
      sql`(${visible(asker, 'line.answer', { owner: sql`x.colleague_id`, team: sql`x.team_id` })} or ${visible(asker, 'line.edit', { owner: sql`x.colleague_id`, team: sql`x.team_id` })})`,
  },
  'view': {
    words: 'view',
    from: sql`${view} x`,
    id: sql`x.id`,
    seen: asker => visible(asker, 'view.see', { owner: sql`x.owner_id`, team: sql`x.team_id` }),
  },
  'inbox-view': {
    words: 'view',
    from: sql`${inboxView} x`,
    id: sql`x.id`,
    seen: asker => visible(asker, 'view.see', { owner: sql`x.owner_id`, team: sql`x.team_id` }),
  },
  'bulk-change': { words: 'change', from: sql`${bulkChange} x`, id: sql`x.id`, seen: asker => sql`x.colleague_id = ${asker.id}::uuid` },
  'bulk-text': {
    words: 'bulk text',
    from: sql`${bulkText} x`,
    id: sql`x.id`,
    seen: asker => visible(asker, 'bulk.work', { owner: sql`x.made_by`, team: sql`null::uuid` }),
  },
  'import': { words: 'import', from: sql`${recordImport} x`, id: sql`x.id`, seen: asker => sql`x.colleague_id = ${asker.id}::uuid` },
  'sign-in': { words: 'sign-in', from: sql`${signIn} x`, id: sql`x.id`, seen: asker => sql`x.colleague_id = ${asker.id}::uuid` },
  'job': forWhoMay('stuck.see', 'job', sql`${job}`),
  'set-aside-event': forWhoMay('stuck.see', 'event', sql`${setAsideEvent}`),
  'carrier': forWhoMay('carrier.edit', 'carrier', sql`${carrierAccount}`),
  'invitation': forWhoMay('people.edit', 'invitation', sql`${invitation}`),
  'money-entry': forWhoMay('money.edit', 'entry', sql`${moneyEntry}`),
  'audit-entry': forWhoMay('audit.see', 'entry', sql`${audit}`),
  'money-ask': forWhoMay('money.edit', 'request', sql`${moneyAsk}`),
  'money-limit': forWhoMay('money.edit', 'limit', sql`${moneyLimit}`),
  'registration': forWhoMay('carrier.edit', 'registration', sql`${registration}`),
  'paper-file': forWhoMay('carrier.edit', 'file', sql`${paperFile}`),
  'closed-day': forWhoMay('rules.edit', 'day', sql`${closedDay}`),
  'group': everybodys('group', sql`people_group`),
  'disposition': everybodys('disposition', sql`disposition`),
  'colleague': everybodys('colleague', sql`colleague`),
  'team': everybodys('team', sql`team`),
  'pipeline': everybodys('pipeline', sql`pipeline`),
  'stage': everybodys('stage', sql`stage`),
  'field': everybodys('field', sql`custom_field`),
}

/** Of these nobody has to be asked. */
const isEverybodys = (what: Named): boolean => KINDS[what].seen === null

/**
 * Whether somebody may see all that a request of theirs names, asked in one statement before anything is done with it.
 * What does not exist is for the use case to say: it may have been removed a moment ago.
 *
 * @throws Problem 404, as if there were none, for what is there and not theirs to see
 */
export async function mustSeeNamed(asker: Asker, named: NamedId[]): Promise<void> {
  const asked = named.filter(({ what }) => !isEverybodys(what))
  if (asked.length === 0) return
  const parts = [...new Set(asked.map(({ what }) => what))].map((what) => {
    const { from, id, seen } = KINDS[what]
    const ids = asked.filter(one => one.what === what).map(one => one.id)
    return sql`(select ${what}::text as what from ${from} where ${id} = any(${uuidArray(ids)}) and not coalesce(${seen!(asker)}, false)
      limit 1)`
  })
  const { rows: [hidden] } = await ask<{ what: Named }>(sql`select hidden.what from (${sql.join(parts, sql` union all `)}) hidden limit 1`)
  if (hidden) throw notFound(KINDS[hidden.what].words)
}
