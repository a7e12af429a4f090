import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { freshNumber, makeLead, signIn, test } from './people'

test('a colleague is invited, joins by the link, is made a lead, and chooses a new password', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/people')
  await rafe.getByRole('button', { name: 'Invite a colleague' }).click()
  const dialog = rafe.getByRole('dialog')
  await expect(dialog.getByLabel('Name', { exact: true })).toBeFocused()
  await dialog.getByLabel('Name', { exact: true }).fill('Tove Åström')
  // Esc does not lose what is written
  await rafe.keyboard.press('Escape')
  await rafe.getByRole('button', { name: 'Go on writing' }).click()
  await expect(dialog.getByLabel('Name', { exact: true })).toHaveValue('Tove Åström')
  await dialog.getByLabel('Mail address').fill('ada@pannier.example')
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  await expect(dialog.getByText('Ada Lund signs in with this address.')).toBeVisible()
  await dialog.getByLabel('Mail address').fill('tove@pannier.example')
  await dialog.getByLabel('Recruiting').check()
  await expectAccessible(rafe)
  await dialog.getByRole('button', { name: 'Make a link' }).click()
  await expect(dialog.getByText('It works once')).toBeVisible()
  const link = new URL(await dialog.getByRole('textbox', { name: 'The link' }).inputValue())
  await rafe.keyboard.press('Escape')
  await expect(rafe.getByRole('heading', { name: 'Were given a link' })).toBeVisible()
  await expect(rafe.locator('.p-dialog-mask')).toHaveCount(0)
  await expectAccessible(rafe)

  const tove = await (await browser.newContext()).newPage()
  await tove.goto(link.pathname + link.hash)
  await expect(tove.getByRole('heading', { name: 'Join Pannier & Post' })).toBeVisible()
  await tove.getByLabel(/^Password/).fill('short')
  await tove.getByRole('button', { name: 'Join' }).click()
  await expect(tove.getByText('At least 12 characters')).toBeVisible()
  await expectAccessible(tove)
  await tove.getByLabel(/^Password/).fill('four words of my own')
  await tove.getByRole('button', { name: 'Join' }).click()
  await expect(tove.getByText('Tove Åström')).toBeVisible()
  await expect(tove.getByRole('link', { name: 'Set-up' })).toBeHidden()

  // the link brings nobody in a second time
  const other = await (await browser.newContext()).newPage()
  await other.goto(link.pathname + link.hash)
  await expect(other.getByText('It was used already')).toBeVisible()

  // what she may do changes with her next click, and nothing has to be opened anew
  await rafe.reload()
  await rafe.getByRole('button', { name: 'Change Tove Åström' }).click()
  await dialog.getByRole('radio', { name: 'Lead' }).check()
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect(dialog).toBeHidden()
  await tove.reload()
  await expect(tove.getByRole('link', { name: 'Set-up' })).toBeVisible()

  await rafe.getByRole('button', { name: 'A new password for Tove Åström' }).click()
  const second = new URL(await dialog.getByRole('textbox', { name: 'The link' }).inputValue())
  await other.goto('/sign-in')
  await other.goto(second.pathname + second.hash)
  await other.getByLabel(/^Password/).fill('other words of my own')
  await other.getByRole('button', { name: 'Take this password' }).click()
  await expect(other.getByText('Tove Åström')).toBeVisible()
  // where she was signed in before she is not any more
  await tove.reload()
  await expect(tove.getByRole('button', { name: 'Sign in' })).toBeVisible()
})

test('a colleague leaves: what is theirs goes to another, and they are signed out and get in no more', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  const people = await (await rafe.request.get('/api/set-up/people')).json() as { teams: { id: string, name: string }[] }
  const sales = people.teams.find(({ name }) => name.startsWith('Sales'))!
  const invited = await rafe.request.post('/api/set-up/people/invitations', {
    data: { id: crypto.randomUUID(), name: 'Juno Marsh', mail: 'juno@pannier.example', role: 'rep', title: 'Sales', teamIds: [sales.id] },
  })
  const { link } = await invited.json() as { link: string }
  const juno = await (await browser.newContext()).newPage()
  const joined = await juno.request.post('/api/join', {
    data: { key: link.split('#')[1], name: 'Juno Marsh', zone: 'America/Los_Angeles', password: 'four words of my own' },
  })
  expect(joined.ok()).toBe(true)
  expect((await juno.request.post('/api/terms/accept', { data: { version: 1 } })).status()).toBeLessThan(500)
  const id = await makeLead(juno.request, 'Wilhelmina', freshNumber())
  await juno.goto(`/record/${id}`)
  await expect(juno.getByRole('heading', { name: 'Wilhelmina Testaway' })).toBeVisible()

  await rafe.goto('/set-up/people')
  await rafe.getByRole('button', { name: 'Juno Marsh leaves' }).click()
  const dialog = rafe.getByRole('dialog')
  await expect(dialog.getByText('1 record', { exact: true })).toBeVisible()
  await dialog.getByRole('button', { name: 'Let Juno Marsh go' }).click()
  await expect(dialog.getByText('Choose who gets what is theirs.')).toBeVisible()
  await dialog.getByLabel('Who gets what is theirs').selectOption('Mika Sand')
  await expectAccessible(rafe)
  await dialog.getByRole('button', { name: 'Let Juno Marsh go' }).click()
  await expect(rafe.getByRole('heading', { name: 'Have left' })).toBeVisible()
  await expect(rafe.getByRole('button', { name: 'Juno Marsh leaves' })).toBeHidden()

  // the page that is open says so by itself
  await expect(juno.getByRole('dialog').getByRole('button', { name: 'Sign in' })).toBeVisible()
  const again = await juno.request.post('/api/sign-in', { data: { mail: 'juno@pannier.example', password: 'four words of my own' } })
  expect(again.status()).toBe(422)
  await expect.poll(async () => {
    const record = await (await rafe.request.get(`/api/records/${id}`)).json() as { owner: { name: string } }
    return record.owner.name
  }).toBe('Mika Sand')

  await rafe.getByRole('button', { name: 'Take Juno Marsh on again' }).click()
  await expect(dialog.getByText('It works once')).toBeVisible()
})
