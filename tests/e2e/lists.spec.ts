import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { cutOff, signIn, test } from './people'

const rows = (page: Page) => page.locator('tbody a.open')

async function ask(page: Page, field: string, how: string | null, value: (page: Page) => Promise<void>): Promise<void> {
  await page.getByRole('button', { name: /^(Add a condition|and …)$/ }).click()
  await page.getByRole('combobox', { name: 'Field' }).click()
  await page.getByRole('option', { name: field, exact: true }).click()
  if (how) {
    await page.getByRole('combobox', { name: 'How' }).click()
    await page.getByRole('option', { name: how, exact: true }).click()
  }
  await value(page)
  await page.getByRole('button', { name: 'Add this condition' }).click()
}

test('conditions read as a sentence, are kept as a view, and the team sees it', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await expect(rows(page)).toHaveCount(50)
  await ask(page, 'Stage', null, page => page.getByLabel('Offer', { exact: true }).check())
  await expect(page.getByRole('button', { name: 'stage is Offer', exact: true })).toBeVisible()
  await ask(page, 'Country', 'is', page => page.getByLabel('Words').fill('gb'))
  await expect(page.getByRole('button', { name: 'country is “gb”', exact: true })).toBeVisible()
  await expect
    .poll(async () =>
      page
        .locator('tbody td:nth-child(4)')
        .allTextContents()
        .then(stages => [...new Set(stages.map(stage => stage.trim()))]),
    )
    .toEqual(['Offer'])

  await page.getByRole('button', { name: 'Save this list' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Give the view a name.')).toBeVisible()
  const name = `Offers in Britain ${Date.now() % 10_000}`
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByLabel('My team sees it too').check()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('button', { name, exact: true })).toHaveAttribute('aria-pressed', 'true')

  const mika = await signIn(browser, 'mika')
  await mika.goto('/records/leads')
  await mika.getByRole('button', { name }).click()
  await expect(mika.getByRole('button', { name: 'stage is Offer', exact: true })).toBeVisible()
  await page.getByRole('button', { name: `Delete “${name}”` }).click()
  await expect(page.getByRole('button', { name, exact: true })).toBeHidden()
})

test('a condition stays open however long an option is held', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await page.getByRole('button', { name: 'Add a condition' }).click()
  await expect(page.getByRole('combobox', { name: 'Field' })).toBeFocused()
  for (const [name, option] of [['Field', 'Country'], ['How', 'is']] as const) {
    await page.getByRole('combobox', { name }).click()
    await page.getByRole('option', { name: option, exact: true }).click({ delay: 600 })
  }
  await expect(page.getByLabel('Words')).toBeVisible()
})

test('a list is in its address: a reload and Back find it as it was', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await page.getByRole('button', { name: 'Trials ahead' }).click()
  await page.getByLabel('Filter this list').fill('holm')
  await expect(page.getByRole('columnheader', { name: 'Trial starts' })).toBeVisible()
  await expect(page.getByText('1 lead', { exact: true })).toBeVisible()
  await expect(page).toHaveURL(/words=holm/)
  await page.reload()
  await expect(page.getByRole('columnheader', { name: 'Trial starts' })).toBeVisible()
  await expect(page.getByLabel('Filter this list')).toHaveValue('holm')
  await expect(page.getByRole('button', { name: 'Trials ahead', exact: true })).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('link', { name: 'Iris Holm' }).click()
  await expect(page.getByRole('heading', { name: 'Iris Holm' })).toBeVisible()
  await page.goBack()
  await expect(page.getByText('1 lead', { exact: true })).toBeVisible()
  await expect(page.getByLabel('Filter this list')).toHaveValue('holm')
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Records' }).click()
  await expect(page.getByLabel('Filter this list')).toHaveValue('')
})

test('a wrong condition says what is missing, at its place', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await ask(page, 'Last contact', null, async () => {})
  await expect(page.getByText('Type how many days.')).toBeVisible()
  await page.getByLabel('Days').fill('30')
  await page.getByRole('button', { name: 'Add this condition' }).click()
  await expect(page.getByRole('button', { name: 'last contact is longer ago than 30 days, or never was', exact: true })).toBeVisible()
})

