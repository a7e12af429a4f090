import { expect } from '@playwright/test'
import { freshNumber, makeLead, PRACTICE, signIn, slipWith, test, textsOnHandset, writeFromHandset, zoneWhereItIs } from './people'
import { phone } from './telephone'

test('at 1280x800 the name, the numbers, the composer and the newest three entries are on screen', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const found = await (await page.request.get('/api/find', { params: { words: 'iris holm' } })).json() as { id: string }[]
  await page.goto(`/record/${found[0]!.id}`)
  const entries = page.getByRole('region', { name: 'Timeline' }).locator('ol > li')
  for (const element of [
    page.getByRole('heading', { name: 'Iris Holm' }),
    page.getByText('+1 808 555 0142'),
    page.getByRole('button', { name: 'Send to Iris now' }),
    entries.nth(0),
    entries.nth(1),
    entries.nth(2),
  ]) {
    await expect(element).toBeInViewport({ ratio: 1 })
  }
})

test('a text can be taken back into the composer, and never leaves', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.goto(`/record/${await makeLead(page.request, 'Takeback', number)}`)
  await page.getByLabel('Text to Takeback').fill('Sent in a hurry')
  await page.getByRole('button', { name: 'Send to Takeback now' }).click()
  await page.getByRole('region', { name: 'Write a text' }).getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByLabel('Text to Takeback')).toHaveValue('Sent in a hurry')
  await expect(slipWith(page, 'Sent in a hurry')).toContainText('Taken back, never sent')
  expect(await textsOnHandset(page.request, number)).toEqual([])
})

test('the composer grows with what is written, and is small again without it', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto(`/record/${await makeLead(page.request, 'Grower', freshNumber())}`)
  const field = page.getByLabel('Text to Grower')
  const height = async () => (await field.boundingBox())!.height
  await expect(field).toBeVisible()
  const empty = await height()
  await field.fill(Array.from({ length: 8 }, (_, line) => `Line ${line}`).join('\n'))
  await expect.poll(height).toBeGreaterThan(2 * empty)
  await field.fill('')
  await expect.poll(height).toBe(empty)
})

test('an expired sign-in loses no draft', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto(`/record/${await makeLead(page.request, 'Expired', freshNumber())}`)
  await page.getByLabel('Text to Expired').fill('Written before the sign-in ended')
  await page.context().clearCookies()
  await page.keyboard.press('Control+Enter')
  const dialog = page.getByRole('dialog', { name: 'Your sign-in has ended' })
  await dialog.getByLabel('Mail address').fill('ada@pannier.example')
  await dialog.getByLabel('Password').fill('cargo-bikes-2026')
  await dialog.getByRole('button', { name: 'Sign in' }).click()
  await expect(dialog).toHaveCount(0)
  await page.reload()
  await expect(page.getByLabel('Text to Expired')).toHaveValue('Written before the sign-in ended')
  await page.getByRole('button', { name: 'Send to Expired now' }).click()
  await expect(slipWith(page, 'Written before the sign-in ended')).toContainText('Waits to leave')
})

test('their night is asked about first, with the time there', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto(`/record/${await makeLead(page.request, 'Sleepy', freshNumber(), { zone: zoneWhereItIs(3) })}`)
  await page.getByLabel('Text to Sleepy').fill('Are you awake?')
  await page.getByRole('button', { name: 'Send to Sleepy now' }).click()
  await expect(page.getByRole('alert')).toContainText(/It is 3:\d\d in/)
  await page.getByRole('button', { name: 'Keep it as a draft' }).click()
  await expect(page.getByLabel('Text to Sleepy')).toHaveValue('Are you awake?')
  await page.getByRole('button', { name: 'Send to Sleepy now' }).click()
  await page.getByRole('button', { name: 'Send it now anyway' }).click()
  await expect(slipWith(page, 'Are you awake?').getByText(/^Delivered/)).toBeVisible()
})

test('STOP closes every way out and says so; START opens them again', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.goto(`/record/${await makeLead(page.request, 'Stopper', number)}`)
  await expect(page.getByLabel('Text to Stopper')).toBeVisible()
  await writeFromHandset(page.request, number, 'Stop.', '+16125550104')
  await expect(page.getByText('Opted out by “Stop.” to Minneapolis line')).toBeVisible()
  await page.getByLabel('Text to Stopper').fill('One more thing')
  await expect(page.getByRole('button', { name: 'Send to Stopper now' })).toBeDisabled()
  await expect(page.getByText('no number to text')).toBeVisible()
  await expect.poll(async () => (await textsOnHandset(page.request, number)).map(text => text.direction)).toEqual(['out', 'in'])
  await writeFromHandset(page.request, number, 'START')
  await expect(page.getByText('Consent given by “START” to Portland line')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Send to Stopper now' })).toBeEnabled()
})

test('a wish in free words is proposed, and one click opts the number out', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.goto(`/record/${await makeLead(page.request, 'Wisher', number)}`)
  await writeFromHandset(page.request, number, 'please don’t text me again')
  const slip = slipWith(page, 'please don’t text me again')
  await expect(slip).toContainText('This reads like a wish to get no more texts.')
  await slip.getByRole('button', { name: 'Yes, opt this number out' }).click()
  await page.getByRole('button', { name: 'Opt this number out', exact: true }).click()
  await expect(page.getByText('Opted out as noted')).toBeVisible()
})

