import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, PRACTICE, signIn, slipWith, test, textsOnHandset, writeFromHandset } from './people'

const lineOf = (page: Page, name: string) => page.getByRole('listitem').filter({ has: page.getByRole('heading', { name, exact: true }) })

/** Days of waiting, or a paid month, are over. */
async function hasten(page: Page, number: string): Promise<void> {
  expect((await page.request.post(`${PRACTICE}/handsets/api/numbers`, { data: { number } })).ok()).toBe(true)
}

/** Finds a number, takes it for Rafe alone, and gives it. */
async function take(page: Page, wish: { country: string, place: string }, name: string): Promise<string> {
  await page.getByRole('button', { name: 'Add a line' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Carrier').selectOption('The practice carrier')
  await dialog.getByLabel('Country').selectOption(wish.country)
  await dialog.getByLabel('Place').fill(wish.place)
  const offer = dialog.getByRole('radio', { name: new RegExp(wish.place) }).first()
  await expect(offer).toBeVisible()
  await expect(dialog.getByRole('radio', { name: /Ontario/ })).toHaveCount(0)
  await offer.check()
  // looked for more closely, what was chosen stays so
  const digits = wish.country === 'United Kingdom' ? '7700' : '458'
  const looked = page.waitForResponse(response => response.url().includes(`digits=${digits}`))
  await dialog.getByLabel('Digits in it').fill(digits)
  await looked
  await expect(offer).toBeChecked()
  await dialog.getByLabel('What colleagues call it').fill(name)
  await dialog.getByLabel('Who answers it').selectOption('Rafe Pennington')
  await expect(dialog).toHaveCSS('opacity', '1')
  await expectAccessible(page)
  await dialog.getByRole('button', { name: /^Take it for \$\d/ }).click()
  await expect(dialog).toBeHidden()
  await expect(page.locator('.p-dialog-mask')).toHaveCount(0)
  const shown = await lineOf(page, name).locator('.figures').innerText()
  // numbers of one's own country are shown without it
  return shown.startsWith('+') ? shown.replace(/[^\d+]/g, '') : `+1${shown.replace(/\D/g, '')}`
}

const step = async (page: Page, words: string, name: string) => {
  await page.getByRole('button', { name: `${words}: ${name}`, exact: true }).click()
  await page.getByRole('group', { name: `${words}: ${name}?` }).getByRole('button', { name: words, exact: true }).click()
}

test('an admin finds a number, takes it, texts from it, pauses, ends and takes it up again', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  await page.goto('/set-up/lines')
  const number = await take(page, { country: 'United States', place: 'Oregon' }, 'Eugene line')
  const own = lineOf(page, 'Eugene line')
  await expect(own.getByText(/^In use, paid until .+, \$1\.15 a month$/)).toBeVisible()
  await expectAccessible(page)

  const theirs = freshNumber()
  const id = await makeLead(page.request, 'Wren', theirs)
  const choose = async () => {
    await page.goto(`/record/${id}`)
    await page.getByRole('combobox', { name: 'from' }).click()
    return page.getByRole('option', { name: /^Eugene line/ })
  }
  await (await choose()).click()
  await page.getByLabel('Text to Wren').fill('The trike is ready. Rafe')
  await page.getByLabel('Text to Wren').press('ControlOrMeta+Enter')
  await expect(slipWith(page, 'The trike is ready').getByText('Delivered')).toBeVisible({ timeout: 20_000 })
  expect(await textsOnHandset(page.request, theirs)).toMatchObject([{ other: number }])
  // next time it is proposed, and says why
  await page.reload()
  await expect(page.getByText('used last, answered by you')).toBeVisible()

  // who asks again without confirming changes nothing
  await page.goto('/set-up/lines')
  await page.getByRole('button', { name: 'Pause it: Eugene line' }).click()
  await expect(own.getByText('Nothing leaves over it and it does not ring')).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await expect(own.getByText(/^In use/)).toBeVisible()
  await step(page, 'Pause it', 'Eugene line')
  await expect(own.getByText(/^Paused: it is silent/)).toBeVisible()
  await expect(await choose()).toBeDisabled()
  await page.keyboard.press('Escape')
  await writeFromHandset(page.request, theirs, 'Lovely, I will be there at nine', number)
  await expect(slipWith(page, 'I will be there at nine')).toBeVisible()

  await page.goto('/set-up/lines')
  await step(page, 'Let it go on', 'Eugene line')
  await step(page, 'End it', 'Eugene line')
  await expect(own.getByText(/^In use until .+, then it ends$/)).toBeVisible()
  await step(page, 'Keep it after all', 'Eugene line')
  await expect(own.getByText(/^In use, paid until/)).toBeVisible()
  await step(page, 'End it', 'Eugene line')
  await expect(own.getByText(/^In use until/)).toBeVisible()
  await hasten(page, number)
  // its carrier tells, and the page hears it
  await expect(own.getByText(/^Ended on/)).toBeVisible()
  await expectAccessible(page)
  await step(page, 'Take it up again', 'Eugene line')
  await expect(own.getByText(/^In use, paid until/)).toBeVisible()

  await page.goto('/set-up/money')
  await page.getByLabel('Show').selectOption('rent of lines')
  await expect(page.getByText('Rent from Eugene line')).toHaveCount(2)
  await page.goto('/set-up/audit')
  await expect(page.getByText('took a step with a line').first()).toBeVisible()
})

test('a number of a country with papers is asked for, and in use once its carrier gives it', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  await page.goto('/set-up/lines')
  const number = await take(page, { country: 'United Kingdom', place: 'Mobile' }, 'London line')
  const own = lineOf(page, 'London line')
  await expect(own.getByText(/^Asked for; the carrier usually gives it by/)).toBeVisible()
  await expect(own.getByRole('button', { name: 'Pause it: London line' })).toHaveCount(0)
  await hasten(page, number)
  await expect(own.getByText(/^In use, paid until .+, \$1\.60 a month$/)).toBeVisible()
})

