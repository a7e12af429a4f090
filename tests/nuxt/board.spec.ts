import { asked, askedFor, before, held, inPage, refuse, settled, tell } from '../support/app'
import type { Board, BoardCard } from '~~/shared/pipelines'
import { useBoard } from '~/composables/board'

const card = (id: string): BoardCard => ({ id, name: id }) as unknown as BoardCard
const board = (first: string[], second: string[], mayMove = true): Board =>
  ({
    mayMove,
    stages: [
      { id: 'new', name: 'New', count: first.length, cards: first.map(card) },
      { id: 'trial', name: 'Trial', count: second.length, cards: second.map(card) },
    ],
  }) as unknown as Board
const open = () =>
  inPage(() =>
    useBoard(
      () => ({ url: '/api/board', query: { pipelineId: 'p1' } }),
      ({ id }) => `/api/records/${id}/stage`,
    ),
  )
const shown = ({ board }: ReturnType<typeof useBoard>) =>
  board.value?.stages.map(({ count, cards }) => [count, ...cards.map(({ id }) => id)])
const [NEW, TRIAL] = [{ id: 'new', name: 'New', over: false }, { id: 'trial', name: 'Trial', over: false }]
const MOVE = 'PUT /api/records/a/stage'

describe('a pipeline on screen', () => {
  it('shows a move at once, and what the server made of it then', async () => {
    const slow = held<null>()
    let there = board(['a', 'b'], ['c'])
    before({ 'GET /api/board': () => there, [MOVE]: () => slow.answer })
    const one = open()
    await settled()
    const moving = one.move({ card: card('a'), from: NEW, to: TRIAL })
    expect(shown(one)).toEqual([[1, 'b'], [2, 'a', 'c']])
    there = board(['b'], ['c', 'a'])
    slow.give(null)
    expect(await moving).toBe(true)
    expect(shown(one)).toEqual([[1, 'b'], [2, 'c', 'a']])
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({ stageId: 'trial', from: 'new' })
  })

  it('takes a move back', async () => {
    before({ 'GET /api/board': () => board(['b'], ['a']), [MOVE]: () => null })
    const one = open()
    await settled()
    await one.move({ card: card('a'), from: NEW, to: TRIAL })
    expect(one.moved.value).toMatchObject({ from: NEW, to: TRIAL })
    await one.takeBack()
    expect(asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([
      { stageId: 'trial', from: 'new' },
      { stageId: 'new', from: 'trial' },
    ])
    expect(one.moved.value).toBeNull()
    await one.takeBack()
    expect(asked.filter(({ method }) => method === 'PUT')).toHaveLength(2)
  })

  it('puts a card back where the server refuses, and says why', async () => {
    before({ 'GET /api/board': () => board(['a'], []), [MOVE]: () => refuse(409, 'moved', 'Mika has moved it already.') })
    const one = open()
    await settled()
    expect(await one.move({ card: card('a'), from: NEW, to: TRIAL })).toBe(false)
    expect([shown(one), one.problem.value, one.moved.value]).toEqual([[[1, 'a'], [0]], 'Mika has moved it already.', null])
  })

  it('moves nothing to where it is, nor for somebody who may not', async () => {
    before({ 'GET /api/board': () => board(['a'], [], false) })
    const one = open()
    await settled()
    expect([await one.move({ card: card('a'), from: NEW, to: NEW }), await one.move({ card: card('a'), from: NEW, to: TRIAL })]).toEqual([
      false,
      false,
    ])
    expect(askedFor()).toEqual(['GET /api/board'])
  })

  it('shows more of a stage, and goes on showing them', async () => {
    before({ 'GET /api/board': () => board(['a', 'b'], []) })
    const one = open()
    await settled()
    one.showMore('new')
    await settled()
    await one.load()
    expect(asked.slice(1).map(({ query }) => (query as { most: string }).most)).toEqual(['{"new":62}', '{"new":62}'])
  })

  it('is loaded anew when something happens to a card on it', async () => {
    before({ 'GET /api/board': () => board(['a'], []) })
    const one = open()
    await settled()
    tell({ kind: 'record', recordId: 'somebody-else' })
    for (let n = 0; n < 3; n++) tell({ kind: 'record', recordId: 'a' })
    await new Promise(resolve => setTimeout(resolve, 350))
    expect([askedFor().length, shown(one)]).toEqual([2, [[1, 'a'], [0]]])
  })
})
