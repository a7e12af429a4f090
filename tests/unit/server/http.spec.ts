import { request } from 'node:http'
import { connect, type AddressInfo } from 'node:net'
import fc from 'fast-check'
import pino from 'pino'
import { array, boolean, mixed, number, object, string, ValidationError } from 'yup'
import { addressOf, comesThrough, readProxies } from '~~/server/http/address'
import { Budget } from '~~/server/http/budget'
import { loggedError, namedFailure, PlainError } from '~~/server/log/failure'
import { namedIn } from '~~/server/routing/named-in'
import { plain } from '~~/server/http/plain'
import { misshapen } from '~~/server/http/shape'
import { withStrength } from '~~/server/http/strength'
import { openRoute } from '~~/server/routing/route'
import { dispositionForm } from '~~/shared/schemas/disposition'
import { draftForm } from '~~/shared/schemas/texting'
import { serve } from '../../support/routes'

describe('the reader in front of the schemas', () => {
  it.each<[string, unknown]>([
    ['a NUL', { a: ['b\0'] }],
    ['a NUL in a name', { 'a\0': 1 }],
    ['the first half of a pair of surrogates', '\uD83D'],
    ['the second half', { a: 'x\uDE00y' }],
    ['a name that changes what an object is', JSON.parse('{"a":{"__proto__":{"role":"admin"}}}')],
    ['a name that every object answers to', { toString: 'x' }],
    ['another one, further in', { a: [{ hasOwnProperty: 1 }] }],
    ['nesting without end', JSON.parse('['.repeat(2_000) + ']'.repeat(2_000))],
    ['a number that is none', { a: Number.NaN }],
    ['more than anybody fills in', Array.from({ length: 200_001 }, () => 1)],
  ])('refuses %s', (_, input) => {
    expect(() => plain(input)).toThrow(expect.objectContaining({ details: expect.objectContaining({ status: 400, type: 'not-plain' }) }))
  })

  it('takes everything else as it is, and changes no object\'s nature', () => {
    fc.assert(fc.property(fc.jsonValue({ depthSize: 'small', noUnicodeString: false }), (value) => {
      fc.pre(
        !/__|toString|valueOf|OwnProperty|isPrototypeOf|propertyIsEnumerable|toLocaleString/.test(JSON.stringify(value))
        && JSON.stringify(value).isWellFormedHere()
        && !JSON.stringify(value).includes('\\u0000'),
      )
      expect(plain(value)).toEqual(value)
    }))
    expect(plain({ constructor: 'Lund' })).toEqual({ constructor: 'Lund' })
    expect(plain('👍 a\nb')).toBe('👍 a\nb')
  })

  it('says at its place where a list or a form stands for a word or a number', () => {
    const schema = object({
      name: string().trim().required(),
      ids: array(string().lowercase()),
      at: number(),
      later: object({ yes: boolean() }).nullable().default(null),
    })
    expect(misshapen(schema, { name: ['a'], ids: ['a', { toString: 'x' }], at: {}, later: { yes: [] } })).toEqual({
      'name': 'This takes one word or text, and no list.',
      'ids[1]': 'This takes one word or text, and no form.',
      'at': 'This takes one number, and no form.',
      'later.yes': 'This takes one yes or no, and no list.',
    })
    expect(misshapen(schema, { name: 'a', ids: ['b'], at: '3', later: null, more: [{}] })).toEqual({})
    expect(misshapen(schema, { constructor: null, name: 'a' })).toEqual({ constructor: 'No form has a field of this name.' })
    const stages = object({ stages: array(object({ name: string() })) })
    expect(misshapen(stages, { stages: ['New', null, { name: 'Won' }] })).toEqual({
      'stages[0]': 'This takes a form, and no single word or number.',
      'stages[1]': 'Something is missing in this list.',
    })
    // a map of fields of the firm's own is no form
    expect(misshapen(object({ fields: mixed() }), { fields: { constructor: 'Lund' } })).toEqual({})
  })

  it('finds every id that is named, also in keys and in what only a kind of effect has', () => {
    const [record, template] = ['01a21d99-5b01-738e-996b-8c6fb53aafd4', '01a21d99-5c50-77bd-917d-de5706fe1623']
    expect(namedIn(draftForm, { key: `note ${record}`, templateId: template, pictureIds: [record] })).toEqual(
      expect.arrayContaining([
        { what: 'record', id: record },
        { what: 'template', id: template },
        { what: 'picture', id: record },
      ]),
    )
    expect(namedIn(draftForm, { key: `conversation ${record}` })).toEqual([{ what: 'conversation', id: record }])
    expect(
      namedIn(dispositionForm, {
        id: record,
        effects: [
          { kind: 'text', templateId: template },
          { kind: 'stage', stageId: record },
        ],
      }),
    ).toEqual([{ what: 'template', id: template }])
  })
})

