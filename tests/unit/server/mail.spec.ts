import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { SMTPServer } from 'smtp-server'
import { v7 as uuid } from 'uuid'
import { MailDrop } from '~~/practice/mail/drop'
import { mailPage } from '~~/practice/mail/page'
import { setHabits } from '~~/server/identity/habits'
import type { SignedIn } from '~~/server/identity/sign-in'
import { registerPost, type Letter } from '~~/server/mail/post'
import { smtpPost } from '~~/server/mail/smtp'
import { mailByTheClock } from '~~/server/mail/waiting'
import { readInbox } from '~~/server/pages/inbox'
import { takeEvent } from '~~/server/texting/events'
import { settleConversation } from '~~/server/texting/owed'
import { inboxQuery } from '~~/shared/schemas/inbox'
import { useDatabase } from '../../support/database'
import { drain, fakeCarrier } from '../../support/fake-carrier'
import { DAY, later, makeFirm, makeLead, type Firm } from '../../support/firm'

useDatabase()
const MINUTE = 60_000
const FROM = 'Plauder <plauder@pannier.example>'
const HOME = 'https://plauder.example'
const folder = mkdtempSync(join(tmpdir(), 'plauder-mail-'))
const open: SMTPServer[] = []
const portOf = ({ server }: SMTPServer) => (server.address() as AddressInfo).port
let firm: Firm
let drop: MailDrop
let url: string
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  drop = new MailDrop(folder)
  open.push(await drop.listen(0))
  url = `smtp://127.0.0.1:${portOf(open[0]!)}`
})
beforeEach(() => registerPost(smtpPost(url, FROM, HOME)))
afterAll(async () => {
  registerPost(null)
  await Promise.all(open.map(server => new Promise<void>(done => server.close(() => done()))))
  rmSync(folder, { recursive: true, force: true })
})

let clock = 0
const now = () => later(DAY, clock)
const wait = (ms: number) => later(DAY, clock += ms)
async function writes(from: string, text = 'What does it cost?'): Promise<void> {
  const at = wait(1_000)
  await takeEvent('practice', { id: uuid(), at, kind: 'received', ref: uuid(), from, to: firm.portland.e164, text }, at)
}
async function theClock(ms: number): Promise<void> {
  await mailByTheClock(wait(ms))
  await drain(now())
}
const wants = (who: SignedIn, mailMinutes: number | null) =>
  setHabits(who.id, { told: { chimes: true, notifies: false, knocksOff: [], standInId: null, mailMinutes } })
const mailsTo = ({ mail }: SignedIn) => drop.mails.filter(({ to }) => to.includes(mail))
const conversationOf = async (e164: string) =>
  (await readInbox(firm.odile, inboxQuery.cast({}))).owed.find(({ remote }) => remote === e164)!.conversationId

