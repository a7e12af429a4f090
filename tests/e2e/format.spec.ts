import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test } from './people'

test('who reads times by twelve hours and the month first gets them so everywhere, and types them so', async ({ browser }) => {
  const page = await signIn(browser, 'noor')
  await page.goto('/format')
  const header = page.getByRole('banner')
  await expect(header.getByRole('button', { name: /^Noor Farouk, \d{1,2}:\d\d$/ })).toBeVisible()
  await page.getByLabel('3:30 pm').check()
  await page.getByLabel('Thursday, December 3').check()
  await expect(header.getByRole('button', { name: /^Noor Farouk, \d{1,2}:\d\d [ap]m$/ })).toBeVisible()
  await expect(page.getByText(/Now it is \d{1,2}:\d\d [ap]m on \w+, \w+ \d{1,2}, 20\d\d\./)).toBeVisible()
  await expectAccessible(page)

  await page.goto(`/record/${await makeLead(page.request, 'Twelve', freshNumber(), { module: 'candidate' })}`)
  await page.getByLabel('Text to Twelve').fill('Hi Twelve, Noor here.')
  await page.getByRole('button', { name: 'Later' }).click()
  const later = page.getByRole('form', { name: 'Send later' })
  await later.getByLabel('Day', { exact: true }).fill('mar 1 2027')
  await later.getByLabel('Time', { exact: true }).fill('430p')
  await expect(later.getByRole('button', { name: /^Send at 4:30 pm .* on Mon, Mar 1, 2027$/ })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(later.getByLabel('Time', { exact: true })).toHaveValue('4:30 pm')
  await expect(later.getByLabel('Day', { exact: true })).toHaveValue('Mon, Mar 1, 2027')

  // what cannot be read is said at the field and stays as it was typed
  await later.getByLabel('Day', { exact: true }).fill('Marchtember 1')
  await page.keyboard.press('Tab')
  await expect(later.getByText(/^“Marchtember 1” is not a day\. Write one such as /)).toBeVisible()
  await expect(later.getByLabel('Day', { exact: true })).toHaveValue('Marchtember 1')
  await expect(later.getByRole('button', { name: 'Choose a day and a time' })).toBeDisabled()

  // by the arrow down a calendar opens, which is read and left by keys
  await later.getByLabel('Day', { exact: true }).fill('3/1/2027')
  await page.keyboard.press('ArrowDown')
  await expect(page.locator('.p-datepicker-day-selected')).toBeFocused()
  await expectAccessible(page)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(later.getByLabel('Day', { exact: true })).toBeFocused()
  await expect(later.getByLabel('Day', { exact: true })).toHaveValue('Tue, Mar 2, 2027')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Escape')
  await expect(later.getByLabel('Day', { exact: true })).toBeFocused()
  await page.getByLabel('Text to Twelve').fill('')
  await page.request.put('/api/me/format', { data: { hours: 24, dayFirst: true } })
})

test('who has chosen nothing reads times as the browser’s language has them', async ({ browser }) => {
  const page = await signIn(browser, 'noor', { locale: 'de-DE' })
  await page.request.put('/api/me/format', { data: { hours: null, dayFirst: null } })
  await page.goto('/format')
  await expect(page.getByText(/Now it is \d{1,2}:\d\d on \w+ \d{1,2} \w+ 20\d\d\./)).toBeVisible()
  const american = await signIn(browser, 'noor', { locale: 'en-US' })
  await american.goto('/format')
  await expect(american.getByText(/Now it is \d{1,2}:\d\d [ap]m on \w+, \w+ \d{1,2}, 20\d\d\./)).toBeVisible()
  await page.request.put('/api/me/format', { data: { hours: 24, dayFirst: true } })
})
