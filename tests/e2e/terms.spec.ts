import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test } from './people'

test('terms that change are read before the next text, which waits where it was written', async ({ browser }) => {
  const [ada, rafe] = [await signIn(browser, 'ada'), await signIn(browser, 'rafe')]
  const id = await makeLead(ada.request, 'Peregrine', freshNumber())
  await ada.goto(`/record/${id}`)
  await ada.getByLabel('Text to Peregrine').fill('Your bike is ready. Ada')

  await rafe.goto('/set-up/texting')
  await expect(rafe.getByText('Texting is switched on.')).toBeVisible()
  const readBy = (name: string) => rafe.getByRole('listitem').filter({ hasText: name })
  await expect(readBy('Ada Lund')).not.toContainText('version')
  const words = rafe.getByLabel('Terms of use, version 1')
  await words.fill(`${await words.inputValue()}\n\nNobody is texted on a holiday.`)
  await rafe.getByRole('button', { name: 'Save as a new version' }).click()
  await expect(readBy('Ada Lund')).toContainText('version 1')
  await expect(readBy('Rafe Pennington')).not.toContainText('version')
  await expectAccessible(rafe)

  // it is said at once, wherever one is, and again where one sends
  await expect(ada.getByText('Before you text:')).toBeVisible()
  await ada.getByRole('button', { name: 'Send to Peregrine now' }).click()
  await expect(ada.getByText(/The terms of use have been written, or have changed/)).toBeVisible()
  await ada.getByRole('region', { name: 'Write a text' }).getByRole('link', { name: 'Read the terms of use' }).click()
  await expect(ada.getByText('Nobody is texted on a holiday.')).toBeVisible()
  await expectAccessible(ada)
  await ada.getByRole('button', { name: 'I have read it, and keep to it' }).click()
  await expect(ada.getByLabel('Text to Peregrine')).toHaveValue('Your bike is ready. Ada')
  await expect(ada.getByText('Before you text:')).toBeHidden()
  await ada.getByRole('button', { name: 'Send to Peregrine now' }).click()
  await expect(ada.getByRole('listitem').filter({ hasText: 'Your bike is ready. Ada' })).toBeVisible()
  await expect(readBy('Ada Lund')).not.toContainText('version')

  // others in this world go on texting
  for (const who of ['mika', 'noor', 'odile'] as const) {
    const { request } = await signIn(browser, who)
    expect((await request.post('/api/terms/accept', { data: { version: 2 } })).ok()).toBe(true)
  }
  await expect(readBy('Odile Marchetti')).not.toContainText('version')
})
