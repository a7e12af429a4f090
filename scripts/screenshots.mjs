// Takes the pictures of docs/screenshots from the demo data, in a world of its own.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { chromium } from '@playwright/test'
import { chromiumOptions } from './chromium.mjs'
import { buildIfNeeded } from './prepare.mjs'
import { startApplication, startPractice, stop } from './world.mjs'

const port = Number(process.env.PORT ?? 4910)
const address = `http://127.0.0.1:${port}`
const folder = mkdtempSync(join(tmpdir(), 'plauder-pictures-'))
buildIfNeeded()
process.env.PLAUDER_BUILD = resolve('.output/parts')
process.env.PLAUDER_QUIET = '1'
const { layDemo, DEMO_PASSWORD } = await import(pathToFileURL(resolve('.output/parts/demo.mjs')).href)
await layDemo(folder)
const practice = startPractice({ folder, port, practicePort: port + 1 })
const application = startApplication({ folder, port, practicePort: port + 1 })
await Promise.all([practice.open, application.healthy])
const browser = await chromium.launch(chromiumOptions())

async function signIn(who, options = {}) {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce', ...options })).newPage()
  await page.request.post(`${address}/api/sign-in`, { data: { mail: `${who}@pannier.example`, password: DEMO_PASSWORD } })
  return page
}
const save = (page, name) => page.screenshot({ path: `docs/screenshots/${name}.png` })
const idOf = async (page, words, module = 'lead') => (await (await page.request.get(`${address}/api/find`, { params: { words } })).json()).find(record => record.module === module).id

/** A file as somebody brings it home from a market stall: one of them is there already, one has no mail address. */
const MARKET_STALL = `Given name;Surname;Cell phone;E-mail;Business;Town;Wants to try
Iris;Holm;(808) 555-0142;iris@holm.example;Holm & Daughters Bakery;Honolulu;
Kalani;Teague;808 555 0171;kalani@teague.example;Tin Roof Tools;Hilo;4/12/2027
Petra;Oakes;808 555 0172;petra@oakes.example;Sixpenny Soap;Hilo;13/12/2027
Milo;Farrow;808 555 01;;Sixpenny Soap;Kona;
Juno;Wilde;808 555 0173;juno at wilde;Oat & Anchor;Honolulu;20/1/2027
`

/**
 * Calls some of those who have gone quiet, and opens the round's page.
 *
 * @returns false where it is night with all of them, so that nobody can be called: the picture stays as it is
 */
async function workARound(page) {
  await page.goto(`${address}/records/leads`)
  await page.getByRole('button', { name: 'Gone quiet' }).click()
  await page.getByText('stage is Talking').waitFor()
  await page.getByRole('button', { name: 'Call in a round' }).click()
  await page.getByLabel('Name of the round').fill('Gone quiet, before winter')
  await page.getByText('can be called now').waitFor()
  await page.getByRole('button', { name: 'Start with the first' }).click()
  const inHand = async () => (await (await page.request.get(`${address}/api/rounds/mine`)).json()).round?.inHand ?? null
  await page.waitForTimeout(2_000)
  if (!(await inHand())) return false
  for (const [manner, key] of [['picks-up', 'n'], ['lets-it-ring', 'm'], ['picks-up', 'n'], ['busy', 'm'], ['picks-up', 's'], ['lets-it-ring', 'm'], ['picks-up', 'n']]) {
    // at such an hour there are not enough who are awake
    if (!(await inHand())) return false
    await page.getByRole('group', { name: /^Round/ }).getByRole('button', { name: 'Call' }).waitFor()
    if (key === 's') {
      await page.getByRole('group', { name: /^Round/ }).getByRole('button', { name: 'Skip' }).click()
      await page.waitForTimeout(800)
      continue
    }
    const before = await inHand()
    await page.request.post(`http://127.0.0.1:${port + 1}/handsets/api/calls`, { data: { phone: before.number, act: 'manner', manner } })
    await page.getByRole('group', { name: /^Round/ }).getByRole('button', { name: 'Call' }).click()
    await page.getByRole('dialog', { name: /^Call with/ }).waitFor()
    await page.waitForTimeout(manner === 'picks-up' ? 9_000 : 1_500)
    await page.keyboard.press('Alt+e')
    await page.locator('.key.chosen').waitFor()
    await page.keyboard.press(key)
    await page.getByRole('dialog', { name: /^Call with/ }).waitFor({ state: 'detached' })
  }
  await page.getByRole('group', { name: /^Round/ }).getByRole('link', { name: /before winter/ }).click()
  await page.getByRole('heading', { name: 'Who calls' }).waitFor()
  await page.locator('tbody tr').first().waitFor()
  return true
}