test('a phone that is off ends in "not delivered", with a reason and what to do', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.request.post(`${PRACTICE}/handsets/api/power`, { data: { phone: number, on: false } })
  await page.goto(`/record/${await makeLead(page.request, 'Offline', number)}`)
  await page.getByLabel('Text to Offline').fill('Are you there?')
  await page.getByRole('button', { name: 'Send to Offline now' }).click()
  const slip = slipWith(page, 'Are you there?')
  await expect(slip).toContainText(/Not delivered .*The telephone was off or out of reach for too long\. Try again later, or call\./)
  await slip.getByRole('button', { name: 'Write it again' }).click()
  await expect(page.getByLabel('Text to Offline')).toHaveValue('Are you there?')
})

test('a changed field and a note show live, a number that cannot be is kept with its reason', async ({ browser }) => {
  const [ada, mika] = await Promise.all([signIn(browser, 'ada'), signIn(browser, 'mika')])
  const id = await makeLead(ada.request, 'Changer', freshNumber())
  await Promise.all([ada.goto(`/record/${id}`), mika.goto(`/record/${id}`)])
  await expect(ada.getByRole('heading', { name: 'Changer' })).toBeVisible()
  await ada.keyboard.press('x')
  const form = ada.getByRole('dialog', { name: 'Change Changer Testaway' })
  await form.getByLabel('City').fill('Astoria')
  await form.getByRole('button', { name: 'Add a number' }).click()
  await form.getByLabel('Number 2', { exact: true }).fill('503 555 01')
  await expect(form.getByText('Digits are missing.')).toBeVisible()
  await form.getByRole('button', { name: 'Save the changes' }).click()
  for (const page of [ada, mika]) {
    await expect(page.getByText('Ada changed city, numbers')).toBeVisible()
    await expect(page.getByText('Kept as typed, not usable until it is whole.').first()).toBeVisible()
  }
  await mika.keyboard.press('n')
  await mika.getByLabel('Note for colleagues').fill('Ask for the side door')
  await mika.keyboard.press('Control+Enter')
  await expect(slipWith(ada, 'Ask for the side door')).toContainText('Mika noted')
})

test('beside every number one texts and calls it, and a call says over which line it went', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const [first, second] = [freshNumber(), freshNumber()]
  const phones = [first, second].map((typed, i) => ({ label: i ? 'work' : 'mobile', typed }))
  await page.goto(`/record/${await makeLead(page.request, 'Twofold', first, { phones })}`)
  await page.getByRole('button', { name: /^Text \+1/ }).last().click()
  await expect(page.getByLabel('Text to Twofold')).toBeFocused()
  await page.getByLabel('Text to Twofold').fill('To your second number')
  await page.getByRole('button', { name: 'Send to Twofold now' }).click()
  await expect.poll(async () => (await textsOnHandset(page.request, second)).length).toBe(1)
  await phone(page, second, 'manner', { manner: 'by-hand' })
  await page.getByRole('button', { name: /^Call \+1/ }).last().click()
  await page.keyboard.press('Alt+e')
  await expect(page.getByText(/^from .* line to /)).toBeVisible()
})

test('the cursor goes to the first field that is wrong', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.goto('/records/leads/new')
  await page.getByLabel('First name').fill('Wrongly')
  await page.getByLabel('Mail address').fill('nowhere')
  await page.getByRole('button', { name: /^Make/ }).click()
  await expect(page.getByLabel('Mail address')).toBeFocused()
  await expect(page.getByLabel('Mail address')).toHaveAttribute('aria-invalid', 'true')
})

test('a stale edit is told with both values', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  const id = await makeLead(ada.request, 'Stale', freshNumber())
  await ada.goto(`/record/${id}`)
  await expect(ada.getByRole('heading', { name: 'Stale' })).toBeVisible()
  await ada.keyboard.press('x')
  const form = ada.getByRole('dialog', { name: 'Change Stale Testaway' })
  await form.getByLabel('City').fill('Hilo')
  const mika = await signIn(browser, 'mika')
  const now = await (await mika.request.get(`/api/records/${id}`)).json() as { version: number, phones: object[] }
  expect((await mika.request.put(`/api/records/${id}`, { data: { ...now, city: 'Kona' } })).ok()).toBe(true)
  await form.getByRole('button', { name: 'Save the changes' }).click()
  await expect(form.getByRole('row', { name: 'City Kona Hilo' })).toBeVisible()
  await form.getByRole('button', { name: 'Save the changes' }).click()
  await expect(form).toHaveCount(0)
  await expect(ada.getByText('Astoria').or(ada.getByText('Hilo')).first()).toBeVisible()
})

test('a number on no record waits, is answered, and becomes a record with the whole conversation', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const number = freshNumber()
  await page.goto('/records/clients')
  await expect(page.getByRole('heading', { name: 'Clients' })).toBeVisible()
  await writeFromHandset(page.request, number, 'Saw your trike outside the library')
  const shown = `+1 ${number.slice(2, 5)} 555 ${number.slice(-4)}`
  await page.getByRole('button', { name: new RegExp(`${shown.replaceAll('+', '\\+')} waits`) }).click()
  await page.getByRole('textbox', { name: 'Answer' }).fill('That is us! Who are you?')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await writeFromHandset(page.request, number, 'Kalani, from the ice cream shop')
  await page.getByRole('button', { name: new RegExp(`${shown.replaceAll('+', '\\+')} waits`) }).click()
  await page.getByRole('link', { name: 'Make a record' }).click()
  await page.getByLabel('First name').fill('Kalani')
  await page.getByRole('button', { name: 'Make this lead' }).click()
  for (const words of ['Saw your trike outside the library', 'That is us! Who are you?', 'Kalani, from the ice cream shop'])
    await expect(slipWith(page, words)).toBeVisible()
  await expect(page.getByText('Answer Kalani')).toBeVisible()
})
