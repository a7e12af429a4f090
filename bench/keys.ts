import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { copyDemo } from '../scripts/laid-demo.mjs'
import { startApplication, startPractice, stop } from '../scripts/world.mjs'
import { startDatabase } from '../server/db/start'
import { openBrowser, sayTimes, signIn, typeAndWatch, watchKeys } from './browser'
import { exitCode, figure, percentile, size } from './support'

/**
 * From a key to what it changes on the screen: in a long template with pills, in the composer, and searching
 * 2,000 templates. Absolute times, printed beside what the same browser needs for a bare text field.
 */
const TEMPLATES = size(2_000, 50)
const AIM_MS = 50
const WORDS = 'the mechanic comes on thursday before eleven to see'
const port = 4890
const address = `http://127.0.0.1:${port}`

const folder = mkdtempSync(join(tmpdir(), 'plauder-bench-'))
await copyDemo(folder)
const database = await startDatabase(folder)
await database.pool.query(
  `
  with made as (
    insert into template (id, name, modules, description, folder, body, audience, version, owner_id, changed_at)
    select gen_random_uuid(), 'Bench ' || n, '{lead}', 'What the mechanic needs ' || n, 'Folder ' || n % 20, 'Hi {{ person.first_name | default: "there" }}, ' || w.word || ' ' || n || ': the mechanic comes on Thursday before eleven.', 'all', 1, c.id, now()
    from generate_series(1, $1) n cross join (select id from colleague where mail = 'odile@pannier.example') c
    cross join lateral (select (array['racks', 'brakes', 'trikes', 'saddles', 'lights'])[1 + n % 5] as word) w returning *)
  insert into template_version (template_id, version, name, body, at, colleague_id) select id, 1, name, body, now(), owner_id from made`,
  [TEMPLATES],
)
await database.close()
process.env.PLAUDER_QUIET = '1'
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1, env: { PLAUDER_LOG: 'silent' } })
await Promise.all([practice.open, application.healthy])
const browser = await openBrowser()
try {
  const page = await signIn(browser, address, 'ada')
  const report = (name: string, samples: number[], bare: number[]) => {
    console.log(`# ${name}: ${sayTimes(samples)}; a bare text field ${sayTimes(bare)}`)
    figure(`${name.replaceAll(' ', '-')}-p95-ms`, percentile(samples, 0.95), `<=${AIM_MS}`, percentile(samples, 0.95) <= AIM_MS)
  }
  await page.setContent('<textarea autofocus></textarea>')
  await watchKeys(page)
  await page.locator('textarea').focus()
  const bare = await typeAndWatch(page, WORDS)

  const pills = Array.from({ length: 12 }, () => 'Hi {{ person.first_name | default: "there" }}, ').join('')
  const template = crypto.randomUUID()
  await page.request.post(`${address}/api/templates`, {
    data: {
      id: template,
      name: 'Long',
      modules: ['lead'],
      audience: 'mine',
      body: pills + 'and so on it goes. '.repeat(Math.ceil((1_500 - 12 * 9) / 19)),
    },
  })
  await page.goto(`${address}/templates?id=${template}`)
  const editor = page.getByRole('textbox', { name: 'Text', exact: true })
  await editor.click()
  await watchKeys(page)
  report('typing in a template', await typeAndWatch(page, WORDS), bare)

  const people = (await (await page.request.get(`${address}/api/records?module=lead&sort=name&direction=up`)).json()) as {
    rows: { id: string }[]
  }
  await page.goto(`${address}/record/${people.rows[0]!.id}`)
  await page.getByLabel(/^Text to/).fill('and so on it goes. '.repeat(79))
  await page.getByLabel(/^Text to/).focus()
  await watchKeys(page)
  report('typing in the composer', await typeAndWatch(page, WORDS), bare)

  await page.keyboard.press('Control+e')
  await page.getByRole('option').first().waitFor()
  await page.waitForTimeout(500)
  report('finding a template in the composer', await typeAndWatch(page, 'racks 11'), bare)

  await page.goto(`${address}/templates`)
  await page.locator('.folder .one').first().waitFor()
  await page.getByLabel('Find a template').focus()
  await watchKeys(page)
  report(
    'finding a template',
    [
      ...(await typeAndWatch(page, 'racks 11')),
      ...(await page
        .getByLabel('Find a template')
        .fill('')
        .then(() => typeAndWatch(page, 'mechanic saddles 4'))),
    ],
    bare,
  )
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
process.exit(exitCode())
