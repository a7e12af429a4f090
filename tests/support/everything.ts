import { v7 as uuid } from 'uuid'
import { NO_PAPERS } from '~~/core/papers/papers'
import type { Named } from '~~/shared/schemas/common'
import { recordForm } from '~~/shared/schemas/record'
import { tx } from '~~/server/db/door'
import * as schema from '~~/server/db/schema'
import type { SignedIn } from '~~/server/identity/sign-in'
import { addRecord } from '~~/server/records/save'
import { receiveText } from '~~/server/texting/receive'
import type { Line } from '~~/server/texting/lines'
import type { CarrierSettings } from '~~/shared/carriers'
import { DAY, layPipeline, stageOf, type Firm } from './firm'

/** Stands in everything that is not for Ada: in no answer to her may it be found. */
export const HIDDEN = 'Zzhiddenzz'

/** Ids of one of each kind of thing that a request can name. */
export type Things = Record<Named, string>

/** One of everything, for somebody and their line. */
async function oneOfEach(owner: SignedIn, line: Line, pipelineId: string, number: string, words: string): Promise<Things> {
  const id = () => uuid()
  const recordId = id()
  await addRecord(
    owner,
    {
      ...recordForm.validateSync({ firstName: words, phones: [{ label: words, typed: number }] }),
      personIds: [],
      id: recordId,
      module: 'lead',
    },
    DAY,
  )
  await receiveText(
    'practice',
    { id: id(), kind: 'received', ref: id(), at: DAY, from: number, to: line.e164, text: `${words}, please do not text me any more` },
    DAY,
  )
  return tx(async (database) => {
    const [phone] = await database.query.phone.findMany({ where: (table, { eq }) => eq(table.recordId, recordId) })
    const [conversation] = await database.query.conversation.findMany({
      where: (table, { eq, and }) => and(eq(table.remote, number), eq(table.lineId, line.id)),
    })
    const [message] = await database.query.message.findMany({ where: (table, { eq }) => eq(table.conversationId, conversation!.id) })
    const [proposal] = await database.query.consentProposal.findMany({
      where: (table, { eq }) => eq(table.activityId, message!.activityId),
    })
    const [callId, callActivity, recordingId, spoken, round, task, template, view, bulk, file, signIn, pictureId, inboxView, knockId]
      = Array.from({ length: 14 }, id)
    const bulkText = id()
    const teamId = owner.teamIds[0]!
    await database.insert(schema.activity).values({ id: callActivity!, at: DAY, kind: 'call-out', colleagueId: owner.id })
    await database
      .insert(schema.activityOnRecord)
      .values({ recordId, at: DAY, activityId: callActivity!, privateLineId: line.private ? line.id : null })
    await database.insert(schema.activityContent).values({ activityId: callActivity!, words })
    await database
      .insert(schema.call)
      .values({
        id: callId!,
        direction: 'out',
        lineId: line.id,
        remote: number,
        recordId,
        colleagueId: owner.id,
        activityId: callActivity!,
        exchange: 'practice',
        exchangeRef: callId,
        madeAt: DAY,
        endedAt: DAY,
        endWhy: 'hung-up',
        endSide: 'us',
      })
    await database
      .insert(schema.recording)
      .values({ id: recordingId!, callId: callId!, of: 'call', ms: 1000, peaks: [0.5], size: 4, sound: Buffer.from('RIFF'), at: DAY })
    await database
      .insert(schema.spokenMessage)
      .values({
        id: spoken!,
        name: words,
        ownerId: owner.id,
        teamId,
        words,
        ms: 1000,
        peaks: [0.5],
        sound: Buffer.from('RIFF'),
        madeAt: DAY,
      })
    await database
      .insert(schema.callRound)
      .values({ id: round!, name: words, module: 'lead', teamId, madeBy: owner.id, madeAt: DAY, order: 'list', notWithinHours: 24 })
    await database.insert(schema.knock)
      .values({ id: knockId!, kind: 'question', conversationId: conversation!.id, aboutId: conversation!.id, words, at: DAY, step: 'owner' })
    await database.insert(schema.knockFor).values({ knockId: knockId!, colleagueId: owner.id, step: 'owner', at: DAY })
    await database.insert(schema.roundPerson).values({ roundId: round!, recordId, position: 0, zones: 'America/Los_Angeles' })
    await database
      .insert(schema.task)
      .values({
        id: task!,
        recordId,
        kind: 'task',
        title: words,
        colleagueId: owner.id,
        madeBy: owner.id,
        madeAt: DAY,
        wallTime: '2026-11-30T09:00',
        wallZone: 'America/Los_Angeles',
        dueAt: DAY,
      })
    await database
      .insert(schema.template)
      .values({
        id: template!,
        name: words,
        modules: ['lead'],
        body: `Hi ${words}`,
        audience: 'team',
        teamId,
        version: 1,
        ownerId: owner.id,
        changedAt: DAY,
      })
    await database
      .insert(schema.templateVersion)
      .values({ templateId: template!, version: 1, name: words, body: `Hi ${words}`, at: DAY, colleagueId: owner.id })
    await database.insert(schema.inboxView).values({
      id: inboxView!, name: words, ownerId: owner.id, asked: { show: 'owed', line: null, module: '', words }, madeAt: DAY,
    })
    await database
      .insert(schema.view)
      .values({
        id: view!,
        module: 'lead',
        name: words,
        ownerId: owner.id,
        teamId,
        columns: ['name'],
        conditions: { match: 'all', of: [] },
        sort: 'name',
        direction: 'up',
        madeAt: DAY,
      })
    await database
      .insert(schema.bulkChange)
      .values({
        id: bulk!,
        colleagueId: owner.id,
        module: 'lead',
        change: { kind: 'add-tag', tag: words },
        recordIds: [recordId],
        state: 'done',
        total: 1,
        madeAt: DAY,
      } as typeof schema.bulkChange.$inferInsert)
    await database.insert(schema.bulkText).values({ id: bulkText, name: words, modules: ['lead'], madeBy: owner.id, madeAt: DAY, recordIds: [recordId], occasionId: bulkText, body: `Hi ${words}` })
    const group = id()
    await database.insert(schema.peopleGroup).values({ id: group, name: `Test ride ${number}`, madeBy: owner.id, madeAt: DAY })
    await database.insert(schema.groupMember).values({ groupId: group, recordId })
    await database.insert(schema.bulkPerson).values({ id: id(), bulkId: bulkText, occasionId: bulkText, recordId, position: 0, standing: 'ready', words, e164: number, lineId: line.id, zones: 'Pacific/Honolulu', changedAt: DAY })
    await database
      .insert(schema.recordImport)
      .values({
        id: file!,
        module: 'lead',
        colleagueId: owner.id,
        fileName: `${words}.csv`,
        headings: ['Name'],
        rules: {
          matching: ['name'],
          country: 'US',
          dayOrders: [null],
          duplicates: { number: 'join', mail: 'join', name: 'join' },
          ownerId: owner.id,
        },
        state: 'loading',
        total: 1,
        activityId: callActivity!,
        madeAt: DAY,
        startedAt: DAY,
      } as typeof schema.recordImport.$inferInsert)
    await database
      .insert(schema.signIn)
      .values({ id: signIn!, tokenHash: id(), colleagueId: owner.id, madeAt: DAY, endsAt: new Date(Date.now() + 3_600_000) })
    await database
      .insert(schema.picture)
      .values({
        id: pictureId!,
        colleagueId: owner.id,
        messageId: message!.id,
        type: 'image/jpeg',
        width: 1,
        height: 1,
        size: 4,
        bytes: Buffer.from('JPEG'),
        at: DAY,
      })
    const [disposition, field, job, event, carrier, invitation] = Array.from({ length: 6 }, id)
    await database
      .insert(schema.disposition)
      .values({ id: disposition!, module: 'lead', name: `Went well ${number}`, family: 'reached', letter: 'w', position: 0 })
    await database
      .insert(schema.customField)
      .values({ id: field!, module: 'lead', key: `field_${number.slice(-4)}`, label: 'Bikes', kind: 'text', example: 'two', position: 0 })
    await database
      .insert(schema.job)
      .values({ id: job!, kind: 'nobody-does-this', key: job!, lane: job!, orderAt: DAY, dueAt: DAY, deadAt: DAY, lastFailure: words })
    await database
      .insert(schema.setAsideEvent)
      .values({ id: event!, teller: 'practice', hash: event!, told: JSON.stringify({ words }), why: words, at: DAY })
    await database.insert(schema.invitation).values({
      id: invitation!, keyHash: invitation!, mail: `${number.slice(-4)}@post.example`, name: words, role: 'rep', title: words, teamIds: [],
      madeBy: owner.id, madeAt: DAY, endsAt: DAY,
    })
    await database.insert(schema.carrierAccount).values({
      id: carrier!, name: `smpp-${carrier!.slice(-8)}`, kind: 'smpp', title: words, settings: {} as CarrierSettings, secret: '',
      madeBy: owner.id, madeAt: DAY,
    })
    const [entry, limit, moneyAsk] = [id(), id(), id()]
    await database.insert(schema.moneyEntry)
      .values({ id: entry, at: DAY, kind: 'paid-in', currency: 'XTS', micros: 1_000_000, words, enteredBy: owner.id })
    await database.insert(schema.moneyLimit)
      .values({ id: limit, colleagueId: owner.id, period: 'month', currency: 'XTS', micros: 1_000_000, madeBy: owner.id, madeAt: DAY })
    await database.insert(schema.moneyAsk).values({ id: moneyAsk, colleagueId: owner.id, currency: 'XTS', why: words, at: DAY })
    const [papersLie, paper] = [id(), id()]
    await database.insert(schema.registration).values({
      id: papersLie, carrier: carrier!, country: 'US', state: 'handed-in', papers: { ...NO_PAPERS, firm: words }, handedAt: DAY, leastDays: 1, mostDays: 9,
    })
    await database.insert(schema.paperFile)
      .values({ id: paper, name: words, type: 'application/pdf', size: 4, bytes: Buffer.from('%PDF'), addedBy: owner.id, addedAt: DAY })
    const [auditEntry, dayOff] = [id(), id()]
    await database.insert(schema.closedDay).values({ id: dayOff, place: null, day: '2026-12-31', name: words, madeBy: owner.id, madeAt: DAY })
    await database.insert(schema.audit).values({ id: auditEntry, at: DAY, colleagueId: owner.id, action: 'exported', details: { words } })
    return {
      'audit-entry': auditEntry,
      'closed-day': dayOff,
      'registration': papersLie,
      'paper-file': paper,
      'money-ask': moneyAsk,
      'money-entry': entry,
      'money-limit': limit,
      'record': recordId,
      'phone': phone!.id,
      'conversation': conversation!.id,
      'message': message!.id,
      'entry': message!.activityId,
      'picture': pictureId!,
      'proposal': proposal!.id,
      'call': callId!,
      'recording': recordingId!,
      'spoken': spoken!,
      'round': round!,
      'task': task!,
      'knock': knockId!,
      'template': template!,
      'line': line.id,
      'view': view!,
      'group': group,
      'inbox-view': inboxView!,
      'bulk-text': bulkText,
      'bulk-change': bulk!,
      'import': file!,
      'sign-in': signIn!,
      'job': job!,
      'set-aside-event': event!,
      'carrier': carrier!,
      'invitation': invitation!,
      'disposition': disposition!,
      'field': field!,
      'colleague': owner.id,
      'team': teamId,
      'pipeline': pipelineId,
      'stage': stageOf('Fleets', 'New'),
    }
  })
}

/** One of everything for Ada, and one that is none of hers. */
export async function everything(firm: Firm): Promise<{ hers: Things, hidden: Things }> {
  const pipelineId = await layPipeline({ holds: 'deal', name: 'Fleets', stages: ['New', 'Won'], over: ['Won'] }, 90)
  return {
    hers: await oneOfEach(firm.ada, firm.portland, pipelineId, '+18085550142', 'Iris'),
    hidden: await oneOfEach(firm.noor, firm.halifax, pipelineId, '+18085550143', HIDDEN),
  }
}
