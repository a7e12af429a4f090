import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { layDemo } from '../demo/lay'
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

async function clickToPaint(from: Page, to: Page, name: string, run: number): Promise<number> {
  const words = `Bench ${run} at ${Date.now()}`
  await from.getByLabel(`Text to ${name}`).fill(words)
  const painted = to.evaluate(words => new Promise<number>((resolve) => {
    const seen = () => document.querySelector('.entries')?.textContent?.includes(words)
    const observer = new MutationObserver(() => {
      if (!seen()) return
      observer.disconnect()
      requestAnimationFrame(() => setTimeout(() => resolve(Date.now()), 0))
    })
    observer.observe(document.body, { childList: true, subtree: true, characterData: true })
  }), words)
  const clicked = await from.evaluate(() => new Promise<number>((resolve) => {
    const button = [...document.querySelectorAll('button')].find(one => one.textContent?.startsWith('Send to'))!
    const at = Date.now()
    button.click()
    resolve(at)
  }))
  return await painted - clicked
}

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await layDemo(folder)
process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  const [ada, mika] = await Promise.all([signIn(browser, address, 'ada'), signIn(browser, address, 'mika')])
  const id = crypto.randomUUID()
  await ada.request.post(`${address}/api/records`, { data: { id, module: 'lead', firstName: 'Bench', zone: 'Etc/GMT', phones: [{ label: 'mobile', typed: '541 555 0101' }] } })
  // whoever wrote a moment ago may be answered whatever the hour
  await ada.request.post(`http://127.0.0.1:${port + 1}/handsets/api/texts`, { data: { phone: '+15415550101', to: '+15035550118', text: 'Go on' } })
  const kilobytes = await javascriptOf(ada, `${address}/record/${id}`) / 1_000
  await mika.goto(`${address}/record/${id}`)
  await mika.getByText('Ada is looking.').waitFor()
  const samples: number[] = []
  for (let run = 0; run < SENDS; run++) samples.push(await clickToPaint(ada, mika, 'Bench', run))
  console.log(`# click to colleague's paint: ${sayTimes(samples)} sends (aim under 100)`)
  figure('record-page-javascript-kB', kilobytes, `<=${MOST_JAVASCRIPT_KB}`, kilobytes <= MOST_JAVASCRIPT_KB)
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
