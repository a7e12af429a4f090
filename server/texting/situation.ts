import { sql } from 'drizzle-orm'
import type { HoursWindow, ReachHours } from '~~/core/hours/week'
import { wishOf } from '~~/core/hours/wish'
import type { Purse } from '~~/core/money/purse'
import { isE164 } from '~~/core/phone/e164'
import type { NationalLanguage } from '~~/core/text/national'
import { can, type Asker } from '~~/shared/permissions'
import type { SendForm } from '~~/shared/schemas/texting'
import { carrierRegistered } from '../carriers/registry'
import { milliseconds } from '../db/instants'
import { activityContent, carrierPrice, colleague, consentProposal, conversation, firm, line, message, moneyAccount, moneyLimit, numberState, phone, record, template, templateVersion } from '../db/schema'
import { question } from '../db/statement'
import { houseFrom, HOUSE_RULES } from '../hours/house'
import { badInput, notAllowed, notFound } from '../http/problem'
import { termsUnreadBy } from '../identity/terms'
import { placesOf, zonesOf, type Place } from '../records/phones'
import { lineBelongs, type TextLine, type Price } from './lines'
import { answeredSince } from './queue'

export interface Recipient {
  e164: string
  country: string
  zones: string[]
  /** The hours of the house where they may be. */
  house: ReachHours
  recordId: string | null
  optedOut: boolean
  wish: HoursWindow | null
  lastHeardAt: number | null
}

/** Everything that decides on a text which somebody wants to send. */
export interface Situation {
  earlier: { authorId: string | null, activityId: string, leavesAt: number } | null
  line: TextLine
  price: Price | null
  /** What is there in its currency; null where nobody keeps count. */
  purse: Purse | null
  /** Somebody has set how much may be spent by its writer, or from its line. */
  limited: boolean
  /** Its carrier tells what texts cost; where it has no price, none goes. */
  priced: boolean
  recipient: Recipient
  /** For its writer: an admin tries it before everybody else may. */
  textingOn: boolean
  /** Its writer has not read the newest terms of use. */
  termsUnread: boolean
  /** Somebody has written from there what may be a wish to get no texts, and nobody has decided on it yet. */
  openWish: boolean
  /** What the same colleague has sent there a moment ago, in the same words. */
  same: { id: string, ref: string | null, activityId: string, leavesAt: number, madeAt: number } | null
  /** What a colleague has answered since the sender has looked. */
  answered: { by: string, words: string | null, at: number } | null
  /** What the template says that it was made from. */
  templateBody: string | null
  /** For so long it can be taken back. */
  takeBackMs: number
}

/**
 * Reads it in one statement: a person waits for it at every text.
 *
 * @throws Problem 404 or 403 for a line, a number or a conversation that is not theirs; 422 for a number
 *   that takes no texts
 */
export async function readSituation(asker: Asker, form: SendForm, now: Date): Promise<Situation> {
  const {
    rows: [found],
  } = await situationOf({
    id: form.id,
    lineId: form.lineId,
    phoneId: form.phoneId,
    conversationId: form.conversationId,
    recordId: form.recordId,
    templateId: form.templateId,
    templateVersion: form.templateVersion,
    authorId: asker.id,
    text: form.text,
    since: new Date(now.getTime() - SAME_MS).toISOString(),
    seenUntil: form.seenUntil === null ? null : new Date(form.seenUntil).toISOString(),
  })
  if (!found) throw notFound('line')
  const own: TextLine = {
    id: found.id,
    e164: found.e164,
    name: found.name,
    country: found.country,
    teamId: found.team_id,
    colleagueId: found.colleague_id,
    private: found.private,
    active: found.active,
    carrier: found.carrier,
    languages: found.languages,
  }
  if (!can(asker, 'line.answer', lineBelongs(own))) throw notAllowed(`text from ${own.name}`)
  if (
    form.recordId
    && !(found.written_on_id && can(asker, 'record.edit', { ownerId: found.written_on_owner, teamId: found.written_on_team }))
  )
    throw notFound('record')
  if (form.templateId && !mayUse(asker, found))
    throw badInput({
      templateId: 'There is no such template any more, or no such version of it. Choose another one, or send it as your own words.',
    })
  return {
    earlier: found.activity_id ? { authorId: found.author_id, activityId: found.activity_id, leavesAt: found.leaves_at } : null,
    line: own,
    price:
      found.most_parts === null
        ? null
        : {
            microsPerPart: found.micros_per_part,
            currency: found.currency,
            mostParts: found.most_parts,
            microsPerPicture: found.micros_per_picture,
            mostPictures: found.most_pictures,
            mostPictureBytes: found.most_picture_bytes,
          },
    purse: found.prepaid === null ? null : { prepaid: found.prepaid, balanceMicros: found.balance_micros, heldMicros: found.held_micros },
    limited: found.limited,
    priced: carrierRegistered(found.carrier)?.prices !== undefined,
    recipient: recipientOf(asker, form, found, now),
    textingOn: found.texting_on || can(asker, 'texting.switch', {}),
    termsUnread: found.terms_unread,
    openWish: found.open_wish,
    same: found.same,
    answered: found.answered,
    templateBody: found.template_body,
    takeBackMs: found.take_back_seconds * 1_000,
  }
}

