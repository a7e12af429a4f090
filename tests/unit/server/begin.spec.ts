import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { HELD, PERSON_MODULES } from '~~/shared/modules'
import { fieldForm } from '~~/shared/schemas/field'
import { pipelineForm } from '~~/shared/schemas/pipeline'
import { STARTING_SETS } from '~~/shared/starting-sets'
import { tx } from '~~/server/db/door'
import { audit, beginKey, colleague, disposition, firm, line } from '~~/server/db/schema'
import { begin, offerBeginning, readBeginning } from '~~/server/beginning/begin'
import { ownFields } from '~~/server/records/fields'
import { pipelinesOf } from '~~/server/records/pipelines'
import { openSignIn, whoSignedIn } from '~~/server/identity/sign-in'
import type { NumberRental } from '~~/server/carriers/port'
import { registerCarrier } from '~~/server/carriers/registry'
import { practiceCarrier } from '~~/server/carriers/practice'
import { beginForm } from '~~/shared/schemas/begin'
import { useDatabase } from '../../support/database'
import { DAY } from '../../support/firm'

useDatabase()
const FROM = { address: '127.0.0.1' }
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })
const PASSWORD = 'three loose racks'
const form = (key: string, values: object = {}) =>
  beginForm.validateSync({
    key,
    firm: 'Two Wheels & Daughter',
    country: 'GB',
    zone: 'Europe/London',
    name: 'Ottilie Brandt',
    mail: ' Ottilie@Wheels.example ',
    password: PASSWORD,
    practice: false,
    ...values,
  })
const offered = async () => (await offerBeginning(DAY))!

/** The practice carrier as one that answers with these numbers, or not at all. */
const practiceWith = (numbers: { e164: string, country: string }[] | null) => registerCarrier({
  ...practiceCarrier({ url: 'http://127.0.0.1:9', key: 'k', webhookSecret: Buffer.from('a secret of the test').toString('base64') }),
  rental: {
    numbers: async () => {
      if (!numbers) throw new Error('It does not answer.')
      return numbers.map(number => ({ ...number, state: 'given' as const, until: DAY, rent: { micros: 1, currency: 'USD' } }))
    },
  } as unknown as NumberRental,
})

describe('beginning', () => {
  it('is open as long as there is no firm, to whoever has a key that a start has printed', async () => {
    expect(await readBeginning()).toMatchObject({ open: true, countries: expect.arrayContaining(['GB', 'US', 'DE']) })
    await offered()
    await expect(begin(form('not the key'), FROM, DAY)).rejects.toMatchObject(problem(403, { type: 'wrong-key' }))
    expect(await tx(database => database.select().from(firm))).toEqual([])
  })

  it.each([
    [{ password: 'short' }, 'At least 12 characters'],
    [{ mail: 'nobody' }, 'not a mail address'],
    [{ firm: ' ' }, 'what the firm is called'],
    [{ country: 'gb' }, 'Choose a country'],
  ])('refuses %j before anything is made', (values, words) => {
    expect(() => form('key', values)).toThrow(words)
  })

  it('says at the field which country, zone or practice carrier there is not', async () => {
    const key = await offered()
    practiceWith(null)
    await expect(begin(form(key, { country: 'XX' }), FROM, DAY)).rejects.toMatchObject(
      problem(422, { fields: { country: expect.any(String) } }),
    )
    await expect(begin(form(key, { zone: 'Mars/Base' }), FROM, DAY)).rejects.toMatchObject(
      problem(422, { fields: { zone: expect.stringContaining('Mars/Base') } }),
    )
    await expect(begin(form(key, { practice: true }), FROM, DAY)).rejects.toMatchObject(
      problem(422, { fields: { practice: expect.stringContaining('does not answer') } }),
    )
  })

  it('makes the firm, an admin who is signed in, and a line in the firm’s country; once', async () => {
    const [first, second] = [await offered(), await offered()]
    practiceWith([{ e164: '+15035550118', country: 'US' }, { e164: '+447700900118', country: 'GB' }])
    const tokens = await begin(form(first, { practice: true, set: 'recruiting' }), FROM, DAY)
    const ottilie = await whoSignedIn(tokens.signIn, DAY)
    expect(ottilie).toMatchObject({
      name: 'Ottilie Brandt',
      firstName: 'Ottilie',
      mail: 'ottilie@wheels.example',
      role: 'admin',
      zone: 'Europe/London',
      teamIds: [expect.any(String)],
    })
    expect(await tx(database => database.select().from(firm))).toMatchObject([
      { name: 'Two Wheels & Daughter', country: 'GB', textingOn: false },
    ])
    expect(await tx(database => database.select().from(line))).toMatchObject([
      { e164: '+447700900118', carrier: 'practice', teamId: ottilie!.teamIds[0] },
    ])
    expect((await tx(database => database.select().from(audit))).map(({ action }) => action)).toEqual(
      expect.arrayContaining(['firm-made', 'signed-in']),
    )
    expect(await tx(database => database.select().from(beginKey))).toEqual([])
    await expect(begin(form(second), FROM, DAY)).rejects.toMatchObject(problem(409, { type: 'begun' }))
    expect(await offerBeginning(DAY)).toBeNull()
    expect(await readBeginning()).toMatchObject({ open: false })
    await expect(openSignIn({ mail: 'ottilie@wheels.example', password: PASSWORD, code: '' }, FROM, DAY)).resolves.toMatchObject({ signIn: expect.any(String) })
  })

  it('lays what the set says, and every set fits what Set-up would take', async () => {
    expect((await pipelinesOf('applicant'))[0]!.stages.map(({ name }) => name)).toEqual([
      'Applied',
      'First call',
      'Interview',
      'Offer',
      'Placed',
      'Not now',
    ])
    expect((await ownFields()).filter(({ module }) => module === 'candidate').map(({ key }) => key)).toEqual([
      'role_wanted',
      'available_from',
      'hours_a_week',
    ])
    expect(
      (await tx(database => database.select().from(disposition).where(eq(disposition.module, 'client')))).map(({ name }) => name),
    ).toContain('Has a job open')
    for (const { pipelines, fields, dispositions } of Object.values(STARTING_SETS)) {
      expect([...new Set(pipelines.map(({ holds }) => holds))].sort()).toEqual([...HELD].sort())
      for (const { holds, name, stages, over = [] } of pipelines)
        pipelineForm.validateSync({
          id: uuid(),
          holds,
          name,
          stages: stages.map(one => ({ id: uuid(), name: one, over: over.includes(one) })),
        })
      for (const { module, label, kind, example, options } of fields)
        fieldForm.validateSync({ id: uuid(), module, label, kind, example, options })
      for (const module of PERSON_MODULES) {
        const letters = dispositions.filter(({ modules }) => modules.includes(module)).map(({ letter }) => letter)
        expect(new Set(letters).size).toBe(letters.length)
      }
    }
  })

  it('leaves nobody there but who has begun: nothing of a demo can be signed in to', async () => {
    expect((await tx(database => database.select().from(colleague))).map(({ mail }) => mail)).toEqual(['ottilie@wheels.example'])
    await expect(openSignIn({ mail: 'ada@pannier.example', password: 'cargo-bikes-2026', code: '' }, FROM, DAY)).rejects.toMatchObject(problem(422))
  })
})