try {
  const ada = await signIn('ada')
  await ada.goto(`${address}/records/leads`)
  await ada.locator('a.open').first().waitFor()
  await ada.getByRole('button', { name: 'Gone quiet' }).click()
  await ada.getByText('stage is Talking').waitFor()
  await ada.getByLabel(/^Choose (?!this)/).nth(1).check()
  await ada.getByLabel(/^Choose (?!this)/).nth(3).check()
  await save(ada, 'list')
  await ada.getByRole('button', { name: 'Choose none' }).click()
  await ada.keyboard.press('/')
  await ada.keyboard.type('bread')
  await ada.getByRole('option', { name: /eleven hotels/ }).waitFor()
  await save(ada, 'find')
  const odile = await signIn('odile')
  await odile.goto(address)
  await odile.getByRole('heading', { name: 'Who waits for an answer' }).waitFor()
  await odile.getByRole('region', { name: 'Shelf' }).getByRole('button', { name: /^2 knocks/ }).click()
  await odile.getByRole('dialog', { name: 'Knocks' }).getByRole('listitem').first().waitFor()
  await save(odile, 'knocks')

  await ada.goto(address)
  await ada.getByRole('heading', { name: 'Due' }).waitFor()
  await save(ada, 'today')

  const iris = await idOf(ada, 'iris holm')
  const mika = await signIn('mika')
  await ada.request.post(`http://127.0.0.1:${port + 1}/handsets/api/calls`, { data: { phone: '+18085550142', act: 'manner', manner: 'picks-up' } })
  await mika.goto(`${address}/record/${iris}`)
  await mika.getByText('Perfect. Could we make it Thursday?').waitFor()
  await mika.keyboard.press('d')
  await mika.getByRole('button', { name: 'Hold' }).waitFor()
  await mika.getByLabel(/^Your notes/).fill('Thursday is fine. Wants to know whether the trike carries two trays.')
  await mika.keyboard.press('Alt+e')
  await mika.getByRole('region', { name: 'Shelf' }).getByRole('button', { name: /Iris Holm.*ended, waits/ }).waitFor()
  await mika.getByRole('button', { name: /^O Wants an offer/ }).focus()
  await mika.getByRole('heading', { name: 'What “Wants an offer” will do' }).waitFor()
  await save(mika, 'calling')
  await mika.getByRole('button', { name: 'Close without a disposition' }).click()
  await ada.goto(`${address}/record/${iris}`)
  await ada.getByText('Perfect. Could we make it Thursday?').waitFor()
  await ada.getByLabel(/^Text to/).waitFor()
  await ada.keyboard.press('e')
  await ada.getByRole('option').first().waitFor()
  await ada.keyboard.type('set time')
  await ada.getByRole('option', { name: /Call at a set time/ }).waitFor()
  await ada.keyboard.press('Enter')
  await ada.getByLabel('Day', { exact: true }).fill('2026-12-03')
  await ada.getByLabel('Time', { exact: true }).fill('15:30')
  await ada.getByText('I\'ll call you on Thursday at 3:30 pm').waitFor()
  await save(ada, 'template-picker')
  await ada.keyboard.press('Enter')
  await ada.getByRole('button', { name: 'Later' }).click()
  await ada.getByRole('form', { name: 'Send later' }).getByLabel('Time', { exact: true }).fill('08:30')
  await save(ada, 'record')

  await ada.goto(`${address}/inbox`)
  await ada.locator('.row').filter({ hasText: 'Iris Holm' }).click()
  await ada.getByRole('textbox', { name: 'Answer' }).waitFor()
  await save(ada, 'inbox')

  await ada.goto(`${address}/pipelines`)
  await ada.getByRole('link', { name: '4 long-johns and a trike' }).waitFor()
  await save(ada, 'pipeline')
  if (await workARound(mika)) await save(mika, 'round')
  await ada.goto(`${address}/records/leads/import`)
  await ada.locator('input[type=file]').setInputFiles({ name: 'market-stall.csv', mimeType: 'text/csv', buffer: Buffer.from(MARKET_STALL) })
  await ada.getByRole('button', { name: /^All/ }).waitFor()
  await ada.getByRole('heading', { name: 'Import leads' }).click()
  await save(ada, 'import')

  const dark = await signIn('odile', { colorScheme: 'dark' })
  await dark.goto(`${address}/record/${iris}`)
  await dark.getByText('Perfect. Could we make it Thursday?').waitFor()
  await save(dark, 'record-dark')

  const noor = await signIn('noor')
  await noor.goto(`${address}/record/${await idOf(noor, 'mechanic, workshop', 'job')}`)
  await noor.getByRole('region', { name: 'Called' }).getByRole('link', { name: 'Bo Castellanos' }).waitFor()
  await save(noor, 'job')
  await noor.goto(`${address}/records/candidates`)
  await noor.getByRole('region', { name: 'Shelf' }).getByRole('button', { name: /Bo Castellanos/ }).click()
  await noor.getByRole('textbox', { name: 'Answer' }).fill('Wednesday 15:30 it is, ask for Noor. Bring your own spanner if you like')
  await save(noor, 'shelf')

  await odile.goto(`${address}/templates`)
  await odile.getByRole('button', { name: /Sorry I missed you/ }).click()
  await odile.getByRole('button', { name: 'Versions' }).click()
  await odile.getByText('answered within three days').first().waitFor()
  await save(odile, 'templates')

  await ada.goto(`${address}/records/clients`)
  await ada.getByRole('button', { name: 'Text in bulk' }).click()
  await ada.getByLabel('Name, for you and your colleagues').fill('Winter tyres, all fleets')
  await ada.getByRole('textbox', { name: 'Text', exact: true }).click()
  await ada.keyboard.type('Hi {{first')
  await ada.getByRole('option', { name: /^First name/ }).waitFor()
  await ada.keyboard.press('Enter')
  await ada.keyboard.type(', Ada from Pannier & Post here: shall we fit winter tyres before the frost?')
  await ada.getByLabel('What', { exact: true }).fill('Fitting days')
  await ada.getByRole('button', { name: 'Check everybody' }).click()
  await ada.getByRole('button', { name: /^Send \d+ texts now/ }).waitFor()
  await Promise.all([ada.waitForResponse(/\/plan\?start=/), ada.getByRole('slider', { name: 'Start' }).press('PageDown')])
  await ada.getByRole('button', { name: /^Send \d+ texts from/ }).waitFor()
  await ada.getByRole('heading', { name: 'When each leaves' }).click()
  await save(ada, 'bulk')

  await ada.goto(`${address}/groups`)
  await ada.getByRole('link', { name: 'Demonstration day, Halifax' }).click()
  await ada.waitForURL(/groups\/./)
  const group = ada.url()
  await ada.getByRole('button', { name: /^Text them/ }).click()
  await ada.getByRole('textbox', { name: 'Text', exact: true }).click()
  await ada.keyboard.type('Come and ride a long-john up the hill on Saturday, from 10. Ada, Pannier & Post')
  await ada.getByRole('button', { name: 'Check everybody' }).click()
  await ada.getByRole('button', { name: /^Send \d+ texts/ }).click()
  const texted = async () => {
    const { rows } = await (await ada.request.get(`${address}/api${new URL(ada.url()).pathname.replace('/bulk/', '/bulk-texts/')}/people?standing=texted`)).json()
    return rows.map(row => row.number.replace(/[^+\d]/g, ''))
  }
  // where it is night with them nothing leaves, and the picture stays as it is
  if (await ada.getByRole('status').filter({ hasText: /^1\d of/ }).waitFor({ timeout: 30_000 }).then(() => true, () => false)) {
    const answers = ['Gladly! I bring my brakes', 'Can my son come along?', 'Saturday is the market. Is there another day?']
    for (const [i, phone] of (await texted()).slice(0, answers.length).entries())
      await ada.request.post(`http://127.0.0.1:${port + 1}/handsets/api/texts`, { data: { phone, to: '+17825550122', text: answers[i] } })
    await ada.getByText('answered 3', { exact: true }).waitFor()
    await ada.goto(group)
    await ada.getByText(answers[2]).waitFor()
    await ada.getByRole('button', { name: 'Take Alba Ellery out' }).waitFor()
    await save(ada, 'group')
  }

  const phone = await signIn('ada', { viewport: { width: 390, height: 844 } })
  await phone.goto(`${address}/record/${iris}`)
  await phone.getByText('Perfect. Could we make it Thursday?').waitFor()
  await save(phone, 'record-phone')

  await ada.request.post(`http://127.0.0.1:${port + 1}/handsets/api/texts`, { data: { phone: '+18085550142', to: '+15035550118', text: 'One more thing: can the trike carry two trays?' } })
  await ada.goto(`http://127.0.0.1:${port + 1}/handsets?phone=%2B18085550142`)
  await ada.getByRole('region', { name: 'The telephone' }).getByText('One more thing').waitFor()
  await save(ada, 'handsets')
}
finally {
  await browser.close()
  await Promise.all([application, practice].map(({ child }) => stop(child)))
  rmSync(folder, { recursive: true, force: true })
}
