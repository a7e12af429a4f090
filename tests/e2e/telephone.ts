import { expect, type Page } from '@playwright/test'
import { PRACTICE } from './people'

/** What a telephone does when it is called, and what its owner does with it. */
export async function phone(
  page: Page,
  number: string,
  act: 'manner' | 'pick-up' | 'decline' | 'hang-up' | 'call',
  more: object = {},
): Promise<void> {
  const answer = await page.request.post(`${PRACTICE}/handsets/api/calls`, { data: { phone: number, act, ...more } })
  expect(await answer.json()).toEqual({ done: true })
}

/** Ends the call that is on, and waits until it is over: whoever goes before that leaves it on for whoever comes next. */
export async function hangUp(page: Page): Promise<void> {
  await page.keyboard.press('Alt+e')
  await expect.poll(async () => {
    const { calls } = await (await page.request.get('/api/calls')).json() as { calls: { mine: boolean, facts: { endedAt: number | null } }[] }
    return calls.filter(({ mine, facts }) => mine && facts.endedAt === null)
  }).toEqual([])
}

export const shelf = (page: Page) => page.getByRole('region', { name: 'Shelf' })
export const panel = (page: Page, name: string) => page.getByRole('dialog', { name: `Call with ${name}` })
