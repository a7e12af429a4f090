import { randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { expect } from '@playwright/test'
import { Webhook } from 'standardwebhooks'
import { credentials, freshNumber, makeLead, signIn, test, textsOnHandset } from './people'

/** What stands in a path that is no id. */
const NAMES: Record<string, string> = { country: 'CA', place: 'US-TX' }

/** Every route there is, read from the files, so that a new one is asked too. */
const ROUTES = listRoutes()
const OPEN = [
  'GET /api/health',
  'GET /api/ready',
  'GET /api/metrics',
  'GET /api/begin',
  'POST /api/begin',
  'POST /api/backup',
  'POST /api/join',
  'POST /api/join/read',
  'POST /api/sign-in',
  'POST /api/sign-out',
  'POST /api/carriers/[carrier]/events',
  'POST /api/exchanges/practice/events',
]

function listRoutes(): { method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, name: string }[] {
  const files = readdirSync('server/api', { recursive: true, encoding: 'utf8' })
  return files.flatMap((file) => {
    const match = /^(.+?)(?:\/index)?\.(get|post|put|delete)\.ts$/.exec(file)
    if (!match) return []
    const method = match[2]!.toUpperCase() as 'GET'
    const name = `${method} /api/${match[1]}`
    return [{ method, name, path: `/api/${match[1]!.replace(/\[(\w+)\]/g, (_, name: string) => NAMES[name] ?? randomUUID())}` }]
  })
}

const isProblem = async (response: { status(): number, headers(): Record<string, string>, json(): Promise<unknown> }, status: number) => {
  expect(response.headers()['content-type']).toContain('application/problem+json')
  expect(await response.json()).toMatchObject({ type: expect.any(String), title: expect.any(String), status, detail: expect.any(String) })
  expect(response.status()).toBe(status)
}

test('there are routes to ask', () => {
  expect(ROUTES.length).toBeGreaterThan(25)
})

for (const { method, path, name } of ROUTES.filter(route => !OPEN.includes(route.name))) {
  test(`${name} asks who is there`, async ({ request }) => {
    await isProblem(await request.fetch(path, { method, data: method === 'GET' || method === 'DELETE' ? undefined : {} }), 401)
  })
}

/** Rows of a file, and a sound. */
const takesMuch = (name: string) => name.includes('/imports/') || name.startsWith('PUT /api/spoken/')
/** Those take the bytes of a picture, not JSON; see the test of their own. */
const takesBytes = (name: string) => /^PUT \/api\/(pictures|set-up\/papers\/files)\//.test(name)

for (const { method, path, name } of ROUTES.filter(
  route =>
    !takesBytes(route.name)
    && (route.method === 'POST' || route.method === 'PUT')
    && !route.name.endsWith('/practice/events')
    && route.name !== 'POST /api/sign-out',
)) {
  test(`${name} refuses what is malformed, oversized or from elsewhere`, async ({ browser }) => {
    const { request } = await signIn(browser, 'ada')
    const send = (data: string | Buffer, headers: Record<string, string> = {}) =>
      request.fetch(path, { method, data: Buffer.from(data), headers: { 'content-type': 'application/json', ...headers } })
    await isProblem(await send('{}', { origin: 'https://elsewhere.example' }), 403)
    const malformed = await send('{"half')
    // those that take none answer at once whether there is such a thing, whether it may be done, or that it is done
    const takesABody = ![200, 403, 404].includes(malformed.status())
    if (!takesABody) return
    await isProblem(malformed, 400)
    await isProblem(await send(Buffer.from([0x22, 0xff, 0xfe, 0x22])), 400)
    await isProblem(await send(JSON.stringify({ words: 'a'.repeat(takesMuch(name) ? 9_000_000 : 200_000) })), 413)
    await isProblem(await send('{}', { 'content-type': 'text/plain' }), 415)
    await isProblem(await send('[]'), 422)
  })
}

test('a picture is refused from elsewhere, as JSON, too large, and when it is none', async ({ browser }) => {
  const { request } = await signIn(browser, 'ada')
  const put = (data: Buffer, headers: Record<string, string> = {}) =>
    request.put(`/api/pictures/${randomUUID()}`, { data, headers: { 'content-type': 'image/png', ...headers } })
  await isProblem(await put(Buffer.from('x'), { origin: 'https://elsewhere.example' }), 403)
  await isProblem(await put(Buffer.from('{}'), { 'content-type': 'application/json' }), 415)
  await isProblem(await put(Buffer.alloc(12_000_001)), 413)
  await isProblem(await put(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')), 422)
})

test('a paper is refused from elsewhere, as JSON, too large, without a name, when it is none, and from who hands none in', async ({ browser }) => {
  const [rafe, ada] = [await signIn(browser, 'rafe'), await signIn(browser, 'ada')]
  const put = (data: Buffer, headers: Record<string, string> = {}, query = '?name=form.pdf', { request } = rafe) =>
    request.put(`/api/set-up/papers/files/${randomUUID()}${query}`, { data, headers: { 'content-type': 'application/octet-stream', ...headers } })
  await isProblem(await put(Buffer.from('%PDF-'), { origin: 'https://elsewhere.example' }), 403)
  await isProblem(await put(Buffer.from('{}'), { 'content-type': 'application/json' }), 415)
  await isProblem(await put(Buffer.alloc(2_000_001)), 413)
  await isProblem(await put(Buffer.from('%PDF-'), {}, ''), 422)
  await isProblem(await put(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')), 422)
  await isProblem(await put(Buffer.from('%PDF-1.7'), {}, '?name=form.pdf', ada), 403)
})

test('what is foreign is not found, whoever\'s it is', async ({ browser }) => {
  const [ada, noor] = await Promise.all([signIn(browser, 'ada'), signIn(browser, 'noor')])
  const id = await makeLead(ada.request, 'Foreign', freshNumber())
  for (const path of ['', '/timeline', '/composer', '/templates', '/board', '/rhythm']) {
    await isProblem(await noor.request.get(`/api/records/${id}${path}`), 404)
  }
  await isProblem(await noor.request.post(`/api/records/${id}/notes`, { data: { id: randomUUID(), words: 'Hello' } }), 404)
  await isProblem(await noor.request.post(`/api/records/${id}/presence`, { data: { state: 'looking' } }), 404)
  expect(await (await noor.request.get('/api/find', { params: { words: 'Foreign Testaway' } })).json()).toEqual([])
})

test('an address that leads nowhere, and an id that is none, say so', async ({ browser }) => {
  const { request } = await signIn(browser, 'ada')
  await isProblem(await request.get('/api/nothing'), 404)
  await isProblem(await request.delete(`/api/records/${randomUUID()}`), 404)
  await isProblem(await request.get('/api/records/one\'; drop table record; --'), 422)
  await isProblem(await request.get('/api/records', { params: { module: 'submarine' } }), 422)
})

test.describe('the webhook', () => {
  const events = '/api/carriers/practice/events'
  const event = (values: object) =>
    JSON.stringify({
      id: randomUUID(),
      type: 'text.received',
      at: new Date().toISOString(),
      data: { id: randomUUID(), from: '+14585550188', to: '+15035550118', text: 'Hi' },
      ...values,
    })

  function signed(body: string, at = new Date(), secret = credentials().webhookSecret) {
    const id = randomUUID()
    return {
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
      'webhook-signature': new Webhook(secret).sign(id, at, body),
      'content-type': 'application/json',
    }
  }

  test('refuses what is unsigned, forged, replayed or not an event', async ({ request }) => {
    const body = event({})
    await isProblem(await request.post(events, { data: body }), 401)
    await isProblem(
      await request.post(events, { data: body, headers: signed(body, new Date(), Buffer.from('another').toString('base64')) }),
      401,
    )
    await isProblem(await request.post(events, { data: body.replace('Hi', 'Ho'), headers: signed(body) }), 401)
    await isProblem(await request.post(events, { data: body, headers: signed(body, new Date(Date.now() - 6 * 60_000)) }), 401)
    // what is signed and cannot be read is kept for an admin: telling it again would help nobody
    const odd = event({ type: 'text.eaten' })
    expect(await (await request.post(events, { data: odd, headers: signed(odd) })).json()).toEqual({ taken: false })
    expect((await request.post(events, { data: body, headers: signed(body) })).ok()).toBe(true)
  })

  test('takes reports late, twice, shuffled and with some missing', async ({ browser }) => {
    const { request } = await signIn(browser, 'ada')
    const number = freshNumber()
    const recordId = await makeLead(request, 'Shuffled', number)
    const { phones } = await (await request.get(`/api/records/${recordId}`)).json() as { phones: { id: string }[] }
    const { lines } = await (await request.get(`/api/records/${recordId}/composer`)).json() as { lines: { id: string, name: string }[] }
    const id = randomUUID()
    await request.post('/api/texts', {
      data: { id, lineId: lines.find(line => line.name === 'Portland line')!.id, phoneId: phones[0]!.id, text: 'Shuffle me' },
    })
    // before it has even left: a report about a text of ours, twice, and an older one behind it
    for (const type of ['text.delivered', 'text.delivered', 'text.sent']) {
      const body = event({ id: `${type} ${id}`, type, data: { id: `ref ${id}`, key: id } })
      expect((await request.post(events, { data: body, headers: signed(body) })).ok()).toBe(true)
    }
    const state = async () =>
      (
        (await (await request.get(`/api/records/${recordId}/timeline`)).json()) as { entries: { message: { state: string } | null }[] }
      ).entries.find(entry => entry.message)?.message?.state
    expect(await state()).toBe('delivered')
    await expect.poll(() => textsOnHandset(request, number).then(texts => texts.length), { timeout: 3_000 }).toBeLessThanOrEqual(1)
  })
})
