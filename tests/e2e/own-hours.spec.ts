import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { makeLead, signIn, slipWith, test, zoneWhereItIs } from './people'

/** Of a state that no other test's people live in. */
const NUMBER = '+19195550177'

test('an admin holds to stricter hours in a state; a rep meets them at the composer, and may say now', async ({ browser }) => {
  const [rafe, ada] = [await signIn(browser, 'rafe'), await signIn(browser, 'ada')]
  await rafe.goto('/set-up/hours')
  await expect(rafe.getByText('CRTC Unsolicited Telecommunications Rules')).toBeVisible()
  await expectAccessible(rafe)

  await rafe.getByLabel('Stricter hours somewhere else').selectOption('United States: North Carolina')
  await rafe.getByRole('button', { name: 'Write them' }).click()
  const form = rafe.getByRole('form', { name: 'Hours of North Carolina' })
  await form.getByLabel('Saturday, from').selectOption('20:00')
  await form.getByLabel('Saturday, to').selectOption('9:00')
  await form.getByRole('button', { name: 'Hold to these hours' }).click()
  await expect(form.getByText('They end before they begin.')).toBeVisible()
  await expectAccessible(rafe)
  for (const days of ['Monday to Friday', 'Saturday', 'Sunday']) await form.getByLabel(days, { exact: true }).uncheck()
  await form.getByRole('button', { name: 'Hold to these hours' }).click()
  await expect(form).toHaveCount(0)
  const place = rafe.getByRole('listitem').filter({ hasText: 'North Carolina' })
  await expect(place.getByText('not at all', { exact: true })).toBeVisible()
  await expect(place.getByText('Rafe Pennington, a moment ago')).toBeVisible()

  const record = await makeLead(ada.request, 'Wren', NUMBER, { zone: zoneWhereItIs(12) })
  await ada.goto(`/record/${record}`)
  await ada.locator('#text').fill('Hello from Portland.')
  await ada.keyboard.press('Control+Enter')
  await expect(ada.getByText('That is outside of the hours in which people there are reached.')).toBeVisible()
  await ada.getByRole('button', { name: 'Send it now anyway' }).click()
  await expect(slipWith(ada, 'Hello from Portland.')).toBeVisible()

  await place.getByRole('button', { name: 'Remove the hours of North Carolina' }).click()
  await expect(place).toHaveCount(0)
})

test('days on which nobody is reached are put in, kept through a reload, and taken out', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/hours')
  const add = rafe.getByRole('button', { name: 'Nobody is reached on it' })
  await add.click()
  await expect(rafe.getByText('Choose a day.')).toBeVisible()
  await rafe.getByLabel('Another day').fill('2027-02-19')
  await rafe.getByLabel('What day it is').fill('Møllers jubileum')
  await rafe.getByLabel('Where', { exact: true }).selectOption('Norway')
  await add.click()
  await expect(rafe.getByText('Møllers jubileum')).toBeVisible()
  const holidays = rafe.getByRole('checkbox', { name: 'Nobody is reached on public holidays in United Kingdom' })
  const was = await holidays.isChecked()
  const kept = rafe.waitForResponse(response => response.url().endsWith('/holidays/GB'))
  await holidays.click()
  await kept
  await rafe.reload()
  await expect(holidays).toBeChecked({ checked: !was })
  await expect(rafe.getByText('Møllers jubileum')).toBeVisible()
  await rafe.getByRole('button', { name: 'Remove Møllers jubileum' }).click()
  await expect(rafe.getByText('Møllers jubileum')).toHaveCount(0)
  await holidays.click()
  await expect(holidays).toBeChecked({ checked: was })
})
