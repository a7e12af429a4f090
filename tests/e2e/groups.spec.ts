import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, leadsNamed, makeLead, signIn, test, textsOnHandset, writeFromHandset } from './people'

const people = (page: Page) => page.getByRole('main').getByRole('row')

/** Makes a group by hand by the keys, and is on its page then. */
async function makeGroup(page: Page, name: string): Promise<void> {
  await page.goto('/groups')
  await expect(page.getByRole('heading', { name: 'Groups' })).toBeVisible()
  await page.keyboard.press('c')
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused()
  await page.keyboard.type(name)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible()
}

test('a group by hand: filled from a list, a page and itself, texted as a whole, and what comes back is in its feed', async ({ browser }) => {
  const [page, mika] = [await signIn(browser, 'ada'), await signIn(browser, 'mika')]
  const numbers = Array.from({ length: 3 }, freshNumber)
  const made = []
  for (const [i, number] of numbers.entries()) made.push(await makeLead(page.request, ['Aurelio', 'Brynja', 'Cosima'][i]!, number, { lastName: 'Grouped' }))
  await makeGroup(page, 'Hill riders')
  await expectAccessible(page)
  await expect(page.getByText('Nobody whom you see is in it yet.')).toBeVisible()
  await mika.goto('/groups')
  await mika.getByRole('link', { name: 'Hill riders' }).click()

  // two from a list, at once
  await leadsNamed(page, 'Grouped', 3)
  for (const name of ['Aurelio Grouped', 'Brynja Grouped']) await page.getByRole('checkbox', { name: `Choose ${name}` }).check()
  await page.getByRole('button', { name: 'Put into a group' }).click()
  await page.getByRole('combobox', { name: 'Put into a group' }).click()
  await page.getByRole('option', { name: 'Hill riders' }).click()
  await page.getByRole('button', { name: 'Change 2 leads' }).click()
  await expect(page.getByText('2 leads changed.')).toBeVisible()
  // a colleague who has it open sees them come
  await expect(people(mika)).toHaveCount(3)

  // the third from her page
  await page.getByRole('link', { name: 'Cosima Grouped' }).click()
  await page.getByRole('button', { name: 'Put into a group' }).click()
  await page.getByRole('combobox', { name: 'The group to put it into' }).click()
  await page.getByRole('option', { name: 'Hill riders' }).click()
  await expect(page.getByRole('link', { name: 'Hill riders' })).toBeVisible()
  await expect(page.getByText('put Cosima into the group Hill riders')).toBeVisible()
  await expectAccessible(page)

  // one goes and comes back on the group's own page
  await page.getByRole('link', { name: 'Hill riders' }).click()
  await expect(page.getByText('3 people, by hand')).toBeVisible()
  await page.getByRole('button', { name: 'Take Brynja Grouped out' }).click()
  await expect(page.getByText('Brynja Grouped is out.')).toBeVisible()
  await expect(page.getByText('2 people, by hand')).toBeVisible()
  await page.getByRole('button', { name: 'Put back' }).click()
  await expect(page.getByText('3 people, by hand')).toBeVisible()

  // texted as a whole
  await page.keyboard.press('r')
  await page.keyboard.press('t')
  await expect(page.getByLabel('Name, for you and your colleagues')).toHaveValue(/^Hill riders, /)
  await page.getByRole('textbox', { name: 'Text', exact: true }).click()
  await page.keyboard.type('The hill waits for you on Saturday. Ada, Pannier & Post')
  await page.keyboard.press('Control+Enter')
  await page.getByRole('button', { name: 'Send 3 texts now' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'sent' })).toContainText('3 of 3 sent, done', { timeout: 20_000 })
  for (const number of numbers) expect(await textsOnHandset(page.request, number)).toHaveLength(1)
  await writeFromHandset(page.request, numbers[1]!, 'I bring my brakes')
  await page.goto('/groups')
  await page.getByRole('link', { name: 'Hill riders' }).click()
  const feed = page.getByRole('region', { name: 'Sent and come back' })
  await expect(feed.getByText('I bring my brakes')).toBeVisible()
  await expect(feed.getByText('to 3 people, 1 answered')).toBeVisible()
  await expectAccessible(page)
  // the answer leads to where it stands
  await feed.getByRole('link', { name: 'Brynja Grouped' }).click()
  await expect(page).toHaveURL(new RegExp(`/record/${made[1]!}`))
  await expect(page.getByRole('main').getByText('I bring my brakes').first()).toBeVisible()
})

