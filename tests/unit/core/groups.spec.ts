import { mirroredBy } from '~~/core/groups/mirror'
import type { Condition, Conditions } from '~~/core/conditions/conditions'

const all = (...of: Conditions['of']): Conditions => ({ match: 'all', of })
const one = (field: string, test: Condition['test'], value?: Condition['value']): Condition => ({ field, test, ...value !== undefined && { value } })

describe('a group that is a mirror', () => {
  it('is one by a tag, a choice or a yes alone, in brackets or not', () => {
    expect(mirroredBy(all(one('tags', 'one-of', ['bakery'])))).toEqual({ what: 'tag', tag: 'bakery' })
    expect(mirroredBy(all(one('own.branch', 'one-of', ['Halifax'])))).toEqual({ what: 'field', key: 'branch', value: 'Halifax' })
    expect(mirroredBy(all(one('own.trike', 'yes')))).toEqual({ what: 'field', key: 'trike', value: true })
    expect(mirroredBy(all({ match: 'any', of: [one('own.trike', 'yes')] }))).toEqual({ what: 'field', key: 'trike', value: true })
  })

  it('is none that asks for anything that a record does not have exactly then', () => {
    for (const conditions of [
      all(),
      all(one('tags', 'one-of', ['bakery', 'flowers'])),
      all(one('tags', 'none-of', ['bakery'])),
      all(one('own.trike', 'no')),
      all(one('own.branch', 'filled')),
      all(one('stage', 'one-of', ['New'])),
      all(one('city', 'is', 'Halifax')),
      all(one('tags', 'one-of', ['bakery']), one('city', 'is', 'Halifax')),
      all({ match: 'any', of: [one('tags', 'one-of', ['bakery']), one('own.trike', 'yes')] }),
    ]) expect(mirroredBy(conditions)).toBeNull()
  })
})
