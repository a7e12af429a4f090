import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { signIn, test } from './people'

test('somebody from outside is let in to help: sets lines, carriers and fields up, and gets to nobody', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/people')
  await rafe.getByRole('button', { name: 'Invite a colleague' }).click()
  const dialog = rafe.getByRole('dialog')
  await dialog.getByLabel('Name', { exact: true }).fill('Ines Duarte')
  await dialog.getByLabel('Mail address').fill('ines@outside.example')
  await dialog.getByRole('radio', { name: 'Helper from outside' }).check()
  await expect(dialog.getByText('In which teams')).toBeHidden()
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  await expect(dialog.getByText('Say until when they help.')).toBeVisible()
  await dialog.getByRole('textbox', { name: 'Until and including' }).fill('tomorrow')
  await expectAccessible(rafe)
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  const link = new URL(await dialog.getByRole('textbox', { name: 'The link' }).inputValue())

  const ines = await (await browser.newContext()).newPage()
  await ines.goto(link.pathname + link.hash)
  await ines.getByLabel(/^Password/).fill('four words of my own')
  await ines.getByRole('button', { name: 'Join' }).click()
  // wherever she goes she is where she helps
  await expect(ines).toHaveURL(/\/set-up$/)
  await expect(ines.getByRole('navigation', { name: 'Places' }).getByRole('link')).toHaveCount(2)
  await expect(ines.getByRole('navigation', { name: 'Set-up' }).getByRole('link')).toHaveText(['Overview', 'Custom fields', 'Lines', 'Carriers', 'Papers'])
  await expectAccessible(ines)
  for (const away of ['/', '/records/leads', '/inbox', '/set-up/people', '/templates']) {
    await ines.goto(away)
    await expect(ines).toHaveURL(/\/set-up$/)
  }
  expect((await ines.request.get('/api/records?module=lead&sort=name&direction=up')).status()).toBe(403)
  await ines.getByRole('link', { name: 'Custom fields', exact: true }).click()
  await expect(ines.getByRole('heading', { name: 'Custom fields' })).toBeVisible()
  // what is written there is not lost without a word either
  await ines.goto('/set-up/papers')
  await ines.getByLabel('Website').fill('https://pannier.example/texts')
  await ines.getByRole('link', { name: 'Lines', exact: true }).click()
  await ines.getByRole('dialog').getByRole('button', { name: 'Leave it' }).click()
  await expect(ines.getByText('Portland line').first()).toBeVisible()

  // ended at once: nothing of what was open goes on
  await rafe.reload()
  await rafe.getByRole('button', { name: 'Ines Duarte leaves' }).click()
  await dialog.getByRole('button', { name: 'Let Ines Duarte go' }).click()
  await expect(dialog).toBeHidden()
  await ines.getByRole('link', { name: 'Carriers' }).click()
  await expect(ines.getByText('Your sign-in has ended')).toBeVisible()
})

test('one colleague may more than others in their role, until they are as others again', async ({ browser }) => {
  const noor = await signIn(browser, 'noor')
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/rights')
  await rafe.getByLabel('Who', { exact: true }).selectOption('Noor Farouk')
  await rafe.getByLabel('May', { exact: true }).selectOption('Write templates')
  await rafe.getByLabel('With whose things').selectOption('all of the firm')
  await rafe.getByRole('button', { name: 'Set it for them' }).click()
  const own = rafe.getByRole('listitem').filter({ hasText: 'Noor Farouk' })
  await expect(own).toContainText('Write templates: all of the firm')
  await expectAccessible(rafe)
  const me = async () => (await (await noor.request.get('/api/me')).json()).rights['template.edit']
  expect(await me()).toBe('all')
  await own.getByRole('button', { name: /again as others/ }).click()
  await expect(own).toHaveCount(0)
  expect(await me()).toBe('own')
})
