import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { signIn, test } from './people'

test('the audit log says who did what, is narrowed, opened, and taken out as a file', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  const rules = await (await rafe.request.get('/api/set-up/rules')).json() as object
  expect((await rafe.request.put('/api/set-up/rules', { data: { ...rules, hotTags: ['hot', 'audited'] } })).ok()).toBe(true)
  expect((await rafe.request.put('/api/set-up/rules', { data: rules })).ok()).toBe(true)

  await rafe.goto('/set-up/audit')
  const changes = rafe.getByRole('listitem').filter({ hasText: 'Rafe Pennington changed the house rules' })
  await expect(changes.nth(1)).toBeVisible()
  await expect(rafe.getByRole('listitem').filter({ hasText: 'Rafe Pennington signed in' }).first()).toBeVisible()
  await rafe.getByLabel('About').selectOption('set-up')
  await expect(rafe.getByRole('listitem').filter({ hasText: 'signed in' })).toHaveCount(0)
  await rafe.getByLabel('With these words').fill('audited')
  await expect(changes).toHaveCount(2)
  await changes.last().getByText('Details').click()
  await expect(changes.last().getByText('hot → hot, audited')).toBeVisible()
  await expectAccessible(rafe)

  const [file] = await Promise.all([rafe.waitForEvent('download'), rafe.getByRole('link', { name: 'As a file' }).click()])
  expect(file.suggestedFilename()).toMatch(/^audit-\d{4}-\d\d-\d\d\.csv$/)

  await rafe.getByLabel('With these words').fill('nobody wrote this')
  await expect(rafe.getByText('Nothing like that stands in it.')).toBeVisible()

  const odile = await signIn(browser, 'odile')
  await odile.goto('/set-up/audit')
  await expect(odile).toHaveURL(/\/$/)
})
