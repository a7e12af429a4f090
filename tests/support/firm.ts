import { v5 as named, v7 as uuid } from 'uuid'
import { PIPELINES } from '~~/demo/pipelines'
import type { Module } from '~~/shared/modules'
import type { Role } from '~~/shared/permissions'
import { recordForm, type RecordForm } from '~~/shared/schemas/record'
import { sendForm, type SendForm } from '~~/shared/schemas/texting'
import type { PipelineToLay } from '~~/shared/starting-sets'
import { tx } from '~~/server/db/door'
import * as schema from '~~/server/db/schema'
import type { SignedIn } from '~~/server/identity/sign-in'
import { addRecord } from '~~/server/records/save'
import type { Line } from '~~/server/texting/lines'

/** By day in all of the United States and in Bristol. */
export const DAY = new Date('2026-11-25T18:00:00Z')
/** In the middle of the night in Honolulu. */
export const NIGHT = new Date('2026-11-25T11:00:00Z')

export interface Firm {
  ada: SignedIn
  mika: SignedIn
  noor: SignedIn
  odile: SignedIn
  rafe: SignedIn
  portland: Line
  second: Line
  halifax: Line
  own: Line
}

const asker = (name: string, role: Role, teamIds: string[], peopleIds: string[], id: string): SignedIn => ({
  id,
  role,
  teamIds,
  peopleIds,
  name,
  firstName: name.split(' ')[0]!,
  mail: `${name.split(' ')[0]!.toLowerCase()}@pannier.example`,
  title: 'Sales',
  directLine: null,
  zone: 'America/Los_Angeles',
})

/** The id of a stage of a pipeline, by the names of both: tables of cases can name it before there is any. */
export const stageOf = (pipeline: string, stage: string): string => named(`${pipeline} ${stage}`, named.URL)
export const pipelineOf = (pipeline: string): string => named(pipeline, named.URL)

/** A pipeline whose ids are known by its names. */
export async function layPipeline({ holds, name, stages, over = [] }: PipelineToLay, position = 0): Promise<string> {
  const id = pipelineOf(name)
  await tx(async (database) => {
    await database.insert(schema.pipeline).values({ id, holds, name, position })
    await database
      .insert(schema.stage)
      .values(
        stages.map((one, place) => ({ id: stageOf(name, one), pipelineId: id, name: one, over: over.includes(one), position: place })),
      )
  })
  return id
}

/** Of the demo what every firm has once; of deals and of a job's candidates one each. */
const LAID: PipelineToLay[] = [
  ...PIPELINES.filter(({ holds }) => holds !== 'deal' && holds !== 'applicant'),
  { holds: 'deal', name: 'Sales', stages: ['New', 'Talking', 'Offer', 'Won', 'Lost'], over: ['Won', 'Lost'] },
  {
    holds: 'applicant',
    name: 'Hiring',
    stages: ['Applied', 'Talking', 'Trial shift', 'Offer', 'Hired', 'Not taken'],
    over: ['Hired', 'Not taken'],
  },
]

