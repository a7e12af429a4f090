import '../support/app'
import { nextTick, ref, shallowRef } from 'vue'
import type { List } from '~/composables/list'
import { useSelection } from '~/composables/selection'

const page = (...ids: string[]) => ({ rows: ids.map(id => ({ id })) })

function chosen() {
  const list = shallowRef(page('a', 'b', 'c'))
  const question = ref({ module: 'lead', words: '' })
  return { list, question, ...useSelection({ list, total: ref(120), question } as unknown as List) }
}

describe('what is chosen in a list', () => {
  it('is single rows, kept over pages', () => {
    const selection = chosen()
    selection.toggle({ id: 'a' })
    selection.list.value = page('d', 'e')
    selection.toggle({ id: 'd' })
    expect([selection.count.value, selection.has('a'), selection.selection.value.ids]).toEqual([2, true, ['a', 'd']])
    selection.toggle({ id: 'a' })
    expect(selection.selection.value.ids).toEqual(['d'])
  })

  it('is a page, chosen and let go as a whole', () => {
    const selection = chosen()
    selection.toggle({ id: 'b' })
    expect(selection.wholePage.value).toBe(false)
    selection.togglePage()
    expect([selection.wholePage.value, selection.count.value]).toEqual([true, 3])
    selection.togglePage()
    expect(selection.count.value).toBe(0)
  })

  it('is all that the list holds, told to the server as such; one row taken out leaves those that are seen', () => {
    const selection = chosen()
    selection.chooseEverything()
    expect([selection.count.value, selection.has('somebody on page 9'), selection.selection.value.ids]).toEqual([120, true, null])
    selection.toggle({ id: 'b' })
    expect([selection.everything.value, selection.selection.value.ids]).toEqual([false, ['a', 'c']])
  })

  it('is nobody any more when something else is asked for', async () => {
    const selection = chosen()
    selection.togglePage()
    selection.question.value = { module: 'lead', words: 'iris' }
    await nextTick()
    expect(selection.count.value).toBe(0)
  })

  it('has nothing whole about an empty page', () => {
    const selection = chosen()
    selection.list.value = page()
    expect(selection.wholePage.value).toBe(false)
  })
})
