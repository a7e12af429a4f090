import { expect, type Page } from '@playwright/test'
import { freshNumber, PRACTICE, signIn, test, writeFromHandset } from './people'

const PEOPLE = 150
const TEXTS = 200
/** Longer than texts that come together are heard apart. */
const APART_MS = 4_500

/** Counts what would be heard, and when; a browser without a screen has no sound. */
async function watchSounds(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const heard: number[] = []
    Object.assign(window, { heard })
    const start = OscillatorNode.prototype.start
    OscillatorNode.prototype.start = function (when?: number) {
      // both notes of a chime are set at once
      if (performance.now() - (heard.at(-1) ?? -Infinity) > 100) heard.push(performance.now())
      start.call(this, when)
    }
  })
}

interface Conversation { conversationId: string, remote: string }
async function conversationsWith(page: Page, numbers: string[]): Promise<Conversation[]> {
  const found: Conversation[] = []
  for (let before = {}; ;) {
    const page1 = await (await page.request.get('/api/inbox', { params: { lineId: '', ...before } })).json() as
      { owed: Conversation[], others: Conversation[], next: { at: number, id: string } | null }
    found.push(...[...page1.owed, ...page1.others].filter(({ remote }) => numbers.includes(remote)))
    if (!page1.next) return found
    before = { beforeAt: String(page1.next.at), beforeId: page1.next.id }
  }
}

test('200 texts within seconds: none is lost, none is there twice, the page is usable, and few sounds are heard', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  await watchSounds(ada)
  await ada.goto('/inbox')
  await expect(ada.getByRole('heading', { name: 'Inbox' })).toBeVisible()
  // whatever sounds only does once somebody has touched the page
  await ada.getByRole('heading', { name: 'Inbox' }).click()
  const before = await ada.evaluate(() => (window as unknown as { heard: number[] }).heard.length)
  const numbers = Array.from({ length: PEOPLE }, freshNumber)
  const texts = Array.from({ length: TEXTS }, (_, i) => ({ from: numbers[i % PEOPLE]!, words: `Burst ${i}` }))
  const begun = Date.now()
  const queue = [...texts]
  const writers = Promise.all(Array.from({ length: 8 }, async () => {
    for (let text = queue.shift(); text; text = queue.shift()) await writeFromHandset(ada.request, text.from, text.words)
  }))
  const search = ada.getByLabel('Search the conversations')
  await search.fill('Burst')
  await expect(search).toHaveValue('Burst')
  await writers
  const seconds = (Date.now() - begun) / 1_000

  await expect.poll(async () => (await (await ada.request.get('/api/shelf')).json() as { total: number }).total, { timeout: 120_000 })
    .toBeGreaterThanOrEqual(PEOPLE)
  await expect.poll(async () => (await conversationsWith(ada, numbers)).length).toBe(PEOPLE)
  const there: string[] = []
  for (const { conversationId } of await conversationsWith(ada, numbers)) {
    const { entries } = await (await ada.request.get(`/api/conversations/${conversationId}`)).json() as { entries: { words: string }[] }
    there.push(...entries.map(({ words }) => words))
  }
  expect(there.sort()).toEqual(texts.map(({ words }) => words).sort())

  await expect(ada.locator('.row').first()).toContainText('Burst')
  await ada.locator('.row').first().click()
  await expect(ada.getByRole('textbox', { name: 'Answer' })).toBeVisible()
  const heard = await ada.evaluate(() => (window as unknown as { heard: number[] }).heard)
  expect(heard.length).toBeGreaterThan(before)
  for (const [place, at] of heard.entries()) if (place > 0) expect(at - heard[place - 1]!).toBeGreaterThan(APART_MS)
  test.info().annotations.push({ type: 'burst', description: `${TEXTS} texts in ${seconds.toFixed(1)} s at ${PRACTICE}` })
  // whoever comes next finds a shelf as it was
  for (const { conversationId } of await conversationsWith(ada, numbers)) await ada.request.post(`/api/conversations/${conversationId}/settle`, { data: {} })
})
