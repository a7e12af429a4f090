import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { colleagueForm, inviteForm } from '~~/shared/schemas/people'
import { colleagues } from '~~/server/identity/colleagues'
import { join } from '~~/server/identity/join'
import { changeColleague, invite, linkForPassword } from '~~/server/identity/people'
import { colleagueAtWork, openSignIn, signInAs, whoSignedIn } from '~~/server/identity/sign-in'
import { letGo } from '~~/server/leaving/leave'
import { isForHelpers } from '~~/server/routing/for-helpers'
import { useDatabase } from '../../support/database'
import { everything, HIDDEN, type Things } from '../../support/everything'
import { fakeCarrier } from '../../support/fake-carrier'
import { fakeExchange } from '../../support/fake-exchange'
import { later, makeFirm, type Firm } from '../../support/firm'
import { allRoutes, askRoute, cookieOf, serve, type Route } from '../../support/routes'
import { describe as described, fitting } from '../../support/samples'

const NOW = new Date()
const DAY_MS = 86_400_000
const FROM = { address: '192.0.2.7' }
const PASSWORD = 'four words of my own'
const dayIn = (days: number) => new Date(NOW.getTime() + days * DAY_MS).toISOString().slice(0, 10)
const problem = (status: number, details: object = {}) => ({ details: { status, ...details } })

useDatabase()
let firm: Firm
let things: Things[]
beforeAll(async () => {
  firm = await makeFirm()
  fakeCarrier()
  fakeExchange()
  const { hers, hidden } = await everything(firm)
  things = [hers, hidden]
})

const as = (more: object) => colleagueForm.validateSync({ name: 'Ines Duarte', role: 'helper', helpsUntil: dayIn(3), ...more })
const helper = (more: object = {}) => inviteForm.validateSync({
  id: uuid(), name: 'Ines Duarte', mail: `${uuid().slice(-8)}@outside.example`, role: 'helper', helpsUntil: dayIn(3), ...more,
})
async function letIn(form = helper()) {
  const { link } = await invite(firm.rafe, form, NOW)
  const tokens = await join({ key: link.slice(link.indexOf('#') + 1), name: form.name, zone: 'Europe/London', password: PASSWORD }, FROM, NOW)
  return { mail: form.mail, token: tokens!.signIn, ines: (await whoSignedIn(tokens!.signIn, NOW))! }
}

/** These are for nobody who is signed in: each asks for a signature or a key, or tells nothing of anybody. */
const OPEN = /^\/api\/(sign-|join|begin|health|ready|metrics|backup|(carriers|exchanges)\/)/

