import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test } from './people'

test('an admin makes a field, a rep fills it in, finds by it and texts with it', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/fields')
  const label = `Cargo ${Date.now() % 100_000}`
  await expect(rafe.getByRole('row', { name: /Source/ })).toBeVisible()
  await rafe.keyboard.press('c')
  await rafe.getByLabel('Name', { exact: true }).fill('First name')
  await rafe.getByRole('button', { name: 'Save the field' }).click()
  await expect(rafe.getByText('There is a field “First name” already. Give this one another name.')).toBeVisible()
  await rafe.getByLabel('Name', { exact: true }).fill(label)
  await rafe.getByRole('combobox', { name: 'What it holds' }).click()
  await rafe.getByRole('option', { name: 'One of several' }).click()
  await rafe.getByLabel('To choose from, one a line').fill('bread\nparcels')
  await rafe.getByRole('button', { name: 'Save the field' }).click()
  await expect(rafe.getByRole('row', { name: new RegExp(label) })).toContainText(`person.${label.toLowerCase().replace(' ', '_')}`)
  await rafe.getByRole('button', { name: `${label} further up` }).click()
  await expect(rafe.locator('tbody tr').nth(-2)).toContainText(label)

  const ada = await signIn(browser, 'ada')
  const id = await makeLead(ada.request, 'Fielded', freshNumber())
  await ada.goto(`/record/${id}`)
  await ada.getByRole('button', { name: /Change this record/ }).click()
  await ada.getByRole('combobox', { name: label }).click()
  await ada.getByRole('option', { name: 'bread' }).click()
  await ada.getByRole('button', { name: 'Save the changes' }).click()
  await expect(ada.getByRole('definition').filter({ hasText: 'bread' })).toBeVisible()

  await ada.goto('/records/leads')
  await ada.getByRole('button', { name: 'Add a condition' }).click()
  await ada.getByRole('combobox', { name: 'Field' }).click()
  await ada.getByRole('option', { name: label }).click()
  await ada.getByLabel('bread', { exact: true }).check()
  await ada.getByRole('button', { name: 'Add this condition' }).click()
  await expect(ada.locator('tbody a.open')).toHaveText([/Fielded/])

  await rafe.getByRole('button', { name: `Retire ${label}` }).click()
  await expect(rafe.getByRole('button', { name: `Take up ${label} again` })).toBeVisible()
})

test('set-up is for admins, and axe finds nothing on it', async ({ browser }) => {
  const ada = await signIn(browser, 'ada')
  await ada.goto('/set-up/fields')
  await expect(ada.getByText('What waits for you, Ada, the first thing first.')).toBeVisible()
  await expect(ada.getByRole('link', { name: 'Set-up' })).toBeHidden()
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/lines')
  await expect(rafe.getByRole('group', { name: /Portland line/ })).toBeVisible()
  await expectAccessible(rafe)
  await rafe.goto('/set-up/fields')
  await expect(rafe.getByRole('row', { name: /Source/ })).toBeVisible()
  await expectAccessible(rafe)
})
