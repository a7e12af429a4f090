import { once } from 'node:events'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { eq } from 'drizzle-orm'
import { Webhook } from 'standardwebhooks'
import { practiceExchange } from '~~/server/calling/practice-exchange'
import { afterCommit, savepoint, tx } from '~~/server/db/door'
import { message, team, textMessage } from '~~/server/db/schema'
import { changeLine, listLines } from '~~/server/texting/line-edit'
import { sendText } from '~~/server/texting/send'
import { lineForm } from '~~/shared/schemas/line'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, textTo, type Firm } from '../../support/firm'

useDatabase()
let firm: Firm
beforeAll(async () => firm = await makeFirm())
const problem = (status: number) => ({ details: { status } })

const rings = (values: object) =>
  lineForm.validateSync({ carrier: 'practice', languages: [], records: false, ownerFirst: false, ringSeconds: 25, ...values })

describe('a line with the letters of a language', () => {
  const words = 'Günaydın! Bisikletiniz yarın sabah dokuzda hazır olacak; dükkanın önünde görüşürüz.'
  const stored = async (id: string) => {
    const [{ message: any, text_message: text }] = (await tx(database =>
      database.select().from(message).innerJoin(textMessage, eq(textMessage.messageId, message.id)).where(eq(message.id, id)),
    )) as [{ message: typeof message.$inferSelect, text_message: typeof textMessage.$inferSelect }]
    return { ...any, ...text }
  }

  it('is set up by admins alone', async () => {
    await expect(listLines(firm.ada)).rejects.toMatchObject(problem(403))
    await expect(changeLine(firm.odile, firm.portland.id, rings({ languages: ['turkish'] }), DAY)).rejects.toMatchObject(problem(403))
    expect((await listLines(firm.rafe)).find(({ id }) => id === firm.portland.id)).toMatchObject({
      team: 'Sales',
      colleague: null,
      languages: [],
    })
  })

  it('sends a text in them, in the coding with which it was measured, whatever is set up later', async () => {
    const carrier = fakeCarrier()
    const { phoneId } = await makeLead(firm.ada)
    const before = textTo(phoneId, firm.portland, { text: words })
    await sendText(firm.ada, before, DAY)
    expect(await stored(before.id)).toMatchObject({ encoding: 'UCS-2', shift: null, parts: 2 })
    await changeLine(firm.rafe, firm.portland.id, rings({ languages: ['turkish'] }), DAY)
    const after = textTo(phoneId, firm.portland, { text: words })
    await sendText(firm.ada, after, DAY)
    await changeLine(firm.rafe, firm.portland.id, rings({}), DAY)
    expect(await stored(after.id)).toMatchObject({ encoding: 'GSM-7', shift: 'turkish-single', parts: 1 })
    await drain(later(DAY, 10_000))
    expect(carrier.asked.map(({ shift }) => shift)).toEqual([null, 'turkish-single'])
  })
})

describe('a savepoint', () => {
  it('undoes what failed in it and nothing else, with what was to be told', async () => {
    const told: string[] = []
    await tx(async (database) => {
      await database.update(team).set({ name: 'First' }).where(eq(team.id, firm.ada.teamIds[0]!))
      await expect(savepoint(async () => {
        await database.update(team).set({ name: 'Second' }).where(eq(team.id, firm.ada.teamIds[0]!))
        afterCommit(() => told.push('of what failed'))
        throw new Error('It failed.')
      })).rejects.toThrow('It failed.')
      await savepoint(async () => afterCommit(() => told.push('of what went well')))
    })
    const [stored] = await tx(database => database.select().from(team).where(eq(team.id, firm.ada.teamIds[0]!)))
    expect([stored!.name, told]).toEqual(['First', ['of what went well']])
    await expect(savepoint(async () => undefined)).rejects.toThrow('no transaction')
  })
})

describe('the adapter of the practice exchange', () => {
  const secret = Buffer.from('a secret of the test').toString('base64')
  let server: Server
  let answer: { status: number, body: object } = { status: 201, body: { id: 'theirs' } }
  const asked: { path: string, key?: string, body: string }[] = []
  beforeAll(() => new Promise<void>((resolve) => {
    server = createServer((request, response) => {
      let body = ''
      request.on('data', chunk => body += chunk)
      request.on('end', () => {
        asked.push({ path: request.url!, key: request.headers['idempotency-key'] as string | undefined, body })
        response.writeHead(answer.status, { 'content-type': 'application/json' }).end(JSON.stringify(answer.body))
      })
    }).listen(0, '127.0.0.1', resolve)
  }))
  afterAll(() => server.close())
  const exchange = () =>
    practiceExchange({ url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, key: 'k', webhookSecret: secret })
  const call = { key: 'ours', from: '+15035550118', to: '+18085550142', record: false, ringFirst: ['+15035550150'], desk: 'ada' }

  it('dials with our key, and says what came of it', async () => {
    expect(await exchange().dial(call)).toEqual({ kind: 'dialling', ref: 'theirs' })
    expect(asked.at(-1)).toEqual({
      path: '/v1/calls',
      key: 'ours',
      body: JSON.stringify({ from: call.from, to: call.to, record: false, ring_first: call.ringFirst, desk: 'ada' }),
    })
    answer = { status: 422, body: { code: 'recipient-unknown' } }
    expect(await exchange().dial(call)).toEqual({ kind: 'refused', code: 'recipient-unknown' })
    const nobody = createServer().listen(0, '127.0.0.1')
    await once(nobody, 'listening')
    const { port } = nobody.address() as AddressInfo
    await new Promise(resolve => nobody.close(resolve))
    expect(await practiceExchange({ url: `http://127.0.0.1:${port}`, key: 'k', webhookSecret: secret }).dial(call)).toEqual({
      kind: 'unreachable',
    })
  })

  it.each([[200, 'done'], [409, 'not-now'], [404, 'gone']])('takes %i for an order as %s', async (status, says) => {
    answer = { status, body: {} }
    expect(await exchange().order('theirs', 'hold')).toBe(says)
    expect(asked.at(-1)!.path).toBe('/v1/calls/theirs/hold')
  })

  it.each([
    ['call.ringing', {}, { kind: 'ringing', at: DAY.getTime() }],
    ['call.answered', { by: 'machine' }, { kind: 'answered', at: DAY.getTime(), by: 'machine' }],
    ['call.switched', { what: 'mute', on: true }, { kind: 'switched', at: DAY.getTime(), what: 'mute', on: true }],
    ['call.ended', { why: 'busy', side: 'them' }, { kind: 'ended', at: DAY.getTime(), why: 'busy', side: 'them' }],
  ])('reads %s where it is signed', (type, more, event) => {
    const now = new Date()
    const body = JSON.stringify({
      id: 'e1',
      type,
      at: DAY.toISOString(),
      data: { id: 'theirs', key: 'ours', line: call.from, phone: call.to, ...more },
    })
    const headers = {
      'webhook-id': 'e1',
      'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
      'webhook-signature': new Webhook(secret).sign('e1', now, body),
    }
    expect(exchange().isSigned(Buffer.from(body), headers)).toBe(true)
    expect(exchange().readEvent(JSON.parse(body))).toEqual({ id: 'e1', ref: 'theirs', key: 'ours', kind: 'happened', event })
    expect(exchange().isSigned(Buffer.from(body.replace('theirs', 'others')), headers)).toBe(false)
    expect(exchange().isSigned(Buffer.from(body), {})).toBe(false)
  })
})