test('a group by a rule, made of a list’s conditions, holds whoever it asks for from then on', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  const first = await makeLead(page.request, 'Dagny', freshNumber(), { lastName: 'Ruled', city: 'Saint-Louis-du-Ha! Ha!' })
  const where = JSON.stringify({ match: 'all', of: [{ field: 'city', test: 'is', value: 'Saint-Louis-du-Ha! Ha!' }] })
  await page.goto(`/records/leads?where=${encodeURIComponent(where)}`)
  await page.getByRole('link', { name: 'Make it a group' }).click()
  await expect(page.getByRole('button', { name: 'city is “Saint-Louis-du-Ha! Ha!”', exact: true })).toBeVisible()
  await page.getByLabel('Name', { exact: true }).fill('From the lake')
  await page.getByRole('button', { name: 'Make the group' }).click()
  await expect(page.getByText('1 person, leads by a rule')).toBeVisible()
  await expect(page.getByText('Leads whose city is “Saint-Louis-du-Ha! Ha!”.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Take .* out$/ })).toHaveCount(0)
  // somebody whom it asks for comes by themselves
  await makeLead(page.request, 'Ebbe', freshNumber(), { lastName: 'Ruled', city: 'Saint-Louis-du-Ha! Ha!' })
  await expect(page.getByText('2 people, leads by a rule')).toBeVisible()
  // and it is a condition of lists in its turn
  const inIt = JSON.stringify({ match: 'all', of: [{ field: 'groups', test: 'one-of', value: [page.url().split('/').at(-1)] }] })
  await page.goto(`/records/leads?where=${encodeURIComponent(inIt)}&columns=name,groups`)
  await expect(page.getByRole('button', { name: 'groups is From the lake', exact: true })).toBeVisible()
  await expect(page.getByRole('cell', { name: 'From the lake' })).toHaveCount(2)
  await page.goto(`/record/${first}`)
  await expect(page.getByRole('link', { name: 'From the lake' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take out of From the lake' })).toHaveCount(0)
})

test('a group that a lead removes is gone for whoever has it open, and for the lists that asked for it', async ({ browser }) => {
  const [page, odile] = [await signIn(browser, 'ada'), await signIn(browser, 'odile')]
  await makeGroup(page, 'دراجون')
  const id = page.url().split('/').at(-1)!
  await odile.goto(`/groups/${id}`)
  await odile.getByRole('button', { name: 'Remove', exact: true }).click()
  await odile.getByRole('button', { name: 'Remove it' }).click()
  await expect(odile).toHaveURL(/groups$/)
  await expect(page.getByText('This group has been removed.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Text them/ })).toHaveCount(0)
  const inIt = JSON.stringify({ match: 'all', of: [{ field: 'groups', test: 'one-of', value: [id] }] })
  await page.goto(`/records/leads?where=${encodeURIComponent(inIt)}`)
  await expect(page.getByRole('button', { name: 'groups is one that is gone', exact: true })).toBeVisible()
  await expect(page.getByText('None of the leads is so.')).toBeVisible()
})

test('people are gathered over several lists and a group, over a reload, and whoever is met twice counts once', async ({ browser }) => {
  const page = await signIn(browser, 'ada')
  for (const name of ['Fenna', 'Gijs', 'Hedwig']) await makeLead(page.request, name, freshNumber(), { lastName: 'Gathered' })
  await makeLead(page.request, 'Fenna', freshNumber(), { lastName: 'Apart' })
  await leadsNamed(page, 'Gathered', 3)
  await page.getByRole('checkbox', { name: 'Choose Gijs Gathered' }).check()
  await page.getByRole('button', { name: 'Text them', exact: true }).click()
  // it is begun as a handful
  await expect(page.getByRole('textbox', { name: 'Text', exact: true })).toBeFocused()
  await page.keyboard.type('Come and see us')
  await page.getByRole('button', { name: 'As a page' }).click()
  await expect(page.getByRole('textbox', { name: 'Text', exact: true })).toContainText('Come and see us')
  await page.getByRole('button', { name: 'Gather more people' }).click()
  const line = page.getByRole('region', { name: 'Gathering people' })
  await expect(line).toContainText('1 person so far')
  await leadsNamed(page, 'Gathered', 3)
  await line.getByRole('button', { name: 'Add all 3 of this list' }).click()
  await expect(line).toContainText('2 added; 1 was in it already, and counts once.')
  await page.reload()
  await leadsNamed(page, 'Apart', 1)
  await page.getByRole('checkbox', { name: 'Choose Fenna Apart' }).check()
  await line.getByRole('button', { name: 'Add the 1 chosen' }).click()
  await expect(line).toContainText('4 people so far')
  await line.getByRole('button', { name: 'That is all, write it' }).click()
  await expect(page.getByText('to 4 leads.')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Gathering people' })).toHaveCount(0)
})
