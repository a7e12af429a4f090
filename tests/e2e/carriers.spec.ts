import { expect } from '@playwright/test'
import { SMPP_ACCOUNT, smppPort } from '../../scripts/world.mjs'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, slipWith, test, textsOnHandset, writeFromHandset } from './people'
import { PRACTICE_PORT } from './world'

const LONG = 'Your trial week could start on Tuesday, with two long-johns and a trike. '.repeat(4).trim()

test('a carrier is connected, first with a wrong password, and a line over it texts and is texted', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  await page.goto('/set-up/carriers')
  await expect(page.getByText('The practice carrier')).toBeVisible()
  await page.getByRole('button', { name: 'Connect a carrier' }).click()
  const dialog = page.getByRole('dialog')

  // what comes along with a copy is pointed at, at its field
  await dialog.getByLabel('What colleagues call it').fill('Harbour SMS')
  await dialog.getByLabel('Host').fill('127.0.0.1 ')
  await dialog.getByLabel('Port').fill(String(smppPort(PRACTICE_PORT)))
  await dialog.getByLabel('With TLS').uncheck()
  await dialog.getByLabel('System id').fill(SMPP_ACCOUNT.systemId)
  await dialog.getByLabel('Password', { exact: true }).fill('nonsense')
  await dialog.getByRole('button', { name: 'Try it first' }).click()
  await expect(dialog.getByText('There is a space before or behind the host')).toBeVisible()
  await dialog.getByLabel('Host').fill('127.0.0.1')
  await dialog.getByRole('button', { name: 'Try it first' }).click()
  await expect(dialog.getByText('The password is wrong.')).toBeVisible()
  await dialog.getByLabel('Password', { exact: true }).fill(SMPP_ACCOUNT.password)
  await expect(dialog.getByText('The password is wrong.')).toBeHidden()
  await dialog.getByRole('button', { name: 'Try it first' }).click()
  await expect(dialog.getByText('has let pannier in')).toBeVisible()
  await expectAccessible(page)
  await dialog.getByRole('button', { name: 'Connect it' }).click()
  await expect(page.getByText('Connected, for')).toBeVisible()
  // it may be connected before the dialog has faded away, through which nothing has its contrast
  await expect(page.locator('.p-dialog-mask')).toHaveCount(0)
  await expectAccessible(page)

  await page.getByRole('link', { name: 'add its numbers as lines' }).click()
  await page.getByRole('button', { name: 'Add a line' }).click()
  await dialog.getByLabel('Carrier').selectOption('Harbour SMS')
  await dialog.getByLabel('Number').fill('+1 503 555 0170')
  await dialog.getByLabel('What colleagues call it').fill('Harbour line')
  await dialog.getByLabel('Who answers it').selectOption('Rafe Pennington')
  await expect(dialog).toHaveCSS('opacity', '1')
  await expectAccessible(page)
  await dialog.getByRole('button', { name: 'Add the line' }).click()
  await expect(page.getByRole('heading', { name: 'Harbour line' })).toBeVisible()

  const number = freshNumber()
  const id = await makeLead(page.request, 'Harper', number)
  await page.goto(`/record/${id}`)
  await page.getByRole('combobox', { name: 'from' }).click()
  await page.getByRole('option', { name: /^Harbour line/ }).click()
  await page.getByLabel('Text to Harper').fill(LONG)
  await page.getByLabel('Text to Harper').press('ControlOrMeta+Enter')
  await expect(slipWith(page, 'Your trial week could start').getByText('Delivered')).toBeVisible({ timeout: 20_000 })
  expect(await textsOnHandset(page.request, number)).toMatchObject([{ text: LONG, parts: 2 }])

  const answer = 'Yes please! Tuesday is fine, and so is the trike. Could the second one come with a rain cover? '.repeat(2).trim()
  await writeFromHandset(page.request, number, answer, '+15035550170')
  await expect(slipWith(page, 'Could the second one come with a rain cover')).toBeVisible()

  // a carrier with a line is not removed by accident
  await page.goto('/set-up/carriers')
  await page.getByRole('button', { name: 'Remove Harbour SMS' }).click()
  await page.getByRole('button', { name: 'Remove it' }).click()
  await expect(page.getByText('Harbour line text over it. Give them another carrier first.')).toBeVisible()
})
