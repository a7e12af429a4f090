import '../support/app'
import { listAddress, plainList, readListAddress, type ListState } from '~/composables/list-address'

const state = (values: Partial<ListState> = {}): ListState => ({ ...plainList('lead'), ...values })
const query = (values: Partial<ListState>) => listAddress('lead', state(values)) as Record<string, string>

describe('the address of a list', () => {
  it('is plain for a list as it is at first', () => expect(query({})).toEqual({}))

  it('holds all that is otherwise, and gives it back', () => {
    const asked = state({
      words: 'holm & co',
      conditions: { match: 'any', of: [{ field: 'city', test: 'is', value: 'Hilo' }, { match: 'all', of: [{ field: 'tags', test: 'one-of', value: ['north'] }] }] },
      columns: ['name', 'city'],
      sort: 'city',
      direction: 'down',
      page: 3,
    })
    expect(readListAddress('lead', query(asked))).toEqual(asked)
    expect(Object.keys(query(asked)).sort()).toEqual(['columns', 'direction', 'page', 'sort', 'where', 'words'])
  })

  it.each([
    [{ where: '{' }],
    [{ where: '{"match":"none","of":[]}' }],
    [{ where: '{"match":"all","of":[{"field":3,"test":"is"}]}' }],
    [{ where: '{"match":"all","of":[null]}' }],
    [{ page: '0' }],
    [{ page: 'last' }],
    [{ direction: 'sideways' }],
    [{ columns: ',' }],
    [{ words: ['a', 'b'] }],
  ])('that somebody wrote by hand and wrongly, %j, is a list as at first', said =>
    expect(readListAddress('lead', said)).toEqual(state()))
})
