import { expect, type Page } from '@playwright/test'
import type { MoneyFront } from '../../shared/money'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test, zoneWhereItIs } from './people'

const left = async (page: Page) => Number((await page.locator('dd.large').innerText()).replace(/[^\d.]/g, ''))

test('an admin adds to the balance: what is no amount is said at the field, and the ledger has it', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/money')
  const before = await left(rafe)
  const amount = rafe.getByLabel('Paid to the carrier, USD')
  await amount.fill('1,000')
  await rafe.getByLabel('How, for the ledger').fill('Card, a test')
  await rafe.getByRole('button', { name: 'Add it to the balance' }).click()
  await expect(rafe.getByText('Write an amount, such as 50 or 12.50.')).toBeVisible()
  await expect(amount).toBeFocused()
  await expect(rafe.getByLabel('How, for the ledger')).toHaveValue('Card, a test')
  await amount.fill('12.50')
  await rafe.getByRole('button', { name: 'Add it to the balance' }).click()
  await expect(rafe.getByText('$12.50 added.')).toBeVisible()
  expect(await left(rafe)).toBeCloseTo(before + 12.5, 1)
  await expect(rafe.getByText('Paid in: Card, a test')).toBeVisible()
  await expectAccessible(rafe)

  // what it went for, another way
  await rafe.getByLabel('By', { exact: true }).selectOption('colleague')
  await expect(rafe.getByRole('rowheader', { name: 'Ada Lund' })).toBeVisible()
  await rafe.getByLabel('Show').selectOption('what was paid in')
  await expect(rafe.getByText('Text from Portland line').first()).toBeHidden()
  await expect(rafe.getByText('Paid in: Card, a test')).toBeVisible()
})

test('a rep who may spend no more asks the admins in one press, hears when one has seen to it, and sends what they wrote', async ({ browser }) => {
  const [mika, rafe] = [await signIn(browser, 'mika'), await signIn(browser, 'rafe')]
  await rafe.goto('/set-up/money')
  await rafe.getByLabel('For whom').selectOption('Mika Sand')
  await rafe.getByLabel('At most').fill('5.00')
  await rafe.getByRole('button', { name: 'Set the limit' }).click()
  await expect(rafe.getByText('$5 a day')).toBeVisible()
  // whatever she has sent before in this world: one more goes
  const { limits: [limit] } = await (await rafe.request.get('/api/set-up/money')).json() as MoneyFront
  const tight = await rafe.request.post('/api/set-up/money/limits', {
    data: { ...limit!.whose, id: limit!.id, period: 'day', currency: 'USD', micros: limit!.spentMicros + 10_000 },
  })
  expect(tight.ok()).toBe(true)

  const id = await makeLead(mika.request, 'Orla', freshNumber(), { zone: zoneWhereItIs(12) })
  await mika.goto(`/record/${id}`)
  const write = async (words: string) => {
    await mika.getByLabel('Text to Orla').fill(words)
    await mika.getByRole('button', { name: 'Send to Orla now' }).click()
  }
  await write('Your test ride is on Friday. Mika')
  await expect(mika.getByRole('listitem').filter({ hasText: 'Your test ride is on Friday' })).toBeVisible()
  await write('And bring a helmet. Mika')
  await expect(mika.getByText(/You may spend .+ a day on texts/)).toBeVisible()
  await expectAccessible(mika)
  await mika.getByRole('button', { name: 'Ask the admins' }).click()
  await expect(mika.getByText('The admins have been asked.')).toBeVisible()

  // it is with the admin at once, wherever they are
  await expect(rafe.getByRole('link', { name: /Set-up \d+ waiting/ })).toBeVisible()
  await expect(rafe.getByRole('heading', { name: 'Wait for money' })).toBeVisible()
  await expect(rafe.getByRole('listitem').filter({ hasText: 'Mika Sand' }).filter({ hasText: 'You may spend' })).toBeVisible()
  await rafe.getByRole('button', { name: 'Remove the limit of Mika Sand, a day' }).click()
  await expect(rafe.getByRole('heading', { name: 'Wait for money' })).toBeHidden()
  await expect(rafe.getByText('Nobody has a limit.')).toBeVisible()

  await mika.getByRole('button', { name: 'Send it now' }).click()
  await expect(mika.getByRole('listitem').filter({ hasText: 'And bring a helmet' })).toBeVisible()
  await expect(mika.getByLabel('Text to Orla')).toHaveValue('')
})
