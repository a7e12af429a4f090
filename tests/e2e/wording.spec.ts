import { expect, type Page } from '@playwright/test'
import sharp from 'sharp'
import { freshNumber, makeLead, signIn, test, textsOnHandset } from './people'

async function open(page: Page, words: string): Promise<string> {
  const found = await (await page.request.get('/api/find', { params: { words } })).json() as { id: string }[]
  await page.goto(`/record/${found[0]!.id}`)
  // its keys work from then on
  await expect(page.getByLabel(/^Text to/)).toBeVisible()
  return found[0]!.id
}

test('by keyboard alone: a template is found, its blanks are filled in, and it is scheduled, moved and taken back', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await open(page, 'iris holm')
  await page.keyboard.press('e')
  await page.keyboard.type('set time')
  await expect(page.getByRole('option', { name: /Call at a set time/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Day', { exact: true })).toBeFocused()
  // an empty blank is asked for at its field
  await page.keyboard.press('Enter')
  await expect(page.getByText('Fill in “Day”.')).toBeVisible()
  await page.getByLabel('Day', { exact: true }).fill('2026-12-03')
  await page.getByLabel('Time', { exact: true }).fill('15:45')
  await expect(page.getByText('I\'ll call you on Thursday at 3:45 pm, as we said.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Text to Iris')).toHaveValue(/I'll call you on Thursday at 3:45 pm/)
  await expect(page.getByLabel('Text to Iris')).toBeFocused()

  await page.keyboard.press('Control+Shift+Enter')
  await expect(page.getByRole('form', { name: 'Send later' }).getByLabel('Day', { exact: true })).toBeFocused()
  await page.keyboard.press('Enter')
  const next = page.getByLabel('About this record').locator('.scheduled')
  await expect(next).toContainText('9:00 Honolulu time')
  await expect(page.getByText(/^Leaves at 9:00 Honolulu time/)).toBeVisible()
  await expect(page.getByLabel('Text to Iris')).toHaveValue('')

  await next.getByRole('button', { name: 'Change the time' }).focus()
  await page.keyboard.press('Enter')
  await next.getByLabel('Time', { exact: true }).fill('10:30')
  await page.keyboard.press('Enter')
  await expect(next).toContainText('10:30 Honolulu time')
  await next.getByRole('button', { name: 'Take back' }).focus()
  await page.keyboard.press('Enter')
  await expect(next).toHaveCount(0)
  await expect(page.getByText('Taken back, never sent').first()).toBeVisible()
})

test('a text for their night asks first, and a moment that has passed is refused at the field', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await open(page, 'wren adeyemi')
  await page.getByLabel('Text to Wren').fill('Hi Wren, Ada here. See you soon.')
  await page.getByRole('button', { name: 'Later' }).click()
  const later = page.getByRole('form', { name: 'Send later' })
  await later.getByLabel('Time', { exact: true }).fill('03:00')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Let it leave then anyway' })).toBeVisible()
  await later.getByLabel('Day', { exact: true }).fill('2020-01-01')
  await page.keyboard.press('Enter')
  await expect(later.getByRole('alert')).toContainText('has passed')
})

test('the ref of a text finds it, a mistyped one is called so, and the entry is marked where it stands', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const id = await makeLead(page.request, 'Ines', freshNumber())
  await page.goto(`/record/${id}`)
  await page.locator('#text').fill('Ada here from Pannier & Post, with a word to be found again.')
  await page.keyboard.press('Control+Enter')
  const slip = page.locator('.slip', { hasText: 'a word to be found again' })
  const [ref] = /[0-9A-Z]{4}-[0-9A-Z]{4}/.exec(await slip.locator('.foot').innerText())!
  await page.goto('/templates')
  await expect(page.getByRole('heading', { name: 'Templates' })).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type(ref.toLowerCase())
  await expect(page.getByRole('option', { name: new RegExp(`^${ref}`) })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(new RegExp(`/record/${id}\\?entry=`))
  await expect(page.locator('.slip.sought')).toContainText('a word to be found again')
  await expect(page.locator('.slip.sought')).toBeFocused()
  await page.keyboard.press('/')
  await page.keyboard.type(`${ref.slice(0, 8)}${ref[8] === '0' ? '1' : '0'}`)
  await expect(page.getByText(/This ref is mistyped/).first()).toBeVisible()
})

test('what is written and not sent is there on another machine, and becomes a template with its fields', async ({ browser }) => {
  const page = await signIn(browser, 'mika')
  const id = await open(page, 'iris holm')
  const saved = page.waitForResponse(answer => answer.url().endsWith('/api/drafts') && answer.request().method() === 'PUT')
  await page.getByLabel('Text to Iris').fill('Hi Iris, Mika from Pannier & Post. The rain cover is here.')
  await saved
  const other = await signIn(browser, 'mika')
  await other.goto(`/record/${id}`)
  await expect(other.getByLabel('Text to Iris')).toHaveValue(/The rain cover is here/)

  await other.getByRole('button', { name: 'Save as template' }).click()
  const dialog = other.getByRole('dialog', { name: 'Save as a template' })
  await expect(dialog.locator('.pill')).toHaveText(['first name', 'my first name', 'our firm'])
  await dialog.getByLabel('Name', { exact: true }).fill('Rain cover')
  await other.keyboard.press('Enter')
  await expect(other.getByText('“Rain cover” is among your templates.')).toBeVisible()
  await other.goto('/templates')
  await other.getByRole('button', { name: /Rain cover/ }).click()
  await expect(other.getByText('Version 1, owned by Mika')).toBeVisible()
  await other.getByRole('button', { name: 'On everybody' }).click()
  await expect(other.getByText(/people counted/)).toBeVisible()
})

test('a number that is on no record is texted from the header, and made a record of with what was said', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.goto('/records/leads')
  await expect(page.locator('tbody a.open').first()).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type(number)
  await page.getByRole('option', { name: /^Text \+1 .*on no record/ }).click()
  const panel = page.getByRole('dialog', { name: /^Conversation with/ })
  await panel.getByRole('textbox', { name: 'Answer' }).fill('Hello, Ada from Pannier & Post here.')
  await panel.getByRole('button', { name: 'Answer, and back' }).click()
  // at night there, a person says that it may leave now
  const night = page.getByRole('button', { name: 'Send it now anyway' })
  await expect(async () => {
    if (await night.isVisible()) await night.click()
    expect(await panel.count()).toBe(0)
  }).toPass()
  const id = await makeLead(page.request, 'Pia', number)
  await page.goto(`/record/${id}`)
  await expect(page.getByText('Hello, Ada from Pannier & Post here.')).toBeVisible()
})

test('a draft is listed, gone on with and thrown away; a note on a text quotes it', async ({ browser }) => {
  const page = await signIn(browser, 'noor')
  const id = await makeLead(page.request, 'Odo', freshNumber())
  await page.goto(`/record/${id}`)
  const saved = page.waitForResponse(answer => answer.url().endsWith('/api/drafts') && answer.request().method() === 'PUT')
  await page.getByLabel('Text to Odo').fill('Hi Odo, Noor from Pannier & Post. Bring your papers.')
  await saved
  await page.goto('/drafts')
  await page.getByRole('button', { name: 'Go on with the draft for Odo Testaway' }).click()
  await expect(page.getByLabel('Text to Odo')).toHaveValue(/Bring your papers/)
  await page.keyboard.press('Control+Enter')
  const slip = page.locator('.slip', { hasText: 'Bring your papers' })
  await slip.getByRole('button', { name: 'Note on it' }).click()
  await page.keyboard.type('The permit is missing.')
  await page.keyboard.press('Enter')
  await expect(page.getByText('noted on “Hi Odo, Noor from Pannier & Post. Bring your papers.”')).toBeVisible()
  await page.goto('/drafts')
  await expect(page.getByText('Nothing is begun.')).toBeVisible()
})

test('a team lead sees what changed between versions, and goes back to an earlier wording', async ({ browser }) => {
  const page = await signIn(browser, 'odile')
  await page.goto('/templates')
  await page.getByRole('button', { name: /Sorry I missed you/ }).click()
  await page.getByRole('button', { name: 'Versions' }).click()
  const versions = page.getByRole('region', { name: 'Versions' })
  await expect(versions.locator('ins').first()).toBeVisible()
  await expect(versions.locator('del').first()).toHaveText('Please call back.')
  await versions.getByText('Odile Marchetti').nth(1).click()
  await versions.getByRole('button', { name: 'Go back to this wording' }).first().click()
  await page.getByRole('button', { name: 'On one person' }).click()
  await expect(page.locator('.filled')).toContainText('Please call back.')
})

test('an admin renames the stage of a pipeline, and takes away none in which something stands', async ({ browser }) => {
  const page = await signIn(browser, 'rafe')
  await page.goto('/set-up/pipelines')
  await page.getByRole('button', { name: 'Change Renewals' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Stage 2', { exact: true }).fill('Spoken to')
  await dialog.getByRole('button', { name: 'Save the pipeline' }).click()
  await expect(page.getByText('Spoken to')).toBeVisible()
  await page.getByRole('button', { name: 'Change Renewals' }).click()
  await page.getByRole('button', { name: 'Remove stage 2' }).click()
  await page.getByRole('button', { name: 'Save the pipeline' }).click()
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('in “Spoken to”')
})

test('a picture goes with a text, survives a reload, arrives at the handset and shows to a colleague', async ({ browser }) => {
  const [page, mika] = await Promise.all([signIn(browser, 'ada'), signIn(browser, 'mika')])
  const number = freshNumber()
  const id = await makeLead(page.request, 'Pictured', number)
  const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#b8cdb9' } }).png().toBuffer()
  await page.goto(`/record/${id}`)
  await page.getByLabel('Text to Pictured').fill('Ada here: this is the bike.')
  await page.locator('input[type=file]').setInputFiles({ name: 'no-picture.png', mimeType: 'image/png', buffer: Buffer.from('words') })
  await expect(page.getByRole('alert')).toContainText('This is no picture that telephones show')
  await page.locator('input[type=file]').setInputFiles([
    { name: 'one.png', mimeType: 'image/png', buffer: picture },
    { name: 'two.png', mimeType: 'image/png', buffer: picture },
  ])
  await expect(page.getByAltText('Picture 2')).toBeVisible()
  await page.getByRole('button', { name: 'Remove picture 2' }).click()
  await expect(page.getByText('One message, however long the text: 2 ¢')).toBeVisible()
  await page.reload()
  await expect(page.getByAltText('Picture 1')).toBeVisible()
  await page.getByRole('button', { name: 'Send to Pictured now' }).click()
  await expect(page.getByText(/^Delivered/)).toBeVisible()
  expect(await textsOnHandset(page.request, number)).toMatchObject([
    { text: 'Ada here: this is the bike.', pictures: [{ type: 'image/png' }] },
  ])
  await mika.goto(`/record/${id}`)
  await expect(mika.getByAltText('Picture 1 of this text')).toBeVisible()
  expect(await mika.getByAltText('Picture 1 of this text').evaluate((one: HTMLImageElement) => one.naturalWidth)).toBe(900)
})

test('with the letters of its language a text costs what the ruler says, and arrives as it was written', async ({ browser }) => {
  const [rafe, page] = await Promise.all([signIn(browser, 'rafe'), signIn(browser, 'ada')])
  // of the Portland line's own state: from another one the nearest line would be another line
  const number = '+15415550990'
  const id = await makeLead(page.request, 'Lettered', number)
  const words = 'Günaydın! Bisikletiniz yarın sabah dokuzda hazır olacak; dükkanın önünde görüşürüz. Soru olursa buraya yazın, Ada.'
  await page.goto(`/record/${id}`)
  await page.getByLabel('Text to Lettered').fill(words)
  await expect(page.getByText(/^2 parts/)).toBeVisible()

  await rafe.goto('/set-up/lines')
  const turkish = rafe.getByRole('group', { name: /Portland line/ }).getByLabel('Turkish')
  const saved = () => rafe.waitForResponse(response => response.url().includes('/api/set-up/lines/') && response.ok())
  await Promise.all([saved(), turkish.check()])
  await page.reload()
  await expect(page.getByText('In Turkish letters: a part holds 155 characters instead of 70')).toBeVisible()
  await expect(page.getByText(/^1 part,/)).toBeVisible()
  await page.getByRole('button', { name: 'Send to Lettered now' }).click()
  await expect(page.getByText(/^Delivered/)).toBeVisible()
  expect(await textsOnHandset(page.request, number)).toMatchObject([{ text: words, parts: 1 }])
  await Promise.all([saved(), turkish.uncheck()])
})
