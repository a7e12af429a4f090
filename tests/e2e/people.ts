import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test as base, type APIRequestContext, type Browser, type BrowserContextOptions, type Locator, type Page } from '@playwright/test'
import { PRACTICE_PORT, startWorld, type World } from './world'
import { DEMO_PASSWORD } from '../../demo/colleagues'

export const PRACTICE = `http://127.0.0.1:${PRACTICE_PORT}`

/**
 * Each worker has a world of its own, and after a failure the next one a fresh one. Every browser that a test has opened is
 * closed behind it: their live pages would slow the next one down.
 */
export const test = base.extend<{ tidy: undefined }, { world: World }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads from the pattern what a fixture needs
  world: [async ({}, use) => {
    const world = await startWorld()
    await use(world)
    await world.end()
  }, { scope: 'worker', auto: true, timeout: 120_000 }],
  baseURL: async ({ world }, use) => use(world.address),
  tidy: [async ({ browser }, use) => {
    await use(undefined)
    await Promise.all(browser.contexts().map(context => context.close()))
  }, { auto: true }],
})

/** Signs a colleague in, in a browser of their own. */
export async function signIn(browser: Browser, who: 'ada' | 'mika' | 'noor' | 'odile' | 'rafe', options: BrowserContextOptions = {}): Promise<Page> {
  const context = await browser.newContext(options)
  const page = await context.newPage()
  const answer = await page.request.post('/api/sign-in', { data: { mail: `${who}@pannier.example`, password: DEMO_PASSWORD } })
  expect(answer.ok()).toBe(true)
  return page
}

/** Area codes that no demo person has. After a failure Playwright starts a new worker, which takes the next. */
const AREAS = ['541', '509', '425', '702', '775', '208', '406', '307', '801', '435', '505', '575', '719', '970', '559', '530']
let used = 0

/** A number for fiction that nobody has yet. */
export const freshNumber = () =>
  `+1${AREAS[Number(process.env.TEST_WORKER_INDEX ?? 0) % AREAS.length]}555${String(100 + used++).padStart(4, '0')}`

/** Makes a lead by the interface for programs; gives its id. */
export async function makeLead(request: APIRequestContext, firstName: string, typed: string, values: object = {}): Promise<string> {
  const id = crypto.randomUUID()
  const answer = await request.post('/api/records', {
    data: { id, module: 'lead', firstName, lastName: 'Testaway', phones: [{ label: 'mobile', typed }], zone: zoneWhereItIs(12), ...values },
  })
  expect(await answer.json()).toEqual({ id })
  return id
}

/** Opens the list of leads with a last name. */
export async function leadsNamed(page: Page, lastName: string, count: number): Promise<void> {
  await page.goto('/records/leads')
  await expect(page.locator('tbody a.open').first()).toBeVisible()
  await page.keyboard.press('f')
  await page.keyboard.type(lastName)
  await expect(page.getByText(`${count} ${count === 1 ? 'lead' : 'leads'}`, { exact: true })).toBeVisible()
}

/** Somebody writes on their telephone. */
export async function writeFromHandset(request: APIRequestContext, phone: string, text: string, to = '+15035550118'): Promise<void> {
  const answer = await request.post(`${PRACTICE}/handsets/api/texts`, { data: { phone, to, text } })
  expect(answer.ok()).toBe(true)
}

interface HandsetText { direction: string, other: string, text: string, parts: number, pictures?: { type: string }[] }

export async function textsOnHandset(request: APIRequestContext, phone: string): Promise<HandsetText[]> {
  return await (await request.get(`${PRACTICE}/handsets/api/texts`, { params: { phone } })).json() as HandsetText[]
}

/** A zone in which it is day now, so that no test asks at night whatever the hour it runs at. */
export function zoneWhereItIs(hour: number): string {
  const offset = (hour - new Date().getUTCHours() + 36) % 24 - 12
  return offset === 0 ? 'UTC' : `Etc/GMT${offset > 0 ? '-' : '+'}${Math.abs(offset)}`
}

export const slipWith = (page: Page, words: string): Locator => page.getByRole('listitem').filter({ hasText: words })

export const credentials = () =>
  JSON.parse(readFileSync(join(process.env.E2E_FOLDER!, 'practice-credentials.json'), 'utf8')) as { key: string, webhookSecret: string }

/**
 * What goes there does not get through, until what this gives is called. It is not taken off again: a request that is under way
 * at that moment could be left without any answer.
 */
export async function cutOff(page: Page, where: string): Promise<() => void> {
  let away = true
  await page.route(where, route => away ? route.abort() : route.continue())
  return () => void (away = false)
}
