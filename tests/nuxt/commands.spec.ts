import { before, wentTo } from '../support/app'
import { commandsNow, commandsWith } from '~/composables/commands'
import { activeKeys } from '~/composables/keys'
import { rightsOf } from '~~/shared/permissions'
import { useMe, type Me } from '~/stores/me'

const as = (role: Me['role']) => {
  before({})
  useMe().me = { id: 'a', role, rights: rightsOf({ role }) } as Me
}
const whats = (words: string, most?: number) => commandsWith(words, most).map(({ what }) => what)
afterEach(() => activeKeys.value = [])

describe('something to do, by name', () => {
  it('is found by the beginnings of its words, in any order', () => {
    as('rep')
    expect(whats('rounds go')).toEqual(['Go to the call rounds'])
    expect(whats('NEW lea')).toEqual(['Make a new lead'])
    expect(whats('ounds')).toEqual([])
  })

  it('is no more than a few at a time', () => {
    as('rep')
    expect(whats('go').length).toBe(4)
    expect(whats('go', 2).length).toBe(2)
  })

  it('is only what one may do', () => {
    as('rep')
    expect([whats('dispositions'), whats('lines')]).toEqual([[], []])
    as('lead')
    expect([whats('dispositions'), whats('lines')]).toEqual([['Go to the dispositions'], []])
    as('admin')
    expect([whats('dispositions'), whats('lines')]).toEqual([['Go to the dispositions'], ['Go to the lines']])
  })

  it('goes where it says', () => {
    as('rep')
    commandsWith('go to candidates')[0]!.act()
    commandsWith('import companies')[0]!.act()
    expect(wentTo).toEqual(['/records/candidates', '/records/companies/import'])
  })

  it('is every key that works on this page too, each once, with the key', () => {
    as('rep')
    let pressed = 0
    Object.assign(globalThis, { KeyboardEvent: Event })
    activeKeys.value = [
      { keys: 'k', shown: 'K', what: 'Make a task', act: () => pressed++ },
      { keys: 'g r', shown: 'G R', what: 'Go to the call rounds', act: () => undefined },
    ]
    const [task] = commandsWith('task')
    task!.act()
    expect([task!.shown, pressed]).toEqual(['K', 1])
    expect(commandsWith('call rounds').map(({ shown }) => shown)).toEqual(['G R'])
    expect(commandsNow().filter(({ what }) => what === 'Go to the call rounds')).toHaveLength(2)
  })
})
