import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { PRACTICE, signIn, test } from './people'

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(`axe finds nothing, ${colorScheme}`, () => {
    test.use({ colorScheme })

    test('on the sign-in', async ({ page }) => {
      await page.goto('/sign-in')
      await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible()
      await expectAccessible(page)
    })

    for (const [what, path, sign] of [
      ['a list', '/records/leads', 'Iris Holm'],
      ['the templates', '/templates', 'What would be sent'],
      ['a new record', '/records/leads/new', 'Make this lead'],
      ['the drafts', '/drafts', 'Nothing is begun.'],
    ] as const) {
      test(`on ${what}`, async ({ browser }) => {
        const page = await signIn(browser, 'odile')
        await page.emulateMedia({ colorScheme })
        await page.goto(path)
        await expect(page.getByText(sign).first()).toBeVisible()
        await expectAccessible(page)
      })
    }

    test('on the pipelines of Set-up, and a pipeline being changed', async ({ browser }) => {
      const page = await signIn(browser, 'rafe')
      await page.emulateMedia({ colorScheme })
      await page.goto('/set-up/pipelines')
      await expect(page.getByText('First word')).toBeVisible()
      await expectAccessible(page)
      await page.getByRole('button', { name: 'Change New fleets' }).click()
      await expect(page.getByRole('button', { name: 'Save the pipeline' })).toBeVisible()
      await expectAccessible(page)
    })

    test('on a template: over everybody, its versions, a field being chosen, a pill and a blank', async ({ browser }) => {
      const page = await signIn(browser, 'odile')
      await page.emulateMedia({ colorScheme })
      await page.goto('/templates')
      await page.getByRole('button', { name: /Sorry I missed you/ }).click()
      await page.getByRole('button', { name: 'On everybody' }).click()
      await expect(page.getByText(/people counted/)).toBeVisible()
      await expectAccessible(page)
      await page.getByRole('button', { name: 'Versions' }).click()
      await expect(page.getByText(/answered within three days/).first()).toBeVisible()
      await expectAccessible(page)
      await page.getByRole('button', { name: 'One more blank' }).click()
      await page.locator('.field-pill').first().click()
      await expect(page.getByLabel('where it is empty')).toBeVisible()
      await expectAccessible(page)
      await page.getByRole('textbox', { name: 'Text', exact: true }).focus()
      await page.keyboard.press('End')
      await page.keyboard.type('{{')
      await expect(page.getByRole('listbox', { name: 'Fields' })).toBeVisible()
      await expectAccessible(page)
    })

    test('on a record, with a template being chosen, and with the shelf open', async ({ browser }) => {
      const page = await signIn(browser, 'odile')
      await page.emulateMedia({ colorScheme })
      const found = await (await page.request.get('/api/find', { params: { words: 'iris holm' } })).json() as { id: string }[]
      await page.goto(`/record/${found[0]!.id}`)
      await expect(page.getByText('Perfect. Could we make it Thursday?')).toBeVisible()
      await expectAccessible(page)
      await page.keyboard.press('e')
      await expect(page.getByRole('option').first()).toBeVisible()
      await expectAccessible(page)
      await page.keyboard.press('Escape')
      await page.locator('#text').fill('Hi Iris, see https:// pannier.example')
      await page.getByRole('button', { name: 'Later' }).click()
      await expect(page.getByRole('form', { name: 'Send later' })).toBeVisible()
      await expectAccessible(page)
      await page.locator('#text').fill('')
      // whoever waits, and does not knock
      await page.getByRole('region', { name: 'Shelf' }).locator('.items').getByRole('button').first().click()
      await expect(page.getByRole('button', { name: 'Answer, and back' })).toBeVisible()
      await expectAccessible(page)
    })
  })
}

test('axe finds nothing on the handsets', async ({ page }) => {
  await page.goto(`${PRACTICE}/handsets?phone=%2B18085550142`)
  await expect(page.getByRole('heading', { name: 'Iris Holm' })).toBeVisible()
  await expectAccessible(page)
})

test('the record page works at a phone\'s width', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  await page.setViewportSize({ width: 390, height: 844 })
  const found = await (await page.request.get('/api/find', { params: { words: 'iris holm' } })).json() as { id: string }[]
  await page.goto(`/record/${found[0]!.id}`)
  await expect(page.getByRole('button', { name: 'Send to Iris now' })).toBeInViewport()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
