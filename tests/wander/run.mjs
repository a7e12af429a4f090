// npm run wander: a colleague who presses, clicks, types, reloads and goes back without a plan, in the built application, while
// people write and call. Whatever the way, some things hold: nothing breaks, nothing leaves that nobody sent, nobody is
// called whom nobody dialled, nothing that was typed is lost, and what is owed is what the server says. It prints its seed and the
// shortest walk that fails. `--walks 20 --steps 40 --seed 7` for a longer one.
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import fc from 'fast-check'
import { chromium } from '@playwright/test'
import { chromiumOptions } from '../../scripts/chromium.mjs'
import { copyDemo } from '../../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../../scripts/world.mjs'
import { ACTS, PLACES, STEP } from './steps.mjs'
import { watchOver } from './watch.mjs'

const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? otherwise : Number(process.argv[at + 1])
}
const [walks, steps, seed] = [option('walks', 4), option('steps', 25), option('seed', Date.now() % 1_000_000)]
const port = Number(process.env.WANDER_PORT ?? 4780)
const address = `http://127.0.0.1:${port}`
console.log(`seed ${seed}, ${walks} walks of up to ${steps} steps`)

process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_QUIET = '1'
const { DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)
const folder = mkdtempSync(join(tmpdir(), 'plauder-wander-'))
await copyDemo(folder)
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'error' } })
const children = [practice.child, application.child]
process.once('exit', () => children.forEach(child => child.kill('SIGKILL')))
await Promise.all([practice.open, application.healthy])
const browser = await chromium.launch(chromiumOptions())

/** What all walks did, so that one sees whether they came to anything. */
const did = { steps: 0, texts: 0, calls: 0, places: new Set() }

/** Takes a walk in a browser of its own, and looks after each step whether all holds. */
async function walk(taken) {
  const context = await browser.newContext({ baseURL: address, viewport: { width: 1280, height: 800 } })
  try {
    await context.request.post('/api/sign-in', { data: { mail: 'ada@pannier.example', password: DEMO_PASSWORD } })
    const page = await context.newPage()
    // what is asked before a form is left is answered by leaving; a dialog of the browser's own would stand for ever
    page.on('dialog', dialog => dialog.accept().catch(() => {}))
    const world = { page, context, practice: `http://127.0.0.1:${port + 1}`, walked: [], did }
    const watch = watchOver(world)
    await page.goto(PLACES[0])
    for (const step of taken) {
      world.walked.push(`${step.act} ${step.value}`)
      did.steps++
      did.places.add(new URL(page.url()).pathname.replace(/[0-9a-f-]{36}/, ':id'))
      await ACTS[step.act](world, step.value)
      await watch.holds()
    }
  }
  finally {
    await context.close()
  }
}

let failed = false
try {
  await fc.assert(
    fc.asyncProperty(fc.array(STEP, { minLength: Math.ceil(steps / 2), maxLength: steps, size: 'max' }), walk),
    { seed, numRuns: walks, unbiased: true, endOnFailure: process.argv.includes('--no-shrink'), interruptAfterTimeLimit: 5 * 60_000 },
  )
  console.log(`  ✓ ${walks} walks`)
}
catch (error) {
  failed = true
  console.log(`  ✘ ${error.message}`)
}
finally {
  console.log(`  ${did.steps} steps on ${did.places.size} pages, ${did.texts} texts sent, ${did.calls} calls made`)
  await browser.close()
  await Promise.all(children.map(stop))
  rmSync(folder, { recursive: true, force: true })
}
mkdirSync('.cache', { recursive: true })
writeFileSync(process.env.COUNTS ?? '.cache/count-wander.json', JSON.stringify({ passed: failed ? walks - 1 : walks, failed: failed ? 1 : 0 }))
process.exit(failed ? 1 : 0)
