import { expect } from '@playwright/test'
import { DEMO_PASSWORD } from '../../demo/colleagues'
import { PRACTICE, signIn, slipWith, test, zoneWhereItIs } from './people'

test('a first text by keyboard alone, its answer, and a colleague who sees it all', async ({ browser, page }) => {
  const type = (words: string) => page.keyboard.type(words)
  const press = (...keys: string[]) => keys.reduce((before, key) => before.then(() => page.keyboard.press(key)), Promise.resolve())

  await test.step('sign in', async () => {
    await page.goto('/')
    await expect(page.getByLabel('Mail address')).toBeFocused()
    await type('ada@pannier.example')
    await press('Tab')
    await type(DEMO_PASSWORD)
    await press('Enter')
    await expect(page.getByText('What waits for you, Ada, the first thing first.')).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Due' })).toBeVisible()
    await press('g', 'l')
    await expect(page.getByRole('heading', { name: 'Leads' })).toBeVisible()
  })

  await test.step('make a lead with a number', async () => {
    await press('c')
    await expect(page.getByRole('heading', { name: 'New lead' })).toBeVisible()
    await page.getByLabel('First name').focus()
    await type('Lehua')
    await press('Tab')
    await type('Makoa')
    await press('Tab', 'Tab')
    await type('(458) 555-0199')
    await expect(page.getByText('+1 458 555 0199, mobile or landline, United States')).toBeVisible()
    await page.getByLabel('Time zone').focus()
    await type(zoneWhereItIs(12))
    await press('Enter')
    await expect(page.getByRole('heading', { name: 'Lehua Makoa' })).toBeVisible()
  })

  const mika = await signIn(browser, 'mika')
  await mika.goto(page.url())
  await expect(mika.getByText('Ada is here.')).toBeVisible()
  await expect(page.getByText('Mika is here.')).toBeVisible()

  await test.step('pick a template and send it', async () => {
    await press('e')
    await expect(page.getByRole('combobox', { name: 'Find a template' })).toBeFocused()
    await type('first word')
    await expect(page.getByRole('option')).toHaveCount(1)
    await press('Enter')
    await expect(page.getByLabel('Text to Lehua')).toHaveValue(
      'Hi Lehua, Ada from Pannier & Post. Thank you for asking about a trial week. When may I ring you this week?',
    )
    await expect(page.getByText('1 part, 106 characters, 0.8 ¢')).toBeVisible()
    await press('Control+Enter')
    await expect(page.getByText(/Leaves in \d s/)).toBeVisible()
  })

  const words = 'Hi Lehua, Ada from Pannier & Post.'
  for (const screen of [page, mika]) await expect(slipWith(screen, words).getByText(/^Delivered/)).toBeVisible()
  await expect(slipWith(mika, words)).toContainText('Template Trial week, first word (v3). 1 part. 0.8 ¢')

  await test.step('the other person answers', async () => {
    const handset = await (await browser.newContext()).newPage()
    await handset.goto(`${PRACTICE}/handsets?phone=%2B14585550199`)
    await expect(handset.getByRole('region', { name: 'The telephone' }).getByText(words)).toBeVisible()
    await handset.getByLabel('Text', { exact: true }).fill('Any day after 10 <b>works</b>')
    await handset.getByRole('button', { name: 'Send' }).click()
  })
  for (const screen of [page, mika]) await expect(slipWith(screen, 'Any day after 10 <b>works</b>')).toBeVisible()
  await expect(page.getByText('Answer Lehua')).toBeVisible()

  await test.step('it waits on the shelf, and is answered there without leaving the page', async () => {
    await mika.goto('/templates')
    await expect(mika.getByRole('button', { name: /Lehua Makoa waits/ })).toBeVisible()
    await mika.getByRole('button', { name: /Lehua Makoa waits/ }).click()
    await expect(mika.getByRole('dialog', { name: 'Conversation with Lehua Makoa' })).toContainText('Any day after 10 <b>works</b>')
    await mika.getByRole('textbox', { name: 'Answer' }).fill('Then Ada calls tomorrow at 10:30. Mika')
    await mika.getByRole('button', { name: 'Answer, and back' }).click()
    await expect(mika.getByRole('dialog')).toHaveCount(0)
    await expect(mika).toHaveURL(/templates/)
    await expect(mika.getByRole('button', { name: /Lehua Makoa waits/ })).toHaveCount(0)
  })
  await expect(slipWith(page, 'Then Ada calls tomorrow').getByText(/^Delivered/)).toBeVisible()
  await expect(page.getByText('Answer Lehua')).toHaveCount(0)
})
