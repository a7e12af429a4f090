import { expect, type Page } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, PRACTICE, signIn, test, textsOnHandset } from './people'

const NAMES = ['Aldous', 'Bettina', 'Corin', 'Delphine', 'Emeka', 'Fenna', 'Gustav', 'Hilde', 'Ivo', 'Jelka']
const shelf = (page: Page) => page.getByRole('region', { name: 'Shelf' })
const manner = async (page: Page, phone: string, how: 'picks-up' | 'busy' | 'lets-it-ring') =>
  expect((await page.request.post(`${PRACTICE}/handsets/api/calls`, { data: { phone, act: 'manner', manner: how } })).ok()).toBe(true)

/** Leads with a last name of their own, whose telephones are as told; by first name. */
async function leads(page: Page, lastName: string, names: string[], how: (index: number) => 'picks-up' | 'busy' | 'lets-it-ring') {
  const made: Record<string, { id: string, number: string }> = {}
  for (const [index, name] of names.entries()) {
    const number = freshNumber()
    made[name] = { id: await makeLead(page.request, name, number, { lastName }), number }
    await manner(page, number, how(index))
  }
  return made
}

/** Opens the list of those with a last name and has them called in a round, by keyboard. */
async function beginRound(page: Page, lastName: string): Promise<void> {
  await page.goto('/records/leads')
  await expect(page.locator('tbody a.open').first()).toBeVisible()
  await page.keyboard.press('f')
  await page.keyboard.type(lastName)
  await expect(page.getByText(/^(10|3|2) leads$/)).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.press('r')
  await page.keyboard.press('m')
  await expect(page.getByText(/\d+ people can be called now/)).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type(`The ${lastName} round`)
}

test('by keyboard alone: a round of ten is called, and each key sends what it says and brings the next', async ({ browser }) => {
  const [page, odile] = await Promise.all([signIn(browser, 'ada'), signIn(browser, 'odile')])
  const made = await leads(page, 'Roundaway', NAMES, index => index % 3 === 0 ? 'busy' : 'picks-up')
  await beginRound(page, 'Roundaway')
  await expectAccessible(page)
  await page.keyboard.press('Enter')
  const called: string[] = []
  for (let turn = 0; turn < NAMES.length; turn++) {
    const heading = page.getByRole('heading', { name: / Roundaway$/, level: 1 })
    if (called.length > 0) await expect(heading).not.toHaveText(called.at(-1)!)
    const name = (await heading.textContent())!
    expect(called).not.toContain(name)
    called.push(name)
    await expect(shelf(page)).toContainText(`${turn} of 10`)
    await expect(page.getByLabel('About this record').getByRole('button', { name: /^Call / })).toBeVisible()
    await page.keyboard.press('d')
    if (NAMES.indexOf(name.split(' ')[0]!) % 3 === 0) {
      await expect(page.getByRole('button', { name: /^A No answer/ })).toBeFocused()
      await page.keyboard.press('a')
      continue
    }
    await expect(shelf(page).getByRole('button', { name: 'Hold' })).toBeVisible()
    await expect(page.getByLabel(/^Your notes/)).toBeFocused()
    await page.keyboard.type('Not this year.')
    await page.keyboard.press('Alt+e')
    await expect(page.getByRole('button', { name: /^T Wants a trial week/ })).toBeFocused()
    if (turn < NAMES.length - 1) {
      // one sees who comes next, and cannot skip them in place of whoever it is being said of
      await expect(shelf(page)).toContainText(/then \w+ Roundaway/)
      await expect(shelf(page).getByRole('button', { name: 'Skip' })).toHaveCount(0)
    }
    await page.keyboard.press('n')
  }
  await expect(shelf(page)).toContainText('everybody had their turn')
  expect(called.map(name => name.split(' ')[0]).sort()).toEqual(NAMES)

  // the texts, counted at the telephones; all of it read back by a colleague
  for (const [index, name] of NAMES.entries()) {
    const expected = index % 3 === 0 ? [expect.stringContaining('tried')] : []
    await expect.poll(async () => (await textsOnHandset(page.request, made[name]!.number)).map(({ text }) => text)).toEqual(expected)
    const { entries } = (await (await odile.request.get(`/api/records/${made[name]!.id}/timeline`)).json()) as {
      entries: { kind: string, data: object, call: { disposition: { name: string } | null } | null, words: string | null }[]
    }
    const calls = entries.filter(({ kind }) => kind === 'call-out')
    expect(calls).toMatchObject([
      { data: { round: 'The Roundaway round' }, call: { disposition: { name: index % 3 === 0 ? 'No answer' : 'Not interested' } } },
    ])
    if (index % 3 > 0) expect(calls[0]!.words).toBe('Not this year.')
  }
  await odile.goto('/calling')
  await odile.getByRole('link', { name: 'The Roundaway round' }).click()
  await expect(odile.getByText('10 called', { exact: true })).toBeVisible()
  await expect(odile.getByRole('listitem').filter({ hasText: 'Not interested' })).toContainText('6')
  await expect(odile.getByRole('listitem').filter({ hasText: '10 called, 6 reached' })).toContainText('Ada')
  await expect(odile.locator('tbody tr')).toHaveCount(10)
  await expectAccessible(odile)
  await odile.getByRole('button', { name: 'Stop it' }).click()
  await expect(odile.getByText('stopped', { exact: true })).toBeVisible()
  await expect(shelf(page)).toContainText('is stopped')
  await shelf(page).getByRole('button', { name: 'Stop for now' }).click()
  await expect(shelf(page)).not.toContainText('The Roundaway round')
})

