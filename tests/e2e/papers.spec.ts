import { expect } from '@playwright/test'
import { expectAccessible } from './accessible'
import { PRACTICE, signIn, test } from './people'

test('papers are written, handed in, sent back with a question, and accepted; what others take their time over stands in its half', async ({ browser }) => {
  const rafe = await signIn(browser, 'rafe')
  await rafe.goto('/set-up/papers')
  const ours = rafe.getByRole('region', { name: 'Yours to do' })
  const theirs = rafe.getByRole('region', { name: 'Theirs to do' })
  await expect(ours.getByRole('button', { name: 'Hand in: The practice carrier, Canada' })).toBeEnabled()
  await expectAccessible(rafe)

  // a change that is not kept is not lost without a word
  const agree = rafe.getByLabel('How people agree to it')
  const asItWas = await agree.inputValue()
  await agree.fill('They say yes.')
  await rafe.getByRole('link', { name: 'Lines', exact: true }).click()
  await expect(rafe.getByRole('dialog')).toBeVisible()
  await rafe.keyboard.press('Escape')
  await expect(agree).toHaveValue('They say yes.')
  await rafe.getByLabel('Website').fill('pannier')
  await rafe.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(rafe.getByText('Write an address such as https://pannier.example.')).toBeVisible()
  await rafe.getByLabel('Website').fill('https://pannier.example')
  await rafe.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(rafe.getByText('Kept. A carrier has it once it is handed in.')).toBeVisible()

  const chooser = rafe.waitForEvent('filechooser')
  await rafe.getByRole('button', { name: 'Add a file' }).click()
  await (await chooser).setFiles({ name: 'Extract é.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.7 an extract') })
  await expect(rafe.getByRole('link', { name: 'Extract é.pdf' })).toBeVisible()

  await ours.getByRole('button', { name: 'Hand in: The practice carrier, Canada' }).click()
  await expect(theirs.getByText('waits since today, usually 4 to 10 days')).toBeVisible()
  await expect(theirs.getByText('They know them as PP-CA-1001.')).toBeVisible()
  // the carrier's days are over: it says so by itself, on the open page
  await rafe.request.post(`${PRACTICE}/handsets/api/papers`, { data: { country: 'CA' } })
  await expect(ours.getByText('How do people agree to be texted?')).toBeVisible()
  await expect(ours.getByRole('button', { name: 'Hand in again' })).toBeDisabled()
  await expectAccessible(rafe)
  const front = await signIn(browser, 'rafe')
  await front.goto('/set-up')
  await expect(front.getByText('1 carrier has sent papers back.')).toBeVisible()

  await agree.fill(asItWas)
  await rafe.getByRole('button', { name: 'Save', exact: true }).click()
  await ours.getByRole('button', { name: 'Hand in again' }).click()
  await expect(theirs.getByText('waits since today')).toBeVisible()
  await front.reload()
  await expect(front.getByRole('link', { name: 'The practice carrier looks through the papers for Canada' })).toBeVisible()
  await rafe.request.post(`${PRACTICE}/handsets/api/papers`, { data: { country: 'CA' } })
  await expect(theirs.getByText('accepted on')).toBeVisible()

  // none of this keeps anybody from anything else; some templates say what no sample does
  await expect(rafe.getByRole('heading', { name: 'Templates unlike any sample' })).toBeVisible()
  await rafe.getByText('Step by step').click()
  await expect(theirs.getByRole('listitem').filter({ hasText: 'Rafe Pennington' }).first()).toBeVisible()
})

test('two admins write on the papers at once: neither is written over unseen', async ({ browser }) => {
  const [one, other] = [await signIn(browser, 'rafe'), await signIn(browser, 'rafe')]
  await one.goto('/set-up/papers')
  await other.goto('/set-up/papers')
  const about = (page: typeof one) => page.getByLabel('What you text, to whom, and why')
  await about(one).fill('We lease cargo bikes.')
  await one.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(one.getByText('Kept. A carrier')).toBeVisible()
  await about(other).fill('We lease cargo bikes and employ riders.')
  await other.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(other.getByText('has written on the papers meanwhile')).toBeVisible()
  await expect(about(other)).toHaveValue('We lease cargo bikes and employ riders.')
  await other.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(other.getByText('Kept. A carrier')).toBeVisible()
})