/** Its wording may be an older one, and it may be retired meanwhile: what counts is that it was theirs to use. */
const mayUse = (asker: Asker, found: Row): boolean =>
  found.template_version !== null
  && (found.template_audience === 'all' || can(asker, 'template.see', { ownerId: found.template_owner, teamId: found.template_team }))

/** The same words to the same person within so long are one text that was tried twice, or a slip. */
const SAME_MS = 10 * 60_000

const situationOf = question<
  Pick<SendForm, 'id' | 'lineId' | 'phoneId' | 'conversationId' | 'recordId' | 'templateId' | 'templateVersion' | 'text'>
  & { authorId: string, since: string, seenUntil: string | null },
  Row
>(
  value => sql`
  select l.*, exists (${termsUnreadBy(sql`${value('authorId')}::uuid`)}) as terms_unread, f.texting_on, f.take_back_seconds, c.micros_per_part, c.currency, c.most_parts, c.micros_per_picture, c.most_pictures,
    c.most_picture_bytes, a.prepaid, a.balance_micros::float8 as balance_micros, a.held_micros::float8 as held_micros,
    exists (select 1 from ${moneyLimit} q where q.currency = c.currency and (q.colleague_id = ${value('authorId')}::uuid or q.team_id = l.team_id)) as limited,
    m.author_id, m.activity_id, ${milliseconds(sql`m.leaves_at`)} as leaves_at,
    p.id as phone_id, p.e164 as phone_e164, p.country as phone_country, p.kind as phone_kind,
    r.id as record_id, r.owner_id, r.team_id as record_team, r.zone, r.country as record_country, r.region, r.wish_from, r.wish_to, v.remote,
    n.texts, ${milliseconds(sql`n.last_heard_at`)} as last_heard_at,
    exists (select 1 from ${consentProposal} w where w.e164 = coalesce(p.e164, v.remote) and w.decided_at is null) as open_wish,
    (select json_build_object('id', s.id, 'ref', s.ref, 'activityId', s.activity_id, 'leavesAt', ${milliseconds(sql`s.leaves_at`)},
        'madeAt', ${milliseconds(sql`s.made_at`)})
      from ${conversation} sv join ${message} s on s.conversation_id = sv.id join ${activityContent} sc on sc.activity_id = s.activity_id
      where sv.remote = coalesce(p.e164, v.remote) and s.made_at >= ${value('since')}::timestamptz and s.author_id = ${value('authorId')}::uuid
        and s.direction = 'out' and s.state not in ('taken-back', 'failed', 'held') and sc.words = ${value('text')}
        and s.id <> ${value('id')}::uuid
      order by s.made_at desc limit 1) as same,
    (select json_build_object('by', who.first_name, 'words', ac.words, 'at', ${milliseconds(sql`a.made_at`)})
      from (${answeredSince({
        lineId: sql`l.id`, remote: sql`coalesce(p.e164, v.remote)`, authorId: value('authorId'), seenUntil: value('seenUntil'),
      })}) a join ${colleague} who on who.id = a.author_id left join ${activityContent} ac on ac.activity_id = a.activity_id
      order by a.made_at desc limit 1) as answered,
    ${HOUSE_RULES} as house_rules, tv.body as template_body, tv.version as template_version, t.audience as template_audience, t.owner_id as template_owner, t.team_id as template_team,
    written_on.id as written_on_id, written_on.owner_id as written_on_owner, written_on.team_id as written_on_team
  from ${line} l
  cross join ${firm} f
  left join ${carrierPrice} c on c.carrier = l.carrier and c.country = l.country
  left join ${moneyAccount} a on a.currency = c.currency
  left join ${message} m on m.id = ${value('id')}::uuid
  left join ${phone} p on p.id = ${value('phoneId')}::uuid
  left join ${record} r on r.id = p.record_id
  left join ${conversation} v on v.id = ${value('conversationId')}::uuid and v.line_id = l.id
  left join ${record} written_on on written_on.id = ${value('recordId')}::uuid
  left join ${template} t on t.id = ${value('templateId')}::uuid
  left join ${templateVersion} tv on tv.template_id = t.id and tv.version = ${value('templateVersion')}::int
  left join ${numberState} n on n.e164 = coalesce(p.e164, v.remote)
  where l.id = ${value('lineId')}::uuid`,
)

