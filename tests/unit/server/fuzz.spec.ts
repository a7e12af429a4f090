import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import pino from 'pino'
import { tx } from '~~/server/db/door'
import { colleague, personRight, rightChange, teamMember } from '~~/server/db/schema'
import { log } from '~~/server/log/log'
import { useDatabase } from '../../support/database'
import { everything, HIDDEN, type Things } from '../../support/everything'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { makeFirm, type Firm } from '../../support/firm'
import { allRoutes, askRoute, cookieOf, serve, type Route } from '../../support/routes'
import { describe as described, fitting, idPlaces, twisted } from '../../support/samples'

/** Of each route, in each of the two ways: what fits its schema, and what does not. On a server, once more, only some. */
const RUNS = Number(process.env.FUZZ_RUNS ?? (process.env.TEST_SERVER ? 3 : 6))
/** More of them tell no more. */
const MOST_TOLD = 60

/** Its answers have no end, and it ends nothing. */
const STREAM = '/api/live'
/** These take the bytes of a file, and those for nobody who is signed in. */
const TAKES_BYTES = ['PUT /api/pictures/:id', 'PUT /api/set-up/papers/files/:id']

useDatabase()
let routes: Route[]
let firm: Firm
let hers: Things
let hidden: Things
let served: Awaited<ReturnType<typeof serve>>
let cookies: Record<'ada' | 'rafe', string>
const logged: string[] = []

beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  fakeExchange();
  ({ hers, hidden } = await everything(firm))
  routes = (await allRoutes()).filter(({ path }) => path !== STREAM)
  served = await serve(routes)
  cookies = { ada: await cookieOf(firm.ada), rafe: await cookieOf(firm.rafe) }
  // what would be logged is kept, to be looked through
  log.level = 'trace'
  const stream = (log as unknown as Record<symbol, { write: (line: string) => void }>)[pino.symbols.streamSym]!
  stream.write = line => void logged.push(line)
})
afterAll(async () => {
  log.level = 'silent'
  await served.close()
})

const ask = (route: Route, input: Parameters<typeof askRoute>[2], cookie: string) => askRoute(served.url, route, input, cookie)

/** An admin may make anything of Ada, who is to see no more afterwards than before. */
const CHANGES_ADA = ['PUT /api/set-up/people/:id', 'PUT /api/set-up/rights', 'PUT /api/set-up/rights/people']
async function beAdaAgain(): Promise<void> {
  const { id, name, firstName, mail, role, title } = firm.ada
  await tx(async (database) => {
    await database.delete(rightChange)
    await database.delete(personRight)
    await database.update(colleague).set({ name, firstName, mail, role, title, helpsUntil: null }).where(eq(colleague.id, id))
    await database.delete(teamMember).where(eq(teamMember.colleagueId, id))
    await database.insert(teamMember).values(firm.ada.teamIds.map(teamId => ({ teamId, colleagueId: id })))
  })
}

const nameOf = ({ method, path }: Route) => `${method} ${path}`

const inputFor = (route: Route, things: Things, make: typeof fitting) => fc.record({
  params: route.schemas.params ? make(described(route.schemas.params), things) : fc.constant({}),
  query: route.schemas.query ? make(described(route.schemas.query), things) : fc.constant(undefined),
  body: route.schemas.body ? make(described(route.schemas.body), things) : fc.constant({}),
})

/** Addresses themselves are right: what is asked of them is not. */
const inputTwisted = (route: Route, things: Things) =>
  fc.oneof(
    fc.record({
      params: inputFor(route, things, fitting).map(one => one.params),
      query: route.schemas.query ? twisted(described(route.schemas.query), things) : fc.constant(undefined),
      body: route.schemas.body ? twisted(described(route.schemas.body), things) : fc.constant({}),
    }),
    inputFor(route, things, twisted),
  )

describe('every route', () => {
  it('is read from the files, with what it takes', () => {
    expect(routes.length).toBeGreaterThan(100)
  })

  it('says of each id that it takes what the id names', () => {
    const unnamed = routes.flatMap(route =>
      Object.entries(route.schemas).flatMap(([part, schema]) =>
        schema
          ? idPlaces(described(schema))
              .filter(({ names }) => names === undefined)
              .map(({ path }) => `${nameOf(route)} ${part} ${path.join('.')}`)
          : [],
      ),
    )
    expect(unnamed).toEqual([])
  })
})