declare global {
  interface String { isWellFormedHere(): boolean }
}
Object.defineProperty(String.prototype, 'isWellFormedHere', { value(this: string) {
  return Buffer.from(this).toString() === this && !/\\ud[89a-f]/i.test(this)
} })

describe('where a request comes from', () => {
  const from = (remoteAddress: string, forwarded?: string) => ({ socket: { remoteAddress }, headers: { 'x-forwarded-for': forwarded } })
  const proxies = readProxies('10.0.0.0/8, 192.0.2.7 2001:db8::/32')

  it.each([
    ['nobody is trusted, so what it says counts for nothing', '', from('203.0.113.9', '198.51.100.1'), '203.0.113.9'],
    ['a stranger cannot speak for somebody else', '10.0.0.0/8', from('203.0.113.9', '198.51.100.1'), '203.0.113.9'],
    ['a proxy says for whom it asks', '10.0.0.0/8', from('10.1.2.3', '198.51.100.1'), '198.51.100.1'],
    [
      'what stands left of that may have been written by anybody',
      '10.0.0.0/8',
      from('10.1.2.3', '192.0.2.99, 198.51.100.1'),
      '198.51.100.1',
    ],
    ['several proxies in a row', '10.0.0.0/8, 192.0.2.7', from('::ffff:10.1.2.3', '198.51.100.1, 192.0.2.7, 10.9.9.9'), '198.51.100.1'],
    ['a proxy that names nobody', '10.0.0.0/8', from('10.1.2.3'), '10.1.2.3'],
    ['nonsense', '10.0.0.0/8', from('10.1.2.3', 'unknown'), '10.1.2.3'],
  ])('%s', (_, setting, asked, address) => {
    expect(addressOf(readProxies(setting), asked)).toBe(address)
  })

  it('knows its proxies, and refuses a setting that is none', () => {
    expect([
      comesThrough(proxies, from('10.2.3.4')),
      comesThrough(proxies, from('2001:db8::1')),
      comesThrough(proxies, from('11.0.0.1')),
      comesThrough(readProxies(''), from('127.0.0.1')),
    ]).toEqual([true, true, false, false])
    for (const bad of ['here', '10.0.0.0/33', '10.0.0.0/x', '300.1.1.1']) expect(() => readProxies(bad)).toThrow(PlainError)
  })
})

describe('what is logged of an error', () => {
  const MARK = 'Iris said hello to +18085550142'
  const lines: string[] = []
  const own = pino({ serializers: { err: loggedError } }, { write: (line: string) => void lines.push(line) })

  it('is where it happened and of what kind, and none of its words, whoever made them', () => {
    const duplicate = Object.assign(new Error(`duplicate key: ${MARK}`), {
      code: '23505',
      detail: `Key (e164)=(${MARK}) exists.`,
      constraint: 'phone_e164',
      table: 'phone',
    })
    const failedQuery = Object.assign(new Error(`Failed query: select $1\nparams: ${MARK}`, { cause: duplicate }), {
      query: 'select $1',
      params: [MARK],
    })
    let parsed: unknown
    try {
      JSON.parse(`{"words": ${MARK}`)
    }
    catch (error) {
      parsed = error
    }
    for (const error of [
      duplicate,
      failedQuery,
      parsed,
      new ValidationError(MARK, MARK, 'words'),
      new TypeError(MARK),
      MARK,
      { message: MARK },
      new AggregateError([new Error(MARK)], MARK),
    ])
      own.error({ err: error }, 'it broke')
    expect(lines).toHaveLength(8)
    expect(lines.filter(line => line.includes('Iris') || line.includes('8085550142'))).toEqual([])
    expect(JSON.parse(lines[1]!)).toMatchObject({
      err: { type: 'Error', query: 'select $1', cause: { code: '23505', constraint: 'phone_e164', table: 'phone' } },
    })
    expect((JSON.parse(lines[4]!) as { err: { stack: string[] } }).err.stack[0]).toContain('http.spec.ts')
    for (const error of [duplicate, failedQuery, parsed]) expect(namedFailure(error)).not.toContain('Iris')
  })

  it('has the words that are ours alone', () => {
    own.error({ err: new PlainError('The folder is in use.') }, 'it broke')
    expect(JSON.parse(lines.at(-1)!)).toMatchObject({ err: { type: 'Error', message: 'The folder is in use.' } })
  })
})