function recipientOf(asker: Asker, form: SendForm, found: Row, now: Date): Recipient {
  const house = houseFrom(found.house_rules, now)
  const heard = { optedOut: found.texts === 'refused', lastHeardAt: found.last_heard_at }
  if (!form.phoneId) {
    if (!form.conversationId) throw badInput({ phoneId: 'Choose a number to text.' })
    if (!found.remote) throw notFound('conversation')
    if (!isE164(found.remote))
      throw badInput({
        conversationId: `${found.remote} is no telephone number, so nothing can be sent to it. Whoever sends under it takes no answers.`,
      })
    return {
      e164: found.remote,
      country: found.country,
      zones: zonesOf(NOWHERE, found.remote),
      house: house(placesOf(NOWHERE, found.remote)),
      wish: null,
      recordId: null,
      ...heard,
    }
  }
  if (!found.phone_id || !can(asker, 'record.see', { ownerId: found.owner_id, teamId: found.record_team })) throw notFound('number')
  if (!found.phone_e164) throw badInput({ phoneId: 'This number cannot be used, so nothing can be sent to it. Correct it on the record.' })
  if (found.phone_kind === 'landline')
    throw badInput({ phoneId: 'This is a landline, which takes no texts. Choose another number, or call it.' })
  const place: Place = { zone: found.zone, country: found.record_country, region: found.region }
  return {
    e164: found.phone_e164,
    country: found.phone_country,
    zones: zonesOf(place, found.phone_e164),
    house: house(placesOf(place, found.phone_e164)),
    wish: wishOf({ wishFrom: found.wish_from, wishTo: found.wish_to }),
    recordId: found.record_id,
    ...heard,
  }
}

const NOWHERE: Place = { zone: null, country: null, region: null }

type Row = Record<string, unknown> & {
  id: string
  e164: string
  name: string
  country: string
  team_id: string | null
  colleague_id: string | null
  private: boolean
  active: boolean
  carrier: string
  languages: NationalLanguage[]
  texting_on: boolean
  terms_unread: boolean
  house_rules: string
  take_back_seconds: number
  micros_per_part: number
  currency: string
  most_parts: number | null
  micros_per_picture: number | null
  most_pictures: number
  most_picture_bytes: number
  prepaid: boolean | null
  balance_micros: number
  held_micros: number
  limited: boolean
  author_id: string | null
  activity_id: string | null
  leaves_at: number
  phone_id: string | null
  phone_e164: string | null
  phone_country: string
  phone_kind: string
  record_id: string
  owner_id: string
  record_team: string
  zone: string | null
  record_country: string | null
  region: string | null
  wish_from: number | null
  wish_to: number | null
  remote: string | null
  texts: string | null
  last_heard_at: number | null
  open_wish: boolean
  answered: Situation['answered']
  same: Situation['same']
  template_body: string | null
  template_version: number | null
  template_audience: string | null
  template_owner: string | null
  template_team: string | null
  written_on_id: string | null
  written_on_owner: string
  written_on_team: string
}
