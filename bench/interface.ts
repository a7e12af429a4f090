import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../scripts/world.mjs'
import { openBrowser, sayTimes, signIn } from './browser'
import { exitCode, figure, size } from './support'

/** From a click to a colleague's paint, and how much JavaScript the record page loads. */
const SENDS = size(40, 3)
const MOST_JAVASCRIPT_KB = 300

const port = 4830
const address = `http://127.0.0.1:${port}`

/** Gzipped bytes of every script that a first visit to a record loads. */
async function javascriptOf(page: Page, url: string): Promise<number> {
  const sizes: Promise<number>[] = []
  page.on('response', (response) => {
    if (response.request().resourceType() === 'script') sizes.push(response.body().then(body => gzipSync(body).length))
  })
  await page.goto(url)
  await page.getByRole('button', { name: /^Send to/ }).waitFor()
  await page.waitForLoadState('networkidle').catch(() => {})
  return (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0)
}

interface Parts { committed: number, told: number, painted: number }

/** Milliseconds from a click until the sender has the answer, the colleague's browser has been told, and has painted. */
async function clickToPaint(from: Page, to: Page, name: string, run: number): Promise<Parts> {
  const words = `Bench ${run} at ${Date.now()}`
  await from.getByLabel(`Text to ${name}`).fill(words)
  const painted = to.evaluate(words => new Promise<{ told: number, painted: number }>((resolve) => {
    const seen = () => document.querySelector('.entries')?.textContent?.includes(words)
    const observer = new MutationObserver(() => {
      if (!seen()) return
      observer.disconnect()
      const { told } = window as unknown as { told: number }
      requestAnimationFrame(() => setTimeout(() => resolve({ told, painted: Date.now() }), 0))
    })
    observer.observe(document.body, { childList: true, subtree: true, characterData: true })
  }), words)
  const answered = from.waitForResponse(answer => answer.url().endsWith('/api/texts')).then(() => Date.now())
  const clicked = await from.evaluate(() => new Promise<number>((resolve) => {
    const button = [...document.querySelectorAll('button')].find(one => one.textContent?.startsWith('Send to'))!
    const at = Date.now()
    button.click()
    resolve(at)
  }))
  const seen = await painted
  return { committed: await answered - clicked, told: seen.told - clicked, painted: seen.painted - clicked }
}

/** From here on the page notes when it was last told of an entry. */
const watchNotices = (page: Page) => page.addInitScript(() => {
  const Plain = window.EventSource
  window.EventSource = class extends Plain {
    constructor(...of: ConstructorParameters<typeof Plain>) {
      super(...of)
      this.addEventListener('message', ({ data }) => {
        if (String(data).includes('"entry"')) Object.assign(window, { told: Date.now() })
      })
    }
  }
})

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await copyDemo(folder)
process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  const [ada, mika] = await Promise.all([signIn(browser, address, 'ada'), signIn(browser, address, 'mika')])
  const id = crypto.randomUUID()
  await ada.request.post(`${address}/api/records`, {
    data: { id, module: 'lead', firstName: 'Bench', zone: 'Etc/GMT', phones: [{ label: 'mobile', typed: '541 555 0101' }] },
  })
  // whoever wrote a moment ago may be answered whatever the hour
  await ada.request.post(`http://127.0.0.1:${port + 1}/handsets/api/texts`, {
    data: { phone: '+15415550101', to: '+15035550118', text: 'Go on' },
  })
  const kilobytes = await javascriptOf(ada, `${address}/record/${id}`) / 1_000
  await watchNotices(mika)
  await mika.goto(`${address}/record/${id}`)
  await mika.getByText('Ada is here.').waitFor()
  const samples: Parts[] = []
  for (let run = 0; run < SENDS; run++) samples.push(await clickToPaint(ada, mika, 'Bench', run))
  for (const part of ['committed', 'told', 'painted'] as const)
    console.log(`# click until ${part}: ${sayTimes(samples.map(one => one[part]))} sends${part === 'painted' ? ' (aim under 100)' : ''}`)
  figure('record-page-javascript-kB', kilobytes, `<=${MOST_JAVASCRIPT_KB}`, kilobytes <= MOST_JAVASCRIPT_KB)
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
