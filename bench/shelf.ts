import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { Webhook } from 'standardwebhooks'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { secretsFor, startApplication, startPractice, stop } from '../scripts/world.mjs'
import { openBrowser, sayTimes, signIn } from './browser'
import { exitCode, figure, percentile, size } from './support'

/**
 * From what a carrier tells to its mark on a colleague's shelf, painted, with two browsers open; and to its knock. In parts, so
 * that the largest is known: taken and committed (the carrier has its answer), told (the browser hears that something changed),
 * fetched (it has what changed), painted.
 */
const TEXTS = size(60, 3)
/** Of what it must take on this machine in the same run: taking the event, and a fetch of the shelf with its paint. */
const MOST_OF_FLOOR = 2
const port = 4840
const address = `http://127.0.0.1:${port}`

interface Seen { told: number, fetched: number, painted: number, knocked: number }

/** From here on the page notes when it hears of something, and when the shelf was fetched. */
const watch = (page: Page) => page.addInitScript(() => {
  const noted = { told: 0, fetched: 0 }
  Object.assign(window, { noted })
  const Plain = window.EventSource
  window.EventSource = class extends Plain {
    constructor(...of: ConstructorParameters<typeof Plain>) {
      super(...of)
      this.addEventListener('message', ({ data }) => {
        if (String(data).includes('"conversation"')) noted.told ||= Date.now()
      })
    }
  }
  new PerformanceObserver((list) => {
    for (const { name } of list.getEntries()) if (name.endsWith('/api/shelf') && noted.told) noted.fetched ||= Date.now()
  }).observe({ type: 'resource' })
})

/** Resolves once the shelf shows a number with so many texts of it, and its knock. */
const whenPainted = (page: Page, ends: string, knocks: string) => page.evaluate(([ends, knocks]) => new Promise<Seen>((resolve) => {
  const { noted } = window as unknown as { noted: { told: number, fetched: number } }
  Object.assign(noted, { told: 0, fetched: 0 })
  let painted = 0
  let knocked = 0
  const shows = (where: string, words: string) => document.querySelector(where)?.textContent?.includes(words)
  const look = () => {
    if (!painted && shows('.strip .items', ends)) requestAnimationFrame(() => setTimeout(() => painted ||= Date.now(), 0))
    if (!knocked && shows('.knocks', knocks)) requestAnimationFrame(() => setTimeout(() => knocked ||= Date.now(), 0))
  }
  const observer = new MutationObserver(look)
  observer.observe(document.body, { childList: true, subtree: true, characterData: true })
  const done = setInterval(() => {
    if (!painted || !knocked) return
    clearInterval(done)
    observer.disconnect()
    resolve({ ...noted, painted, knocked })
  }, 20)
}), [ends, knocks] as const)

/** A fetch of the shelf, and a frame, with nothing around them. */
const floor = (page: Page) => page.evaluate(async () => {
  const begun = Date.now()
  await fetch('/api/shelf').then(answer => answer.json())
  await new Promise<void>(done => requestAnimationFrame(() => setTimeout(done, 0)))
  return Date.now() - begun
})

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await copyDemo(folder)
process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  const webhook = new Webhook(secretsFor(folder).PLAUDER_WEBHOOK_SECRET)
  async function tell(from: string, text: string): Promise<{ told: number, committed: number }> {
    const id = crypto.randomUUID()
    const now = new Date()
    const body = JSON.stringify({ id, type: 'text.received', at: now.toISOString(), data: { id, key: null, code: null, from, to: '+15035550118', text } })
    const told = Date.now()
    await fetch(`${address}/api/carriers/practice/events`, {
      method: 'POST',
      body,
      headers: {
        'content-type': 'application/json',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
        'webhook-signature': webhook.sign(id, now, body),
      },
    })
    return { told, committed: Date.now() }
  }
  const [ada, mika] = await Promise.all([signIn(browser, address, 'ada'), signIn(browser, address, 'mika')])
  for (const page of [ada, mika]) {
    await watch(page)
    await page.goto(`${address}/told`)
    await page.getByRole('heading', { name: 'How I am told' }).waitFor()
  }
  const floors: number[] = []
  const samples: Record<'committed' | 'told' | 'fetched' | 'painted' | 'knocked', number[]> = { committed: [], told: [], fetched: [], painted: [], knocked: [] }
  for (let run = 0; run < TEXTS; run++) {
    const from = `+1541555${String(1_000 + run)}`
    const words = `Bench ${run}, is it free?`
    const painted = whenPainted(mika, from.slice(-4), words)
    floors.push(await floor(mika))
    const { told, committed } = await tell(from, words)
    const seen = await painted
    for (const [part, at] of Object.entries({ ...seen, committed })) samples[part as 'told'].push(at - told)
    // the shelf has room for few: whoever was seen goes again
    const shelf = await (await ada.request.get(`${address}/api/shelf`)).json() as { items: { conversationId: string, remote: string }[] }
    const one = shelf.items.find(({ remote }) => remote === from)!
    await ada.request.post(`${address}/api/conversations/${one.conversationId}/settle`, { data: {} })
  }
  for (const [part, times] of Object.entries(samples)) console.log(`# event until ${part}: ${sayTimes(times)}${part === 'painted' ? ' (aim p95 150)' : ''}`)
  console.log(`# a fetch of the shelf and a paint by themselves: ${sayTimes(floors)}`)
  const ratio = percentile(samples.painted, 0.5) / (percentile(samples.committed, 0.5) + percentile(floors, 0.5))
  figure('event-to-shelf/taken-fetched-painted', ratio, `<=${MOST_OF_FLOOR}`, ratio <= MOST_OF_FLOOR)
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