test('two work one round without calling the same person; the next is dialled by itself, unless one waits', async ({ browser }) => {
  const [page, mika] = await Promise.all([signIn(browser, 'ada'), signIn(browser, 'mika')])
  const made = await leads(page, 'Pairaway', ['Kasper', 'Lioba', 'Mirek'], () => 'lets-it-ring')
  await beginRound(page, 'Pairaway')
  await page.getByLabel('The next one is dialled').click()
  await page.getByRole('option', { name: 'By itself after 5 seconds' }).click()
  await page.getByRole('button', { name: 'Start with the first' }).click()
  await expect(shelf(page)).toContainText(/calls in \d s/)
  await page.keyboard.press('r')
  await page.keyboard.press('w')
  await expect(shelf(page)).not.toContainText('calls in')

  await mika.goto('/calling')
  await mika.getByRole('button', { name: 'Work on The Pairaway round' }).click()
  const [first, second] = [
    (await page.locator('h1').textContent())!,
    (await mika.getByRole('heading', { name: / Pairaway$/, level: 1 }).textContent())!,
  ]
  expect(second).not.toBe(first)
  await expect(shelf(mika)).toContainText('it rings')
  expect(await mika.request.get('/api/rounds/mine').then(answer => answer.json())).toMatchObject({
    round: { inHand: null, counts: { called: 1, held: 1, waiting: 1 } },
  })

  // who is skipped is not called; who is to come back later comes when the others had their turn
  await page.keyboard.press('r')
  await page.keyboard.press('l')
  await expect(page.locator('h1')).not.toHaveText(first)
  const third = (await page.locator('h1').textContent())!
  await page.keyboard.press('r')
  await page.keyboard.press('s')
  await expect(page.locator('h1')).toHaveText(first)
  await page.keyboard.press('r')
  await page.keyboard.press('q')
  await expect(shelf(page)).not.toContainText('The Pairaway round')
  expect([first, second, third].map(name => name.split(' ')[0]).sort()).toEqual(Object.keys(made))
  await page.goto('/calling')
  await expect(page.getByRole('listitem').filter({ hasText: 'The Pairaway round' })).toContainText('1 called, 1 waiting, 1 skipped')
  // so that no call is left on the shelf
  await mika.keyboard.press('Alt+e')
  await mika.getByRole('button', { name: 'Close without a disposition' }).click()
})
