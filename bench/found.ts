import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../scripts/world.mjs'
import { startDatabase } from '../server/db/start'
import { openBrowser, sayTimes, signIn } from './browser'
import { fillPeople } from './people'
import { exitCode, figure, percentile, size } from './support'
import { fillTexts } from './texts'

/**
 * From the last key in the header's field to the painted list, and how long a template becomes for everybody,
 * with 100,000 people and 1,000,000 texts. Absolute times, printed with their aims.
 */
const PEOPLE = Number(process.env.BENCH_PEOPLE ?? size(100_000, 300))
const TEXTS = Number(process.env.BENCH_ENTRIES ?? size(1_000_000, 2_000))
const AIM_MS = 100
const WORDS = ['iris', 'holm', 'marlow', '0142', 'zadie', 'bench77', '99900', 'quill', 'trikes', 'okafor'].slice(0, size(10, 3))
const port = 4860
const address = `http://127.0.0.1:${port}`

/** Milliseconds from the last key to the paint of the list that it brought. */
async function lastKeyToPaint(page: Page, words: string): Promise<number> {
  const field = page.getByRole('combobox', { name: /^Find a person/ })
  await field.fill('')
  await page.evaluate(() => performance.clearResourceTimings())
  await page.waitForTimeout(400)
  await field.pressSequentially(words.slice(0, -1), { delay: 90 })
  await page.waitForTimeout(250)
  // watching has begun before the key is pressed: else it might be pressed before anybody looks
  await page.evaluate((words) => {
    let begun = 0
    let changed = false
    document.addEventListener('keydown', event => begun = event.timeStamp, { once: true, capture: true })
    let tell: (milliseconds: number) => void = () => undefined
    const promise = new Promise<number>(resolve => tell = resolve)
    const isAnswered = () =>
      begun > 0
      && performance
        .getEntriesByType('resource')
        .some(entry => entry.name.includes(`/api/find?words=${encodeURIComponent(words)}`) && entry.startTime >= begun)
    new MutationObserver(() => changed ||= isAnswered()).observe(document.body, { childList: true, subtree: true, characterData: true })
    const afterPaint = () => setTimeout(() => tell(performance.now() - begun), 0)
    const frame = () => {
      if (changed) afterPaint()
      // the same people may be found as before: then there is nothing to change, and the frame after the answer counts
      else if (isAnswered()) requestAnimationFrame(afterPaint)
      else requestAnimationFrame(frame)
    }
    frame()
    Object.assign(window, { painted: promise })
  }, words)
  await page.keyboard.press(words.at(-1)!)
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted)
}

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await copyDemo(folder)
const database = await startDatabase(folder)
const people = await fillPeople(database, PEOPLE)
await fillTexts(database, people, TEXTS, Math.max(1, Math.round(TEXTS / PEOPLE)))
await database.close()
process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  const page = await signIn(browser, address, 'ada')
  await page.goto(`${address}/records/leads`)
  await page.locator('tbody tr').first().waitFor()
  for (const words of WORDS) await lastKeyToPaint(page, words)
  const samples: number[] = []
  for (let run = 0; run < size(3, 1); run++) for (const words of WORDS) samples.push(await lastKeyToPaint(page, words))
  const p95 = percentile(samples, 0.95)
  console.log(`# found, from the last key to the paint, ${PEOPLE} people and ${TEXTS} texts: ${sayTimes(samples)}`)
  figure('find-to-paint-p95-ms', p95, `<=${AIM_MS}`, p95 <= AIM_MS)

  const body
    = 'Hi {{ person.first_name | default: "there" }}, {{ sender.first_name }} from {{ firm.name }}. Your trial week for {{ company.name | default: "you" }} starts on Thursday.'
  const begun = performance.now()
  let after: string | null = null
  let counted = 0
  do {
    const answer: { tally: { people: number }, next: string | null } = await (
      await page.request.post(`${address}/api/templates/length`, { data: { body, modules: ['lead'], fillIns: [], after } })
    ).json()
    counted += answer.tally.people
    after = answer.next
  } while (after !== null)
  const seconds = (performance.now() - begun) / 1_000
  console.log(
    `# length of a template over ${counted} people: ${seconds.toFixed(1)} s over HTTP, ${Math.round(counted / seconds)} people a second`,
  )
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
