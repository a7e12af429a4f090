import { expect, type Page } from '@playwright/test'
import { freshNumber, makeLead, signIn, test } from './people'

const LONG = 'Maximiliane-Philippa-Konstantinopolitanischedudelsackpfeifenmacher'

/** What sticks out of a page at the right, but for what can be moved into sight in its own place. */
const sticksOut = (page: Page) => page.evaluate(() => {
  const width = document.documentElement.clientWidth
  const moves = (element: Element | null): boolean =>
    !!element && element !== document.body && (getComputedStyle(element).overflowX !== 'visible' || moves(element.parentElement))
  return document.documentElement.scrollWidth <= width
    ? []
    : [...document.querySelectorAll('body *')]
        .filter(one => one.getBoundingClientRect().right > width + 1 && !moves(one.parentElement))
        .map(one => `${one.tagName} ${one.className}`)
})

test('nothing sticks out at a phone’s width, with the longest of names', async ({ browser }) => {
  const [ada, rafe] = [await signIn(browser, 'ada'), await signIn(browser, 'rafe')]
  const id = await makeLead(ada.request, LONG, freshNumber(), { tags: ['a-tag-without-any-space-in-it'] })
  const bulk = crypto.randomUUID()
  await ada.request.post('/api/bulk-texts', {
    data: { id: bulk, name: LONG, selection: { list: { module: 'lead', sort: 'name', direction: 'up' }, ids: [id] } },
  })
  const group = crypto.randomUUID()
  await ada.request.put('/api/groups', { data: { id: group, name: LONG.slice(0, 60) } })
  await ada.request.post(`/api/groups/${group}/people`, { data: { recordId: id, in: true } })
  const pages: [Page, string, string][] = [
    [ada, '/', 'What waits for you'], [ada, '/records/leads', 'page 1'], [ada, '/records/companies', 'page 1'], [ada, '/records/deals', 'Stage'],
    [ada, `/record/${id}`, 'Nothing written yet'], [ada, '/records/leads/new', 'First name'], [ada, '/records/leads/import', 'Choose a file'],
    [ada, '/templates', 'Call at a set time'], [ada, '/inbox', 'Waiting'], [ada, '/inbox/texts', 'Received'], [ada, '/inbox/notices', 'seen'],
    [ada, '/told', 'A short sound'], [ada, '/calling', 'Under way'], [ada, '/calling/how', 'My telephones'], [ada, '/drafts', 'Drafts'],
    [ada, '/bulk', LONG], [ada, `/bulk/${bulk}`, 'Check everybody'],
    [ada, '/groups', LONG.slice(0, 60)], [ada, `/groups/${group}`, LONG],
    [rafe, '/set-up', 'line'], [rafe, '/set-up/lines', 'Portland line'], [rafe, '/set-up/dispositions', 'No answer'],
  ]
  for (const [page, path, shows] of pages) {
    await page.setViewportSize({ width: 390, height: 844 })
    await page.goto(path)
    await expect(page.getByRole('main')).toContainText(shows)
    expect([path, await sticksOut(page)]).toEqual([path, []])
  }
})