describe('more than can be done', () => {
  it('turns away what can wait, with when to ask again, before anything that was written', async () => {
    const releases: (() => void)[] = []
    const work = () => new Promise<string>(resolve => releases.push(() => resolve('done')))
    const reading = Array.from({ length: 80 }, () => withStrength('GET', work))
    await expect(withStrength('GET', work)).rejects.toMatchObject({ details: { status: 503, type: 'busy', retryAfter: 1 } })
    const writing = Array.from({ length: 320 }, () => withStrength('POST', work))
    await expect(withStrength('POST', work)).rejects.toMatchObject({ details: { status: 503 } })
    await expect(withStrength('GET', work)).rejects.toMatchObject({ details: { status: 503 } })
    releases.forEach(release => release())
    expect(new Set(await Promise.all([...reading, ...writing]))).toEqual(new Set(['done']))
    await expect(withStrength('GET', async () => 'again')).resolves.toBe('again')
    await expect(withStrength('GET', () => Promise.reject(new Error('broke')))).rejects.toThrow('broke')
    await expect(withStrength('GET', async () => 'and again')).resolves.toBe('and again')
  })

  it('of one request is told by what it computes, not by what it waits', async () => {
    const budget = new Budget(60)
    const compute = (ms: number) => {
      const end = performance.now() + ms
      while (performance.now() < end);
    }
    let others = 0
    const ticking = setInterval(() => others++, 1)
    for (let i = 0; i < 5 && !budget.isSpent; i++) {
      compute(20)
      await budget.makeRoom()
    }
    clearInterval(ticking)
    expect(budget.isSpent).toBe(true)
    expect(others).toBeGreaterThan(0)
    const waits = new Budget(60)
    compute(15)
    await waits.makeRoom()
    const resting = new Budget(60)
    await new Promise(resolve => setTimeout(resolve, 5))
    expect(resting.isSpent).toBe(false)
  })
})

describe('on the wire', () => {
  let served: Awaited<ReturnType<typeof serve>>
  const taken: string[] = []
  beforeAll(async () => {
    const handler = openRoute({ body: object({ words: string().required() }), bytes: 1_024 }, async ({ body }) => {
      taken.push(body.words)
      return { ok: true }
    })
    served = await serve([{ method: 'POST', path: '/api/words', schemas: {}, handler }])
  })
  afterAll(() => served.close())

  it('what is too large is refused in words, and the next eight on the same connection are answered', async () => {
    const { port } = served.server.address() as AddressInfo
    const { Agent } = await import('node:http')
    const agent = new Agent({ keepAlive: true, maxSockets: 1 })
    const sockets = new Set<unknown>()
    const post = (body: string) => new Promise<number>((resolve, reject) => {
      const asked = request(
        {
          port,
          path: '/api/words',
          method: 'POST',
          agent,
          headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) },
        },
        (response) => {
          sockets.add(response.socket)
          response.resume().on('end', () => resolve(response.statusCode!))
        },
      )
      asked.on('error', reject).end(body)
    })
    const tooLarge = JSON.stringify({ words: 'a'.repeat(3_000_000) })
    const statuses = []
    for (const body of [
      tooLarge,
      ...Array.from({ length: 8 }, (_, i) => JSON.stringify({ words: `word ${i}` })),
      tooLarge,
      JSON.stringify({ words: 'last' }),
    ])
      statuses.push(await post(body))
    agent.destroy()
    expect(statuses).toEqual([413, ...Array.from({ length: 8 }, () => 200), 413, 200])
    expect(sockets.size).toBe(1)
    expect(taken.at(-1)).toBe('last')
  })

  it.each([
    ['headers without end', `GET /api/words HTTP/1.1\r\nHost: x\r\nCookie: ${'a'.repeat(40_000)}\r\n\r\n`, 431, 'headers-too-large'],
    ['no request at all', 'HELLO\r\n\r\n', 400, 'bad-request'],
  ])('%s get a problem document', async (_, words, status, type) => {
    const { port } = served.server.address() as AddressInfo
    const answer = await new Promise<string>((resolve, reject) => {
      let said = ''
      connect(port, '127.0.0.1').on('data', chunk => said += chunk).on('end', () => resolve(said)).on('error', reject).write(words)
    })
    const [head, body] = answer.split('\r\n\r\n')
    expect(head).toContain(`HTTP/1.1 ${status}`)
    expect(head).toContain('application/problem+json')
    expect(JSON.parse(body!)).toMatchObject({ status, type, title: expect.any(String), detail: expect.any(String) })
  })
})