test('columns are picked and ordered, and sorted by', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await page.getByRole('button', { name: 'Columns' }).click()
  await page.getByLabel('Tags', { exact: true }).check()
  await page.getByRole('button', { name: 'Tags further to the left' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('columnheader').filter({ hasText: /Tags|Last contact/ })).toHaveText([/Tags/, /Last contact/])
  await page.getByRole('columnheader', { name: 'Tags' }).getByRole('button').click()
  await expect(page.getByRole('columnheader', { name: 'Tags' })).toHaveAttribute('aria-sort', 'ascending')
})

test('many are changed at once with a count before, and taken back', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await expect(rows(page)).toHaveCount(50)
  const tag = `round ${Date.now() % 100_000}`
  await page.getByLabel('Choose this page').check()
  await page.getByRole('button', { name: /^Choose all/ }).click()
  await page.getByRole('button', { name: 'Add a tag' }).click()
  await page.getByLabel('Add a tag').fill(tag)
  const change = page.getByRole('button', { name: /^Change \d+ leads$/ })
  await change.click()
  const said = page.getByText(/\d+ leads changed\./)
  await expect(said).toBeVisible()
  const changed = /\d+/.exec((await said.textContent())!)![0]
  await ask(page, 'Tags', null, page => page.getByLabel(tag, { exact: true }).check())
  await expect(page.getByText(`${changed} leads`, { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByText(/leads as before\./)).toBeVisible()
  await expect(page.getByText('None of the leads is so.')).toBeVisible()
})

test('a record is peeked at and rows are chosen by keyboard alone', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await expect(rows(page)).toHaveCount(50)
  await page.keyboard.press('f')
  await page.keyboard.type('Iris Holm')
  await expect(rows(page)).toHaveText(['Iris Holm'])
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('p')
  const peek = page.getByRole('complementary', { name: 'Peek at Iris Holm' })
  await expect(peek.getByText('+1 808 555 0142')).toBeVisible()
  await page.keyboard.press('x')
  await expect(page.getByText('1 lead chosen')).toBeVisible()
  await page.keyboard.press('p')
  await expect(peek).toBeHidden()
})

test('axe finds nothing on a list with conditions, a choice and a peek', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  const quiet = page.waitForResponse(answer => answer.url().includes('/api/records?') && answer.url().includes('where=%7B'))
  await page.getByRole('button', { name: 'Gone quiet' }).click()
  await quiet
  await expect(rows(page)).not.toHaveCount(0)
  await page.getByLabel('Choose this page').check()
  await page.getByRole('button', { name: 'Move to a stage' }).click()
  await rows(page).first().focus()
  await page.keyboard.press('p')
  await expect(page.getByRole('complementary', { name: /^Peek at/ })).toBeVisible()
  await expectAccessible(page)
})

test('a list is taken out as a table, as it is on screen', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads')
  await page.getByRole('button', { name: 'Trials ahead' }).click()
  await expect(page.getByRole('columnheader', { name: 'Trial starts' })).toBeVisible()
  await page.getByRole('button', { name: 'Export' }).click()
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: /CSV/ }).click()])
  expect(file.suggestedFilename()).toMatch(/^leads-\d{4}-\d\d-\d\d\.csv$/)
  const csv = (await (await file.createReadStream()).toArray()).join('')
  expect(csv).toMatch(/^\uFEFF?First name,Last name,Company,City,Trial starts,Bikes,Mobile/)
  expect(csv).toContain('Iris,Holm,Holm & Daughters Bakery,Honolulu')
})

test('columns that cannot be loaded are told and loaded again, and a view that cannot be changed says so', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const back = await cutOff(page, '**/api/columns?**')
  await page.goto('/records/leads')
  await expect(page.getByRole('alert')).toContainText('Plauder cannot be reached.')
  back()
  await page.getByRole('button', { name: 'Load it again' }).click()
  await expect(rows(page)).toHaveCount(50)
  await page.getByRole('button', { name: 'Trials ahead' }).click()
  await page.route('**/api/views/*', route => route.abort())
  await page.getByRole('button', { name: 'Delete “Trials ahead”' }).click()
  await expect(page.getByRole('alert')).toContainText('Plauder cannot be reached.')
})