describe('what is hidden', () => {
  it('is not found by its id, wherever an id is taken', async () => {
    const found: string[] = []
    let tried = 0
    for (const route of routes) {
      for (const part of ['params', 'query', 'body'] as const) {
        const schema = route.schemas[part]
        for (const { path, names } of schema ? idPlaces(described(schema)) : []) {
          if (!names || hers[names] === hidden[names] || ['group', 'disposition', 'colleague', 'team', 'pipeline', 'stage', 'field'].includes(names))
            continue
          const inputs = fc.sample(inputFor(route, hers, fitting), { numRuns: 200, seed: 20 })
          const fits = inputs.filter(input => (['params', 'query', 'body'] as const).every((one) => {
            const value = one === part ? put(input[one], path, hidden[names]) : input[one]
            return !route.schemas[one] || route.schemas[one].isValidSync(value, { abortEarly: true })
          })).slice(0, 3)
          if (fits.length === 0) found.push(`${nameOf(route)} ${part}.${path.join('.')}: nothing was found that it takes`)
          for (const input of fits) {
            tried++
            const { status, words } = await ask(route, { ...input, [part]: put(input[part], path, hidden[names]) }, cookies.ada)
            if (status < 400 || status >= 500)
              found.push(`${nameOf(route)} ${part}.${path.join('.')} answered ${status}: ${words.slice(0, 200)}`)
            if (words.includes(HIDDEN)) found.push(`${nameOf(route)} ${part}.${path.join('.')} gave it away`)
          }
        }
      }
    }
    expect(found).toEqual([])
    expect(tried).toBeGreaterThan(100)
  }, 300_000)
})

describe('what is hidden among others', () => {
  it('is left out, and fails nothing: a notice may tell of an entry that is not for everybody, a record may have gone to somebody else', async () => {
    const timeline = routes.find(one => nameOf(one) === 'GET /api/records/:id/timeline')!
    for (const query of [{ only: [hidden.entry, hers.entry] }, { around: hidden.entry }, { beforeAt: 4e12, beforeId: hidden.entry }]) {
      const { status, words } = await ask(timeline, { params: { id: hers.record }, query }, cookies.ada)
      expect([status, words.includes(HIDDEN), words.includes(hers.entry)]).toEqual([200, false, true])
    }
    const preview = routes.find(one => nameOf(one) === 'POST /api/bulk-changes/preview')!
    const { status, words } = await ask(
      preview,
      {
        body: {
          selection: { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: [hidden.record, hers.record], importId: null },
          change: { kind: 'add-tag', tag: 'new' },
        },
      },
      cookies.ada,
    )
    expect([status, words.includes(HIDDEN)]).toEqual([200, false])
  })
})

describe('whatever they are asked', () => {
  it('routes answer: nothing breaks, nothing hangs, nothing of others comes out, no words are logged', async () => {
    const wrong: string[] = []
    let asked = 0
    let taken = 0
    const check = async (route: Route, input: object, who: 'ada' | 'rafe') => {
      const said = `${nameOf(route)} as ${who} with ${JSON.stringify(input).slice(0, 400)}`
      const answer = await ask(route, input, cookies[who]).catch((error: Error) => ({
        status: 0,
        type: '',
        words: String(error.cause ?? error),
      }))
      asked++
      if (answer.status >= 200 && answer.status < 300) taken++
      if (answer.status === 0 || answer.status >= 500)
        wrong.push(`${answer.status} ${said}: ${logged.at(-1)?.slice(0, 700) ?? answer.words}`)
      if (answer.status >= 400 && !answer.type.includes('application/problem+json')) wrong.push(`no problem document: ${said}`)
      if (who === 'ada' && answer.words.includes(HIDDEN)) wrong.push(`gave away what is hidden: ${said}: ${answer.words.slice(0, 300)}`)
    }
    for (const route of routes.filter(one => !TAKES_BYTES.includes(nameOf(one)) && !one.path.startsWith('/api/sign-'))) {
      const things = { ...hers }
      for (const input of fc.sample(inputFor(route, things, fitting), { numRuns: RUNS, seed: 14 })) await check(route, input, 'ada')
      for (const input of fc.sample(inputFor(route, hidden, fitting), { numRuns: Math.ceil(RUNS / 3), seed: 15 }))
        await check(route, input, 'ada')
      for (const input of fc.sample(inputTwisted(route, things), { numRuns: RUNS, seed: 16 })) await check(route, input, 'ada')
      for (const input of fc.sample(inputFor(route, things, fitting), { numRuns: Math.ceil(RUNS / 3), seed: 17 }))
        await check(route, input, 'rafe')
      for (const input of fc.sample(inputTwisted(route, things), { numRuns: Math.ceil(RUNS / 3), seed: 18 }))
        await check(route, input, 'rafe')
      if (CHANGES_ADA.includes(nameOf(route))) await beAdaAgain()
      if (wrong.length > MOST_TOLD) break
    }
    expect(wrong).toEqual([])
    // it has to have been asked things that it takes, or nothing was tried
    expect(taken).toBeGreaterThan(asked / 12)
    expect(logged.filter(line => line.includes(HIDDEN) || line.includes('Iris'))).toEqual([])
  }, 600_000)
})

/** The same with something else at a place. */
function put(value: unknown, [key, ...rest]: string[], what: unknown): unknown {
  if (key === undefined) return what
  if (Array.isArray(value) || key === '0') return [put(Array.isArray(value) ? value[0] : undefined, rest, what)]
  return { ...value as object, [key]: put((value as Record<string, unknown> | undefined)?.[key], rest, what) }
}
