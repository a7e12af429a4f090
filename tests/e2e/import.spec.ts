import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test } from './people'

const choose = (page: Page, name: string, text: string | Buffer) =>
  page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
test('a spreadsheet is matched, foreseen row by row, brought in, and taken back whole', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const [there, fresh] = [freshNumber(), freshNumber()]
  await makeLead(page.request, 'Already', there)
  const last = `Bringwell${Date.now() % 100_000}`
  await page.goto('/records/leads')
  await page.getByRole('link', { name: 'Import' }).click()
  await expectAccessible(page)
  await choose(
    page,
    'fair.csv',
    `Vorname;Surname;Cell;Mail;Met at\nNew;${last};${fresh};;Hall 2\nSame;${last};${there};;\nBad;${last};;nowhere;\n;;;;Hall 3\n`,
  )
  await expect(page.getByText('4 rows, cells between semicolons')).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'Cell' })).toContainText('Number')
  await expect(page.getByRole('button', { name: 'New 2' })).toBeVisible()
  await expect(page.getByText('is added to Already Testaway, the same number')).toBeVisible()
  await page.getByRole('button', { name: 'Refused 1' }).click()
  await expect(page.getByText('There is no name, number or mail address in it.')).toBeVisible()
  await page.getByRole('button', { name: 'With a cell that goes into a note 1' }).click()
  await expect(page.getByText('Mail “nowhere” goes into its note: This is not a mail address.')).toBeVisible()
  await expectAccessible(page)

  // a rule changes what is foreseen
  await page.getByRole('combobox', { name: 'If somebody has the same number,' }).click()
  await page.getByRole('option', { name: 'leave the row out' }).click()
  await expect(page.getByRole('button', { name: 'Left out 1' })).toBeVisible()
  await page.getByRole('combobox', { name: 'Met at' }).click()
  await page.getByRole('option', { name: 'Note' }).click()
  await page.getByRole('button', { name: 'Import 2 rows' }).click()
  await expect(page.getByText('2 new, 1 left out, 1 refused, 1 with a cell that went into a note')).toBeVisible()

  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Refused rows, as a file' }).click()
  const file = readFileSync(await (await download).path(), 'utf8')
  expect(file).toContain('Why it was refused')
  expect(file).toContain(',,,,Hall 3,"There is no name')

  await page.getByRole('link', { name: 'To the leads' }).click()
  await page.getByLabel('Filter this list').fill(last)
  await page.getByRole('link', { name: `New ${last}` }).click()
  await expect(page.getByText('Hall 2')).toBeVisible()
  await page.goto('/records/leads')
  await page.getByLabel('Filter this list').fill(last)
  await page.getByRole('link', { name: `Bad ${last}` }).click()
  await expect(page.getByText('Mail: nowhere')).toBeVisible()

  // the same headings are known the next time, and the same row makes nothing twice
  await page.goto('/records/leads/import')
  await choose(page, 'again.csv', `Vorname;Surname;Cell;Mail;Met at\nNew;${last};${fresh};;Hall 2\n`)
  await expect(page.getByRole('combobox', { name: 'Met at' })).toContainText('Note')
  await expect(page.getByRole('button', { name: 'Imported before 1' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Import 0 rows' })).toBeDisabled()

  await page.getByRole('button', { name: 'Take it all back' }).first().click()
  await page.getByRole('button', { name: 'Yes, take it back' }).click()
  await expect(page.getByText('taken back, ')).toBeVisible()
  await page.goto('/records/leads')
  await page.getByLabel('Filter this list').fill(last)
  await expect(page.getByText(`None of the leads has “${last}”.`)).toBeVisible()
})

test('contacts of a telephone are brought in', async ({ browser }) => {
  const page = await signIn(browser, 'mika')
  const last = `Cardwell${Date.now() % 100_000}`
  await page.goto('/records/clients/import')
  await choose(
    page,
    'contacts.vcf',
    `BEGIN:VCARD\nVERSION:2.1\nN;ENCODING=QUOTED-PRINTABLE;CHARSET=UTF-8:${last};Zo=C3=AB\nTEL;CELL:${freshNumber()}\nEND:VCARD\n`,
  )
  await expect(page.getByText(/1 row, vCards/)).toBeVisible()
  await page.getByRole('button', { name: 'Import 1 row' }).click()
  await expect(page.getByText('1 new')).toBeVisible()
  await page.goto('/records/clients')
  await page.getByLabel('Filter this list').fill(last)
  await expect(page.getByRole('link', { name: `Zoë ${last}` })).toBeVisible()
})

test('days that read two ways are asked about, a first row that is somebody is none of headings, an open quote is said', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads/import')
  await choose(page, 'days.csv', 'First name,Trial starts\nIris,3/4/2027\nBo,5/4/2027\n')
  await expect(page.getByText('Say first which day is meant in “Trial starts”.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Import' })).toBeDisabled()
  await page.getByRole('combobox', { name: '“3/4/2027” in “Trial starts” is' }).click()
  await expect(page.getByRole('option')).toHaveText(['Thu 4 Mar 2027', 'Sat 3 Apr 2027'].map(day => new RegExp(day.replace(/^\w+ /, ''))))
  await page.getByRole('option').last().click()
  await expect(page.getByRole('button', { name: 'Import 2 rows' })).toBeEnabled()

  await page.getByRole('button', { name: 'Another file' }).click()
  await choose(page, 'people.csv', `Zoe,${freshNumber()}\nYann,${freshNumber()}\n`)
  await expect(page.getByText('2 rows, cells between commas')).toBeVisible()
  await page.getByLabel('The first row says what the columns are').check()
  await expect(page.getByText('1 row, cells between commas')).toBeVisible()
  await expectAccessible(page)

  await page.getByRole('button', { name: 'Another file' }).click()
  await choose(page, 'quote.csv', 'First name,Note\nIris,"likes trikes\nBo,bells\n')
  await expect(page.getByRole('alert')).toContainText('never closed, in the row that begins with “Iris”')
})

test('an empty file, and one whose columns are nothing, say what to do', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/companies/import')
  await choose(page, 'empty.csv', '')
  await expect(page.getByText('There is no row in empty.csv.')).toBeVisible()
  await choose(page, 'shoes.csv', 'Shoe size\n42\n')
  await expect(page.getByText('Say of at least one column what it becomes.')).toBeVisible()
  await page.goto('/records/deals/import')
  await expect(page.getByRole('heading', { name: 'Deals' })).toBeVisible()
})

test('a large file is judged while the page stays free, and can be stopped', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads/import')
  await choose(page, 'large.csv', `First name,Last name\n${Array.from({ length: 6_000 }, (_, i) => `Large${i},Stopper`).join('\n')}\n`)
  await expect(page.getByRole('button', { name: 'New 6,000' })).toBeVisible()
  await page.getByRole('button', { name: 'Import 6,000 rows' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.getByText('stopped, ')).toBeVisible()
  await page.getByRole('button', { name: 'Take it all back' }).first().click()
  await page.getByRole('button', { name: 'Yes, take it back' }).click()
  await expect(page.getByText('taken back, ').first()).toBeVisible({ timeout: 60_000 })
})