describe('a helper from outside', () => {
  it('is let in until the end of a day, and then nowhere any more', async () => {
    const { mail, token, ines } = await letIn()
    const over = later(NOW, 5 * DAY_MS)
    expect(ines).toMatchObject({ role: 'helper', teamIds: [] })
    expect(await whoSignedIn(token, over)).toBeNull()
    await openSignIn({ mail, password: PASSWORD, code: '' }, FROM, later(NOW, 2 * DAY_MS))
    await expect(openSignIn({ mail, password: PASSWORD, code: '' }, FROM, over))
      .rejects.toMatchObject(problem(422, { fields: { password: expect.stringContaining('is over') } }))
    // put off, it goes on
    await changeColleague(firm.rafe, ines.id, as({ mail, helpsUntil: dayIn(10) }), NOW)
    await openSignIn({ mail, password: PASSWORD, code: '' }, FROM, over)
  })

  it('is signed in no longer than that, whatever page is open', async () => {
    const form = helper({ helpsUntil: NOW.toISOString().slice(0, 10) })
    const { ines } = await letIn(form)
    const { signIn } = await signInAs(ines.id, FROM, NOW)
    // the admin's day ends some hours after that of UTC
    expect(await whoSignedIn(signIn, later(NOW, DAY_MS * 1.5))).toBeNull()
  })

  it('is not invited without a day, until one that is over, or one that is far away', async () => {
    expect(() => helper({ helpsUntil: null })).toThrow(/until when/)
    for (const helpsUntil of [dayIn(-2), dayIn(120)])
      await expect(invite(firm.rafe, helper({ helpsUntil }), NOW))
        .rejects.toMatchObject(problem(422, { fields: { helpsUntil: expect.any(String) } }))
  })

  it('is nobody who works here, in no team, and nobody to whom anything goes', async () => {
    const { ines } = await letIn(helper({ teamIds: [firm.portland.teamId] }))
    expect(ines.teamIds).toEqual([])
    expect((await colleagues()).map(({ id }) => id)).not.toContain(ines.id)
    await expect(letGo(firm.rafe, firm.mika.id, ines.id, NOW)).rejects.toMatchObject(problem(422))
    const { name, mail, title, teamIds } = firm.ada
    await expect(changeColleague(firm.rafe, firm.ada.id, as({ name, mail, title, teamIds }), NOW))
      .rejects.toMatchObject(problem(422, { fields: { role: expect.stringContaining('Invite') } }))
    // one more password is no more time
    await linkForPassword(firm.rafe, ines.id, NOW)
    await letGo(firm.rafe, ines.id, firm.mika.id, NOW)
    expect(await colleagueAtWork(ines.id)).toBeNull()
  })

  it('sees no person and no words by any route, and sets lines, carriers and fields up', async () => {
    const { ines } = await letIn()
    const cookie = await cookieOf(ines)
    const routes = (await allRoutes()).filter(({ path }) => path !== '/api/live' && !path.startsWith('/api/sign-'))
    const served = await serve(routes)
    // numbers of people, what they wrote, and what everything of somebody's is called; carriers and papers are called so too
    const PEOPLES = ['8085550142', '8085550143', 'text me any more']
    const theirs = ({ path }: Route) => /^\/api\/set-up(\/carriers|\/papers|$)/.test(path) ? PEOPLES : [...PEOPLES, HIDDEN]
    const wrong: string[] = []
    const taken = new Set<string>()
    const inputFor = (route: Route, of: Things) => fc.record({
      params: route.schemas.params ? fitting(described(route.schemas.params), of) : fc.constant({}),
      query: route.schemas.query ? fitting(described(route.schemas.query), of) : fc.constant(undefined),
      body: route.schemas.body ? fitting(described(route.schemas.body), of) : fc.constant({}),
    })
    // what only reads comes first: afterwards lines and fields may be any
    for (const route of routes) {
      if (OPEN.test(route.path) || isForHelpers(route.path)) continue
      const { status } = await askRoute(served.url, route, fc.sample(inputFor(route, things[0]!), { numRuns: 1, seed: 19 })[0]!, cookie)
      if (status !== 403) wrong.push(`${route.method} ${route.path} is not refused: ${status}`)
    }
    for (const route of [...routes].sort((a, b) => Number(a.method !== 'GET') - Number(b.method !== 'GET')))
      for (const of of things)
        for (const input of fc.sample(inputFor(route, of), { numRuns: 3, seed: 19 })) {
          const { status, words } = await askRoute(served.url, route, input, cookie)
          const said = `${route.method} ${route.path} ${status}`
          if (status >= 200 && status < 300) taken.add(`${route.method} ${route.path}`)
          const asked = JSON.stringify(input)
          if (status >= 500 || theirs(route).some(secret => words.includes(secret) && !asked.includes(secret)))
            wrong.push(`${said}: ${words.slice(0, 300)}`)
        }
    await served.close()
    expect(wrong).toEqual([])
    const SETS_UP = ['GET /api/set-up/lines', 'GET /api/set-up/carriers', 'GET /api/set-up/fields', 'POST /api/set-up/fields', 'GET /api/set-up']
    expect([...taken]).toEqual(expect.arrayContaining(SETS_UP))
    // what a helper changes is only what is set up, and their own
    const changes = [...taken].filter(one => !one.startsWith('GET'))
    expect(changes.filter(one => !/\/api\/(set-up\/(fields|lines|carriers|papers)|me\b)/.test(one))).toEqual([])
  }, 300_000)
})
