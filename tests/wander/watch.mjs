// What holds wherever somebody wanders.
import assert from 'node:assert/strict'

/** Where what was pressed or clicked means "send" or "call". */
const SENDS = /^press Control\+Enter$|^click |^press (Enter| )$/
const CALLS = /^press (d|Enter| |[a-z])$|^click /

/** Words of the browser about what was broken off by going elsewhere, or refused on purpose. */
const NO_FAULT = /Failed to load resource|net::ERR_ABORTED|ERR_NETWORK_CHANGED|the server responded with a status of 4/

/** @param world of a walk: its page, and in `walked` the steps so far */
export function watchOver(world) {
  const { page, context } = world
  const broken = []
  /** By record what was last seen in its composer. */
  const written = new Map()

  page.on('pageerror', error => broken.push(`an error on ${page.url()}: ${error.stack ?? error.message}`))
  page.on('console', message => message.type() === 'error' && !NO_FAULT.test(message.text()) && broken.push(`on ${page.url()}: ${message.text()}`))
  page.on('response', response => response.status() >= 500 && broken.push(`${response.request().method()} ${response.url()} answered ${response.status()}`))
  page.on('request', (request) => {
    if (request.method() !== 'POST') return
    const lately = world.walked.slice(-6)
    const path = new URL(request.url()).pathname
    if (path === '/api/texts') world.did.texts++
    if (path === '/api/calls') world.did.calls++
    if (path === '/api/texts' && !SENDS.test(world.walked.at(-1) ?? '')) broken.push('a text was sent by nothing that means “send”')
    // a key waits for two seconds, in which a few steps have room
    if (path === '/api/calls' && !lately.some(step => CALLS.test(step))) broken.push('somebody was called whom nobody dialled')
    // what was sent is no draft any more
    if (path === '/api/texts') written.clear()
  })

  /** What is written on a record is there again whenever the record is. */
  async function keepsWhatIsWritten() {
    const record = /\/record\/([0-9a-f-]{36})/.exec(page.url())?.[1]
    const composer = page.locator('textarea#text')
    if (!record || await composer.count() === 0) return
    const now = await composer.inputValue({ timeout: 1_000 }).catch(() => null)
    if (now === null) return
    const last = world.walked.at(-1)
    const came = /^(reload|back|goTo|openRecord)/.test(last)
    if (came && written.has(record) && written.get(record) !== now)
      broken.push(`“${written.get(record).slice(0, 40)}” was written, and after ${last} there stands “${now.slice(0, 40)}”`)
    written.set(record, now)
  }

  /** The number in the header is the server's. */
  async function agreesOnWhatIsOwed() {
    const header = page.locator('header.line .owed')
    for (let tries = 0; ; tries++) {
      const said = await header.textContent({ timeout: 500 }).catch(() => null)
      const shelf = await context.request.get('/api/shelf').then(answer => answer.ok() ? answer.json() : null)
      if (said === null || !shelf || said.trim() === '') return
      const shown = Number(/^\s*(\d+)/.exec(said)?.[1] ?? 0)
      if (shown === shelf.total) return
      if (tries > 20) return broken.push(`the header says ${shown} owed, and the server ${shelf.total}`)
      await page.waitForTimeout(150)
    }
  }

  /** Moments are said as their reader reads them, not as they go over the wire. */
  async function saysMoments() {
    const raw = await page.evaluate(() => /\S*\dT\d\d:\d\d\[\S*/.exec(document.body.innerText)?.[0]).catch(() => undefined)
    if (raw) broken.push(`it says ${raw} on ${page.url()}`)
  }

  return {
    async holds() {
      await keepsWhatIsWritten()
      await agreesOnWhatIsOwed()
      await saysMoments()
      assert.deepEqual(broken, [], `after ${world.walked.join(', ')}`)
    },
  }
}
