import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { expect, type Page } from '@playwright/test'
import { makeLead, freshNumber, signIn, test } from './people'

const BUILT = '.output/public'

/**
 * Gzipped kilobytes of every script that a first visit to a page loads, as they were built. Whoever saves data is brought
 * nothing ahead of what other pages need: what would come by and by is no part of it.
 */
async function scriptsOf(page: Page, path: string, sign: string): Promise<number> {
  await page.addInitScript(() => Object.defineProperty(navigator, 'connection', { value: { saveData: true } }))
  const loaded = new Set<string>()
  page.on('request', (request) => {
    if (request.resourceType() === 'script') loaded.add(new URL(request.url()).pathname)
  })
  await page.goto(path)
  await expect(page.getByText(sign).first()).toBeVisible()
  // and what comes a moment later
  let before = -1
  await expect.poll(() => loaded.size === before || void (before = loaded.size), { intervals: [1_000] }).toBe(true)
  return [...loaded].reduce((sum, script) => sum + gzipSync(readFileSync(`${BUILT}${script}`)).length, 0) / 1_000
}

/** What a page does not show it does not load: each may weigh so many kilobytes. */
for (const [what, path, sign, most] of [
  ['today', '/', 'Ada Lund', 205],
  ['a list', '/records/leads', 'page 1', 259],
  ['the pipelines', '/pipelines', 'First word', 245],
  ['the call rounds', '/calling', 'Calling', 218],
  ['the templates', '/templates', 'What would be sent', 370],
  ['a record', null, 'Send to', 270],
] as const) {
  test(`${what} loads scripts of ${most} kB at most`, async ({ browser }) => {
    const page = await signIn(browser, 'ada')
    const kilobytes = await scriptsOf(page, path ?? `/record/${await makeLead(page.request, 'Scripted', freshNumber())}`, sign)
    expect(kilobytes).toBeLessThanOrEqual(most)
  })
}
