import { before } from '../support/app'
import { ref } from 'vue'
import { useBeside } from '~/composables/beside'
import { useMe, type Me } from '~/stores/me'

let colleagues = 0
/** Of somebody who has kept nothing yet. */
function beside(open: string | null = null) {
  useMe().me = { id: `colleague ${colleagues++}` } as Me
  const openId = ref(open)
  return { openId, ...useBeside(openId, id => openId.value = id) }
}

describe('conversations beside each other', () => {
  beforeEach(() => before({}))

  it('are those that are kept, in their order, and the one that was opened last', () => {
    const { openId, sheets, toggle } = beside('a')
    expect(sheets.value).toEqual(['a'])
    toggle('a')
    openId.value = 'b'
    expect(sheets.value).toEqual(['a', 'b'])
    openId.value = 'c'
    expect(sheets.value).toEqual(['a', 'c'])
    // to work in one that is kept takes nothing away
    openId.value = 'a'
    expect(sheets.value).toEqual(['a', 'c'])
  })

  it('are four at most', () => {
    const { openId, sheets, mayKeep, toggle } = beside('a')
    for (const id of ['a', 'b', 'c', 'd']) {
      openId.value = id
      toggle(id)
    }
    expect([sheets.value, mayKeep.value]).toEqual([['a', 'b', 'c', 'd'], false])
    openId.value = 'e'
    expect(sheets.value).toEqual(['a', 'b', 'c', 'e'])
  })

  it('are gone through round and round, and closed one by one', () => {
    const { openId, sheets, toggle, step, close } = beside('a')
    toggle('a')
    openId.value = 'b'
    step(1)
    expect(openId.value).toBe('a')
    step(-1)
    expect(openId.value).toBe('b')
    // by where the cursor is, though it is not said yet that this is worked with
    step(1, 'a')
    expect(openId.value).toBe('b')
    close('b')
    expect([openId.value, sheets.value]).toEqual(['a', ['a']])
    close('a')
    expect([openId.value, sheets.value]).toEqual([null, []])
  })

  it('gives way to the list, after which those that are kept are there again', () => {
    const { openId, kept, sheets, toggle } = beside('a')
    toggle('a')
    openId.value = 'b'
    openId.value = null
    expect([kept.value, sheets.value]).toEqual([['a'], ['a']])
  })

  it('that is no longer kept stays until another takes its place', () => {
    const { openId, sheets, toggle } = beside('a')
    toggle('a')
    toggle('a')
    expect(sheets.value).toEqual(['a'])
    openId.value = 'b'
    expect(sheets.value).toEqual(['b'])
  })
})
