import { sql } from 'drizzle-orm'
import { tx } from '~~/server/db/door'
import { browserNamed } from '~~/server/identity/devices'
import { colleagueAtWork, endMine, endSignIn, mySignIns, openSignIn, stillSignedIn, whoSignedIn } from '~~/server/identity/sign-in'
import { hashPassword } from '~~/server/identity/password'
import { closeAllBut, listening } from '~~/server/live/streams'
import { useDatabase } from '../../support/database'
import { DAY, later, makeFirm, type Firm } from '../../support/firm'
import { allRoutes, cookieOf, serve, type Route } from '../../support/routes'

useDatabase()
let firm: Firm
beforeAll(async () => {
  firm = await makeFirm()
  const hash = await hashPassword('right')
  await tx(database => database.execute(sql`update colleague set password_hash = ${hash}`))
})

const signInAs = async (name: string, address = '192.0.2.1', device?: string, now = DAY) =>
  openSignIn({ mail: `${name}@pannier.example`, password: 'right', code: '' }, { address, device, userAgent: 'Mozilla/5.0 (X11; Linux x86_64) Firefox/130.0' }, now)
const wrong = (name: string, address: string, device?: string) =>
  openSignIn({ mail: `${name}@pannier.example`, password: 'wrong', code: '' }, { address, device }, DAY).catch(error => error.details.status as number)
const TOO_MANY = { details: { status: 429, detail: expect.stringContaining('Try again in') } }

describe('signing in', () => {
  it('opens a sign-in that holds until it is ended or over, and is checked each time', async () => {
    const { signIn: token } = await openSignIn({ mail: ' ADA@pannier.example ', password: 'right', code: '' }, { address: '192.0.2.1' }, DAY)
    expect(await whoSignedIn(token, DAY)).toMatchObject({
      id: firm.ada.id,
      role: 'rep',
      teamIds: firm.ada.teamIds,
      peopleIds: expect.arrayContaining([firm.mika.id]),
    })
    expect(await whoSignedIn(token, later(DAY, 13 * 3_600_000))).toBeNull()
    expect(await whoSignedIn(`${token}x`, DAY)).toBeNull()
    expect(await whoSignedIn(undefined, DAY)).toBeNull()
    await endSignIn(token, DAY)
    expect(await whoSignedIn(token, DAY)).toBeNull()
    expect(await colleagueAtWork(firm.ada.id)).not.toHaveProperty('signInId')
  })

  it('keeps no token, only its hash, of sign-ins as of browsers', async () => {
    const tokens = await signInAs('mika')
    const { rows } = await tx(database => database.execute<{ token_hash: string }>(sql`select token_hash from sign_in union
      select token_hash from known_device`))
    expect(rows.map(row => row.token_hash)).not.toContain(tokens.signIn)
    expect(rows.map(row => row.token_hash)).not.toContain(tokens.device)
  })

  it('gives the same answer to a wrong password and to nobody\'s address', async () => {
    const answers = await Promise.all(
      ['noor@pannier.example', 'nobody@pannier.example'].map(mail =>
        openSignIn({ mail, password: 'wrong', code: '' }, { address: '192.0.2.2' }, DAY).catch(error => error.details),
      ),
    )
    expect(answers[0]).toMatchObject({ status: 422, fields: { password: expect.any(String) } })
    expect(answers[1]).toEqual(answers[0])
  })

  it('to one account is refused after ten wrong passwords, from wherever they come; a browser that was signed in before comes in', async () => {
    const { device } = await signInAs('odile', '192.0.2.9')
    for (let i = 0; i < 10; i++) expect(await wrong('odile', `198.51.100.${i}`)).toBe(422)
    await expect(signInAs('odile', '198.51.100.99')).rejects.toMatchObject(TOO_MANY)
    await expect(signInAs('odile', '192.0.2.9')).rejects.toMatchObject(TOO_MANY)
    await expect(signInAs('odile', '198.51.100.99', 'some other browser')).rejects.toMatchObject(TOO_MANY)
    await expect(signInAs('odile', '192.0.2.9', device)).resolves.toMatchObject({ device })
    // what a browser is known for is one account
    for (let i = 0; i < 10; i++) await wrong('noor', `198.51.100.${i}`)
    await expect(signInAs('noor', '192.0.2.9', device)).rejects.toMatchObject(TOO_MANY)
  })

  it('from one address is refused after thirty, for everybody but those whose browsers are known', async () => {
    const { device } = await signInAs('ada', '203.0.113.5')
    for (let i = 0; i < 30; i++) await wrong(`nobody${i}`, '203.0.113.5')
    await expect(signInAs('mika', '203.0.113.5')).rejects.toMatchObject(TOO_MANY)
    await expect(signInAs('ada', '203.0.113.5', device)).resolves.toEqual(expect.anything())
    await expect(signInAs('mika', '203.0.113.6')).resolves.toEqual(expect.anything())
  })

  it('tries no more passwords in a known browser than in any other', async () => {
    const { device } = await signInAs('rafe', '203.0.113.7')
    for (let i = 0; i < 10; i++) expect(await wrong('rafe', '203.0.113.7', device)).toBe(422)
    await expect(signInAs('rafe', '203.0.113.7', device)).rejects.toMatchObject(TOO_MANY)
  })

  it.each([
    ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/120.0 Safari/537.36 Edg/120.0', 'Edge on Windows'],
    ['Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) AppleWebKit/605.1.15 Version/17.0 Mobile Safari/604.1', 'Safari on iPhone'],
    ['Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/120.0 Mobile Safari/537.36', 'Chrome on Android'],
    ['', 'A browser'],
  ])('names a browser as its owner knows it: %s', (userAgent, words) => {
    expect(browserNamed(userAgent)).toBe(words)
  })
})