test('what is not there, and a carrier without any, are said where one looks', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  await page.goto('/set-up/lines')
  await page.getByRole('button', { name: 'Add a line' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Carrier').selectOption('The practice carrier')
  await dialog.getByLabel('Place').fill('Atlantis')
  await expect(dialog.getByText('It has no such number.')).toBeVisible()
  await dialog.getByLabel('Digits in it').fill('five')
  await expect(dialog.getByText('Write digits that are to be in it.')).toBeVisible()
  await dialog.getByLabel('Digits in it').fill('')
  await page.route('**/api/set-up/lines/offers?**', route => route.abort())
  await dialog.getByLabel('Place').fill('Oregon')
  await dialog.getByRole('button', { name: 'Look again' }).waitFor()
  await page.unroute('**/api/set-up/lines/offers?**')
  await dialog.getByRole('button', { name: 'Look again' }).click()
  await expect(dialog.getByRole('radio', { name: /Eugene, Oregon/ }).first()).toBeVisible()
})

test('a number is brought over from another carrier: sent back once, asked again, agreed, and in use here', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  const number = '+15035550177'
  await page.goto('/set-up/lines')
  await page.getByRole('button', { name: 'Add a line' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Carrier', { exact: true }).selectOption('The practice carrier')
  await dialog.getByRole('radio', { name: 'bring it over' }).check()
  await dialog.getByLabel('Number, with its country code').fill('+1 503 555 0177')
  await dialog.getByLabel('What colleagues call it').fill('Old shop line')
  await dialog.getByLabel('Who answers it').selectOption('Rafe Pennington')
  await dialog.getByRole('button', { name: 'Bring it over' }).click()
  await expect(dialog.getByText('Say which carrier has it.')).toBeVisible()
  await dialog.getByLabel('The carrier that has it').fill('Harbour Phones')
  await dialog.getByLabel('The number of your account there').fill('12')
  await expectAccessible(page)
  await dialog.getByRole('button', { name: 'Bring it over' }).click()
  await expect(dialog).toBeHidden()
  const own = lineOf(page, 'Old shop line')
  await expect(own.getByText('Being brought over from Harbour Phones')).toBeVisible()
  await expect(own.locator('[aria-current="step"]')).toHaveText(/Harbour Phones agrees/)
  await expect(page.locator('.p-dialog-mask')).toHaveCount(0)
  await expectAccessible(page)

  // what carriers take days over is told on the open page
  await hasten(page, number)
  await expect(own.getByText('knows no account “12”')).toBeVisible()
  await own.getByRole('button', { name: 'Put it right and ask again: Old shop line' }).click()
  await own.getByLabel('The number of your account there').fill('HP-004711')
  await own.getByRole('button', { name: 'Ask again' }).click()
  await expect(own.getByText('knows no account')).toBeHidden()
  await hasten(page, number)
  await expect(own.locator('[aria-current="step"]')).toHaveText(/It moves/)
  await hasten(page, number)
  await expect(own.getByText(/^In use, paid until/)).toBeVisible()

  const theirs = freshNumber()
  await writeFromHandset(page.request, theirs, 'Is this still the shop?', number)
  await page.goto('/inbox')
  await expect(page.getByText('Is this still the shop?').first()).toBeVisible()
})