describe('who waits too long', () => {
  it('is mailed of once to whoever owes the answer, by name and with a link, without what was written', async () => {
    await wants(firm.ada, 15)
    await wants(firm.mika, 15)
    const lead = await makeLead(firm.ada, { firstName: 'Zoë', lastName: 'Łuczak 名' })
    await writes(lead.e164)
    await theClock(14 * MINUTE)
    expect(mailsTo(firm.ada)).toEqual([])
    for (let i = 0; i < 2; i++) await theClock(MINUTE)
    const [mail] = mailsTo(firm.ada)
    expect(mail).toMatchObject({ subject: 'Zoë Łuczak 名 waits for an answer', from: expect.stringContaining('plauder@pannier.example') })
    // six in the evening in UTC is ten in the morning in Los Angeles
    expect(mail!.text).toContain('Zoë Łuczak 名 waits since 10:00 am, on Portland line')
    expect(mail!.text).toContain(`${HOME}/inbox?with=${await conversationOf(lead.e164)}&answer=1`)
    expect(mail!.text).not.toContain('cost')
    expect(mailsTo(firm.ada)).toHaveLength(1)
    expect(mailsTo(firm.mika)).toEqual([])

    await settleConversation(firm.ada, await conversationOf(lead.e164), wait(1_000))
    await writes(lead.e164)
    await theClock(15 * MINUTE)
    expect(mailsTo(firm.ada)).toHaveLength(2)
  })

  it('goes in one mail with the others, and to all who answer a line where nobody knows who it is', async () => {
    const [before, mikas] = [mailsTo(firm.ada).length, mailsTo(firm.mika).length]
    await writes('+447700900871')
    await writes('+447700900872')
    await theClock(15 * MINUTE)
    expect(mailsTo(firm.ada)[0]).toMatchObject({ subject: '2 people wait for an answer' })
    expect([mailsTo(firm.ada).length - before, mailsTo(firm.mika).length - mikas]).toEqual([1, 1])
    expect(mailsTo(firm.noor)).toEqual([])
    await wants(firm.mika, null)
  })

  it('is not mailed of when somebody has answered before the mail could leave', async () => {
    const before = mailsTo(firm.ada).length
    const lead = await makeLead(firm.ada)
    await writes(lead.e164)
    await mailByTheClock(wait(15 * MINUTE))
    await settleConversation(firm.ada, await conversationOf(lead.e164), wait(1_000))
    await drain(now())
    expect(mailsTo(firm.ada)).toHaveLength(before)
  })

  it('is mailed of later while the mail server is away, and no more after hours', async () => {
    const before = mailsTo(firm.ada).length
    registerPost(smtpPost('smtp://127.0.0.1:9', FROM, HOME))
    await writes((await makeLead(firm.ada)).e164)
    await theClock(15 * MINUTE)
    registerPost(smtpPost(url, FROM, HOME))
    await drain(wait(30_000))
    expect(mailsTo(firm.ada)).toHaveLength(before)
    await drain(wait(MINUTE))
    expect(mailsTo(firm.ada)).toHaveLength(before + 1)

    registerPost({ home: HOME, send: async () => 'away' })
    await writes((await makeLead(firm.ada)).e164)
    await theClock(15 * MINUTE)
    await drain(wait(5 * 3_600_000))
    registerPost(smtpPost(url, FROM, HOME))
    await drain(wait(MINUTE))
    expect(mailsTo(firm.ada)).toHaveLength(before + 1)
  })
})

describe('mail over SMTP', () => {
  const letter: Letter = { id: 'letter-1', to: { name: 'Ada "the" Lund, Sales', address: 'ada@pannier.example' }, subject: 'Two\r\nBcc: all@x.example', text: 'Hello' }

  it('is the same mail when it is delivered again, and says that nobody is to answer it by itself', async () => {
    const post = smtpPost(url, FROM, HOME)
    expect([await post.send(letter), await post.send(letter)]).toEqual(['sent', 'sent'])
    const found = drop.mails.filter(({ id }) => id === '<letter-1@pannier.example>')
    expect(found).toHaveLength(1)
    // a name or a subject adds nobody to those who get it
    expect(found[0]!.to).toEqual(['ada@pannier.example'])
    // what was acknowledged is there after a restart
    expect(new MailDrop(folder).mails).toEqual(drop.mails)
  })

  // RFC 5321, section 4.2.1: 4yz is for now, 5yz for good
  it.each([[550, 'refused'], [451, 'away']] as const)('that is answered with %i is %s', async (responseCode, outcome) => {
    const server = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      onRcptTo: (_address, _session, done) => done(Object.assign(new Error('no'), { responseCode })),
    })
    open.push(server)
    await new Promise<void>(done => void server.listen(0, '127.0.0.1', () => done()))
    expect(await smtpPost(`smtp://127.0.0.1:${portOf(server)}`, FROM, HOME).send(letter)).toBe(outcome)
  })
})

it('shows a mail as what was written, with its links and nothing else of it to be run', () => {
  const page = mailPage([{
    id: '1', at: 0, from: 'Plauder', to: ['ada@pannier.example'], subject: '<b>Hi</b>',
    text: 'See https://plauder.example/a?b=1&c="2" <script>alert(1)</script> javascript:alert(1)',
  }])
  expect(page).toContain('&#60;b&#62;Hi')
  expect(page).toContain('<a href="https://plauder.example/a?b=1&#38;c=')
  expect(page).not.toContain('<script>alert')
  expect(page.match(/<a href="(?!\/)/g)).toHaveLength(1)
})
