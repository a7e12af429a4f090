import { eq } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import { tx } from '~~/server/db/door'
import { audit, colleague, secondStep } from '~~/server/db/schema'
import { join } from '~~/server/identity/join'
import { freshRecoveryCode, periodOf } from '~~/server/identity/one-time'
import { hashPassword } from '~~/server/identity/password'
import { endWork, linkForPassword, listPeople, takeSecondStepAway } from '~~/server/identity/people'
import { confirmSecondStep, endSecondStep, mustPassSecondStep, offerSecondStep, readSecondStep, recoveryCodesAnew } from '~~/server/identity/second-step'
import { openSignIn, whoSignedIn } from '~~/server/identity/sign-in'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, type Firm } from '../../support/firm'

describe('a code that holds for a moment', () => {
  /** RFC 6238, appendix B, SHA-1: the secret is “12345678901234567890”. Of its eight digits ours are the last six. */
  const SECRET = new Secret({ buffer: new TextEncoder().encode('12345678901234567890').buffer }).base32

  it.each([
    [59, '94287082'],
    [1_111_111_109, '07081804'],
    [1_111_111_111, '14050471'],
    [1_234_567_890, '89005924'],
    [2_000_000_000, '69279037'],
    [20_000_000_000, '65353130'],
  ])('is the standard’s at %d seconds: %s', (seconds, code) => {
    expect(periodOf(SECRET, code.slice(2), new Date(seconds * 1_000))).toBe(Math.floor(seconds / 30))
  })

  it('holds half a minute too early or too late, not longer, and as it is typed', () => {
    const at = (seconds: number) => periodOf(SECRET, '081 804', new Date(seconds * 1_000))
    const period = Math.floor(1_111_111_109 / 30)
    expect([at(1_111_111_109 - 30), at(1_111_111_109 + 30)]).toEqual([period, period])
    expect([at(1_111_111_109 - 90), at(1_111_111_109 + 90)]).toEqual([null, null])
  })

  it.each(['', '12345', '0818044', 'abcdef', '０８１８０４'])('is not “%s”', (code) => {
    expect(periodOf(SECRET, code, new Date(1_111_111_109_000))).toBeNull()
  })

  it('has recovery codes that nobody mistakes, each another one', () => {
    const codes = Array.from({ length: 200 }, freshRecoveryCode)
    expect(new Set(codes).size).toBe(200)
    for (const code of codes) expect(code).toMatch(/^[A-HJKMNP-Z2-9]{5}-[A-HJKMNP-Z2-9]{5}$/)
  })
})