/** A small Pannier & Post: two in sales, one recruiter, a lead, an admin, and their lines. */
export async function makeFirm(): Promise<Firm> {
  const [sales, recruiting] = [uuid(), uuid()]
  const [a, m, n, o, r] = [uuid(), uuid(), uuid(), uuid(), uuid()]
  const colleagues = {
    ada: asker('Ada Lund', 'rep', [sales], [a, m, o], a),
    mika: asker('Mika Sand', 'rep', [sales], [a, m, o], m),
    noor: asker('Noor Farouk', 'rep', [recruiting], [n, o], n),
    odile: asker('Odile Marchetti', 'lead', [sales, recruiting], [a, m, n, o], o),
    rafe: asker('Rafe Pennington', 'admin', [], [r], r),
  }
  const line = (e164: string, name: string, country: string, belongs: Partial<Line>): Line => ({
    id: uuid(),
    e164,
    name,
    country,
    teamId: null,
    colleagueId: null,
    private: false,
    state: 'active', active: true, turnsAt: null, rentMicros: null, rentCurrency: null, toldAt: null,
    carrier: 'practice',
    languages: [],
    records: false,
    ownerFirst: false,
    greeting: null,
    busyGreeting: null,
    ringOrder: [],
    takeOrder: [],
    tookLast: null,
    textsAMinute: 60,
    textsADay: null, newSince: null, standInId: null,
    ringSound: 'quick',
    ringSeconds: 25,
    hours: null,
    ...belongs,
  })
  const lines = {
    portland: line('+15035550118', 'Portland line', 'US', { teamId: sales }),
    second: line('+16125550104', 'Minneapolis line', 'US', { teamId: sales }),
    halifax: line('+19025550120', 'Halifax line', 'CA', { teamId: recruiting }),
    own: line('+15035550190', 'Ada’s own line', 'US', { colleagueId: a, private: true }),
  }
  await tx(async (database) => {
    await database.insert(schema.firm).values({ name: 'Pannier & Post', country: 'US', textingOn: true })
    await database.insert(schema.team).values([{ id: sales, name: 'Sales' }, { id: recruiting, name: 'Recruiting' }])
    await database
      .insert(schema.colleague)
      .values(
        Object.values(colleagues).map(({ id, name, firstName, mail, role, title, zone }) => ({
          id,
          name,
          firstName,
          mail,
          role,
          title,
          zone,
          passwordHash: '',
          seesFrom: DAY,
        })),
      )
    await database
      .insert(schema.teamMember)
      .values(Object.values(colleagues).flatMap(one => one.teamIds.map(teamId => ({ teamId, colleagueId: one.id }))))
    await database.insert(schema.line).values(Object.values(lines))
    await database.insert(schema.moneyAccount).values({ currency: 'USD' })
    await database
      .insert(schema.carrierPrice)
      .values(
        ['US', 'CA'].map(country => ({
          carrier: 'practice',
          country,
          microsPerPart: 8_000,
          currency: 'USD',
          mostParts: 10,
          microsPerPicture: country === 'US' ? 20_000 : null,
          mostPictures: 3,
          mostPictureBytes: 600_000,
        })),
      )
  })
  for (const one of LAID) await layPipeline(one)
  return { ...colleagues, ...lines }
}

/** A form as the interface sends it, with what it leaves out filled in by the schema. */
export const form = (values: object): RecordForm & { personIds: string[] } => ({ personIds: [], ...recordForm.validateSync(values) })

let numbers = 100

/** A record of any module that needs no more than a name. */
export const makeThing = async (owner: SignedIn, module: Module, values: object = {}, personIds: string[] = []): Promise<string> =>
  addRecord(owner, { ...form({ name: 'Two bikes', ...values }), personIds, id: uuid(), module }, DAY)

/** A lead with one mobile number in Honolulu; gives the record and the number. */
export async function makeLead(
  owner: SignedIn,
  values: object = {},
  typed = `808 555 0${numbers++}`,
): Promise<{ recordId: string, phoneId: string, e164: string }> {
  const recordId = await addRecord(
    owner,
    {
      ...form({ firstName: 'Iris', lastName: 'Holm', region: 'HI', country: 'US', phones: [{ label: 'mobile', typed }], ...values }),
      id: uuid(),
      module: 'lead',
    },
    DAY,
  )
  const [phone] = await tx(database => database.query.phone.findMany({ where: (table, { eq }) => eq(table.recordId, recordId) }))
  return { recordId, phoneId: phone!.id, e164: phone!.e164! }
}

export const textTo = (phoneId: string, line: Line, values: Partial<SendForm> = {}): SendForm =>
  sendForm.validateSync({ id: uuid(), lineId: line.id, phoneId, text: 'Hi Iris, Ada here.', anyway: ['twice'], ...values })

export const later = (from: Date, milliseconds: number) => new Date(from.getTime() + milliseconds)
