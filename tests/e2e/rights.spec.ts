import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { signIn, test } from './people'

test('a right is taken from reps and given back: it holds from their next click', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  await ada.goto('/records/leads')
  await expect(ada.getByRole('button', { name: 'Export' })).toBeVisible()

  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/rights')
  const takeOut = rafe.getByRole('combobox', { name: 'Take records out: Reps' })
  await expect(takeOut).toHaveValue('own')
  await expectAccessible(rafe)
  // nobody takes out what they do not see, and the choice stands where it was
  await takeOut.selectOption('all of the firm')
  await expect(rafe.getByText('They would not see as far. Widen what they see first.')).toBeVisible()
  await expect(takeOut).toHaveValue('own')
  await takeOut.selectOption('no')
  await expect(rafe.getByText('usually their own')).toBeVisible()

  await ada.reload()
  await expect(ada.getByRole('button', { name: 'Text in bulk' })).toBeVisible()
  await expect(ada.getByRole('button', { name: 'Export' })).toBeHidden()
  const answer = await ada.request.get('/api/records/export?module=lead&sort=made&direction=up&columns=name&format=csv')
  expect(answer.status()).toBe(403)

  await takeOut.selectOption('their own')
  await expect(rafe.getByText('usually their own')).toBeHidden()
  await ada.reload()
  await expect(ada.getByRole('button', { name: 'Export' })).toBeVisible()
})