describe('a second step', () => {
  useDatabase()
  const PASSWORD = 'cargo bikes and rain'
  const FROM = { address: '192.0.2.1' }
  let firm: Firm
  let secret = ''
  let codes: string[] = []
  /** A minute passes with each. */
  let now = DAY
  const codeAt = (at: Date) => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at.getTime() })
  const signIn = (code = '') => openSignIn({ mail: firm.ada.mail, password: PASSWORD, code }, FROM, now)
  const refused = (field: string, words: string) => ({ details: { fields: { [field]: expect.stringContaining(words) } } })
  const noted = async (action: string) => (await tx(database => database.select().from(audit).where(eq(audit.action, action)))).length

  beforeAll(async () => {
    firm = await makeFirm()
    const passwordHash = await hashPassword(PASSWORD)
    await tx(database => database.update(colleague).set({ passwordHash }).where(eq(colleague.id, firm.ada.id)))
  })
  beforeEach(() => now = later(now, 60_000))

  it('does not count before a code of it was typed', async () => {
    expect(await readSecondStep(firm.ada)).toEqual({ since: null, codesLeft: 0, possible: true })
    await offerSecondStep(firm.ada)
    await expect(signIn()).resolves.toBeDefined()
    const made = await offerSecondStep(firm.ada)
    secret = made.secret
    expect(made.uri).toContain(`otpauth://totp/Plauder:${encodeURIComponent(firm.ada.mail)}?`)
    await expect(confirmSecondStep(firm.ada, '000000', now)).rejects.toMatchObject(refused('code', 'not what the app shows'))
    codes = await confirmSecondStep(firm.ada, codeAt(now), now)
    expect(codes).toHaveLength(10)
    expect(await readSecondStep(firm.ada)).toEqual({ since: now.getTime(), codesLeft: 10, possible: true })
    await expect(confirmSecondStep(firm.ada, codeAt(now), now)).rejects.toMatchObject({ details: { type: 'no-offer' } })
    await expect(offerSecondStep(firm.ada)).rejects.toMatchObject({ details: { type: 'second-step-on' } })
  })

  it('is kept so that nobody reads it in the database', async () => {
    const [kept] = await tx(database => database.select().from(secondStep))
    expect(kept!.secret).not.toContain(secret)
    expect(Buffer.from(kept!.secret, 'base64').toString('latin1')).not.toContain(secret)
  })

  it('asks for a code after the right password, each once', async () => {
    await expect(openSignIn({ mail: firm.ada.mail, password: 'wrong', code: codeAt(now) }, FROM, now)).rejects.toMatchObject(refused('password', 'not known'))
    await expect(signIn()).rejects.toMatchObject(refused('code', 'your app shows now'))
    await expect(signIn('123456')).rejects.toMatchObject(refused('code', 'not the code'))
    const { signIn: token } = await signIn(codeAt(now))
    expect(await whoSignedIn(token, now)).toMatchObject({ id: firm.ada.id })
    await expect(signIn(codeAt(now))).rejects.toMatchObject(refused('code', 'used already'))
    // of the period before, when a later one was used
    await expect(signIn(codeAt(later(now, -30_000)))).rejects.toMatchObject(refused('code', 'used already'))
  })

  it('lets one of two in who use the same code at once', async () => {
    const code = codeAt(now)
    const both = await Promise.allSettled([1, 2].map(() => mustPassSecondStep(firm.ada.id, code, now)))
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1)
  })

  it('has recovery codes that let in once each, however they are typed', async () => {
    await signIn(codes[0]!.toLowerCase().replace('-', ' '))
    await expect(signIn(codes[0]!)).rejects.toMatchObject(refused('code', 'none of yours'))
    expect(await readSecondStep(firm.ada)).toMatchObject({ codesLeft: 9 })
    expect(await noted('recovery-code-used')).toBe(1)
    await expect(recoveryCodesAnew(firm.ada, 'wrong', now)).rejects.toMatchObject(refused('password', 'not your password'))
    const anew = await recoveryCodesAnew(firm.ada, PASSWORD, now)
    await expect(signIn(codes[1]!)).rejects.toMatchObject(refused('code', 'none of yours'))
    await signIn(anew[1]!)
    codes = anew
  })

  it('is asked for after a new password by a link too', async () => {
    const { link } = await linkForPassword(firm.rafe, firm.ada.id, now)
    expect(await join({ key: link.split('#')[1]!, name: '', zone: 'America/Los_Angeles', password: PASSWORD }, FROM, now)).toBeNull()
    await expect(signIn(codeAt(now))).resolves.toBeDefined()
  })

  it('is tried ten times in a quarter of an hour, not more', async () => {
    const tries: number[] = []
    for (let i = 0; i < 12; i++) await signIn('000000').catch(error => tries.push(error.details.status))
    expect(tries.filter(status => status === 429).length).toBeGreaterThanOrEqual(2)
  })

  it('is not ended by whoever tries passwords at a browser that was left open', async () => {
    const tries: number[] = []
    for (let i = 0; i < 12; i++) await endSecondStep(firm.mika, `guess ${i}`, now).catch(error => tries.push(error.details.status))
    expect(tries).toEqual([...Array.from({ length: 10 }, () => 422), 429, 429])
  })

  it('is ended with the password, or taken away by an admin, and goes when somebody leaves', async () => {
    await expect(endSecondStep(firm.ada, 'wrong', now)).rejects.toMatchObject(refused('password', 'not your password'))
    expect(await endSecondStep(firm.ada, PASSWORD, now)).toMatchObject({ since: null, codesLeft: 0 })
    await expect(mustPassSecondStep(firm.ada.id, '', now)).resolves.toBeUndefined()
    const set = async () => {
      secret = (await offerSecondStep(firm.ada)).secret
      await confirmSecondStep(firm.ada, codeAt(now), now)
    }
    await set()
    expect((await listPeople(firm.rafe)).colleagues.find(({ id }) => id === firm.ada.id)).toMatchObject({ secondStep: true })
    await expect(takeSecondStepAway(firm.odile, firm.ada.id, now)).rejects.toMatchObject({ details: { status: 403 } })
    const { colleagues } = await takeSecondStepAway(firm.rafe, firm.ada.id, now)
    expect(colleagues.find(({ id }) => id === firm.ada.id)).toMatchObject({ secondStep: false })
    expect([await noted('second-step-set'), await noted('second-step-ended'), await noted('second-step-taken-away')]).toEqual([2, 1, 1])
    await set()
    await endWork(firm.ada.id, now)
    expect(await readSecondStep(firm.ada)).toMatchObject({ since: null })
  })
})