describe('where somebody is signed in', () => {
  it('is listed with this browser first, and ended one by one or all at once, by themselves alone', async () => {
    const [here, there, third] = [
      await signInAs('mika', '192.0.2.21', undefined, later(DAY, 1)),
      await signInAs('mika', '192.0.2.22', undefined, later(DAY, 2)),
      await signInAs('mika', '192.0.2.23', undefined, later(DAY, 3)),
    ]
    const mika = (await whoSignedIn(here.signIn, DAY))!
    const other = (await whoSignedIn(there.signIn, DAY))!
    const listed = await mySignIns(mika, DAY)
    expect(listed[0]).toMatchObject({ here: true, device: 'Firefox on Linux', address: '192.0.2.21' })
    expect(listed.slice(1, 3).map(({ address, here: own }) => [address, own])).toEqual([['192.0.2.23', false], ['192.0.2.22', false]])
    const ada = (await whoSignedIn((await signInAs('ada', '192.0.2.24')).signIn, DAY))!
    await expect(endMine(ada, other.signInId!, DAY)).rejects.toMatchObject({ details: { status: 404 } })
    await endMine(mika, other.signInId!, DAY)
    expect([await whoSignedIn(there.signIn, DAY), await whoSignedIn(third.signIn, DAY)]).toEqual([null, expect.anything()])
    expect((await endMine(mika, 'all-others', DAY)).map(one => one.here)).toEqual([true])
    expect([await whoSignedIn(third.signIn, DAY), await whoSignedIn(here.signIn, DAY)]).toEqual([null, expect.anything()])
    expect(await stillSignedIn([mika.signInId!, other.signInId!], DAY)).toEqual(new Set([mika.signInId]))
    const { rows } = await tx(database => database.execute<{ action: string }>(sql`select action from audit
      where colleague_id = ${mika.id}::uuid and action like 'signed-out-%' order by id`))
    expect(rows.map(({ action }) => action)).toEqual(['signed-out-elsewhere', 'signed-out-everywhere-else'])
  })
})

describe('the streams of a sign-in', () => {
  it('are few, and end with it', async () => {
    const served = await serve(await allRoutes())
    const [one, two] = [
      await signInAs('mika', '192.0.2.31', undefined, new Date()),
      await signInAs('mika', '192.0.2.32', undefined, new Date()),
    ]
    const open = async (token: string) => {
      const answer = await fetch(`${served.url}/api/live`, { headers: { cookie: `plauder=${token}` } })
      return { answer, ended: answer.text() }
    }
    const streams = await Promise.all(Array.from({ length: 6 }, () => open(one.signIn)))
    const elsewhere = await open(two.signIn)
    const seventh = await open(one.signIn)
    expect([seventh.answer.status, JSON.parse(await seventh.ended)]).toEqual([429, expect.objectContaining({ type: 'too-many-streams' })])
    expect(listening()).toHaveLength(2)
    await endSignIn(one.signIn, new Date())
    for (const { ended } of streams) expect(await ended).toContain('event: listening')
    const other = (await whoSignedIn(two.signIn, new Date()))!
    expect(listening()).toEqual([other.signInId])
    closeAllBut(new Set())
    await elsewhere.ended
    await new Promise(resolve => setTimeout(resolve, 50))
    expect(listening()).toEqual([])
    await served.close()
  })
})

describe('a page that belongs to somebody', () => {
  let served: Awaited<ReturnType<typeof serve>>
  let routes: Route[]
  beforeAll(async () => {
    routes = await allRoutes()
    served = await serve(routes)
  })
  afterAll(() => served.close())

  it('does nothing as somebody else who has signed in in another tab since', async () => {
    const cookie = await cookieOf(firm.noor)
    const as = (id: string, path: string, init: RequestInit = {}) =>
      fetch(`${served.url}${path}`, { ...init, headers: { 'cookie': cookie, 'content-type': 'application/json', 'plauder-as': id } })
    expect((await as(firm.noor.id, '/api/tasks')).status).toBe(200)
    for (const answer of [await as(firm.ada.id, '/api/tasks'), await as(firm.ada.id, '/api/drafts', { method: 'PUT', body: '{}' })]) {
      expect(answer.status).toBe(409)
      expect(await answer.json()).toMatchObject({
        type: 'somebody-else',
        name: 'Noor Farouk',
        detail: expect.stringContaining('has signed in in another tab'),
      })
    }
  })

  it('is kept by no cache, whatever it was asked for', async () => {
    const cookie = await cookieOf(firm.ada)
    for (const { path } of routes.filter(({ method, path }) => method === 'GET' && path !== '/api/live')) {
      const answer = await fetch(`${served.url}${path.replace(/:\w+/g, '01a21d99-5b01-738e-996b-8c6fb53aafd4')}`, { headers: { cookie } })
      expect([path, answer.headers.get('cache-control')]).toEqual([path, 'no-store'])
    }
  })
})
