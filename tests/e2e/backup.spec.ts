import { execFile } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect } from '@playwright/test'
import { freshNumber, makeLead, signIn, test } from './people'
import { PORT, PRACTICE_PORT } from './world'
import { DEMO_PASSWORD } from '../../demo/colleagues'
import { startApplication, stop } from '../../scripts/world.mjs'

const run = promisify(execFile)
/** Between two writes meanwhile: the world is for others too. */
const PAUSE_MS = 400

test('a Plauder that runs is backed up by a command, while a colleague writes, and goes on elsewhere', async ({ browser }) => {
  test.skip(!!process.env.DATABASE_URL, 'a server is backed up by its own tools')
  test.setTimeout(120_000)
  const room = mkdtempSync(join(tmpdir(), 'plauder-backup-'))
  const ada = await signIn(browser, 'ada')
  const before = await makeLead(ada.request, 'Before', freshNumber(), { lastName: 'Backedup' })
  let going = true
  const writing = (async () => {
    while (going) {
      await makeLead(ada.request, 'Meanwhile', freshNumber(), { lastName: 'Backedup' })
      await new Promise(resolve => setTimeout(resolve, PAUSE_MS))
    }
  })()
  const env = { ...process.env, PLAUDER_DATA: process.env.E2E_FOLDER, PORT: String(PORT) }
  const { stdout } = await run('bin/backup', [join(room, 'kept')], { env })
  going = false
  await writing
  const backup = /Backed up: (\S+), with/.exec(stdout)![1]!
  const after = await makeLead(ada.request, 'After', freshNumber(), { lastName: 'Backedup' })

  const elsewhere = { ...process.env, PLAUDER_DATA: join(room, 'elsewhere') }
  await run('bin/restore', [backup], { env: elsewhere })
  await expect(run('bin/restore', [backup], { env: elsewhere })).rejects.toThrow(/There is a database/)
  const port = PORT + 6
  const restored = startApplication({ folder: elsewhere.PLAUDER_DATA, port, practicePort: PRACTICE_PORT })
  try {
    await restored.healthy
    const page = await (await browser.newContext({ baseURL: `http://127.0.0.1:${port}` })).newPage()
    expect((await page.request.post('/api/sign-in', { data: { mail: 'ada@pannier.example', password: DEMO_PASSWORD } })).ok()).toBe(true)
    await page.goto(`/record/${before}`)
    await expect(page.getByRole('heading', { name: 'Before Backedup' })).toBeVisible()
    // what came after it is not there
    expect((await page.request.get(`/api/records/${after}`)).status()).toBe(404)
  }
  finally {
    await stop(restored.child)
    rmSync(room, { recursive: true, force: true })
  }
})
