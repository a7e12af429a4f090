import { asked, before, held, inPage, leave, refuse, settled } from '../support/app'
import { emptyTally } from '~~/core/template/length'
import type { CountedLength } from '~~/shared/template'
import { useLength } from '~/composables/length'

const PATH = 'POST /api/templates/length'
const template = { body: 'Hi', modules: ['lead' as const], fillIns: [] }
const piece = (people: number, next: string | null, total: number | null = null): CountedLength =>
  ({ tally: { ...emptyTally(), people }, next, total }) as CountedLength

describe('the length of a template over everybody', () => {
  it('is counted piece by piece, each after the one before', async () => {
    const pieces = [piece(100, 'p100', 250), piece(100, 'p200'), piece(50, null)]
    before({ [PATH]: () => pieces.shift() })
    const { count, tally, total, state } = useLength()
    await count(template)
    expect([tally.value?.people, total.value, state.value]).toEqual([250, 250, 'done'])
    expect(asked.map(({ body }) => (body as { after: string | null }).after)).toEqual([null, 'p100', 'p200'])
  })

  it.each([
    ['by hand', ({ stop }: ReturnType<typeof useLength>) => stop()],
    ['by leaving the page', () => leave()],
  ])('can be stopped %s, and shows how far it came', async (_, stop) => {
    const slow = held<CountedLength>()
    const pieces = [piece(100, 'p100', 250), slow.answer]
    before({ [PATH]: () => pieces.shift() })
    const length = inPage(useLength)
    const counting = length.count(template)
    await settled()
    stop(length)
    slow.give(piece(100, 'p200'))
    await counting
    expect([length.state.value, length.tally.value?.people, asked.length]).toEqual(['stopped', 100, 2])
  })

  it('is of what is asked last', async () => {
    const slow = held<CountedLength>()
    const answers = [slow.answer, piece(7, null, 7)]
    before({ [PATH]: () => answers.shift() })
    const { count, tally, state } = useLength()
    const first = count(template)
    await count({ ...template, body: 'Hi there' })
    slow.give(piece(1, null, 1))
    await first
    expect([tally.value?.people, state.value]).toEqual([7, 'done'])
  })

  it('says why it could not be counted', async () => {
    before({ [PATH]: () => refuse(422, 'bad-input', 'Correct the template first.') })
    const { count, state, problem } = useLength()
    await count(template)
    expect([state.value, problem.value]).toEqual(['failed', 'Correct the template first.'])
  })
})
