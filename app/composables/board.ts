import { useDebounceFn } from '@vueuse/core'
import type { Board, BoardCard, Stage } from '~~/shared/pipelines'
import { api } from './api'
import { useLive } from './live'
import { newestOnly } from './newest'
import { problemIn } from './trying'

/** More that are fetched of a stage at a time. */
const MORE = 60

export interface Move { card: BoardCard, from: Stage, to: Stage }

/**
 * A pipeline on screen: its stages with their cards, and the moving of one. A move shows at once and is
 * taken back on screen where the server refuses it.
 *
 * @param address of the board, and what is asked of it
 * @param moveAddress under which a card is moved
 */
export function useBoard(address: () => { url: string, query: Record<string, string> }, moveAddress: (card: BoardCard) => string) {
  const board = shallowRef<Board | null>(null)
  const problem = ref('')
  const moved = shallowRef<Move | null>(null)
  const most = shallowRef<Record<string, number>>({})
  const begin = newestOnly()

  async function load(): Promise<void> {
    const isNewest = begin()
    const { url, query } = address()
    try {
      const answer = await api<Board>(url, {
        query: { ...query, ...(Object.keys(most.value).length > 0 && { most: JSON.stringify(most.value) }) },
      })
      if (!isNewest()) return
      board.value = answer
      problem.value = ''
    }
    catch (error) {
      const { message } = problemIn(error)
      if (isNewest()) problem.value = message
    }
  }
  watch(() => JSON.stringify(address()), () => {
    board.value = null
    most.value = {}
    void load()
  }, { immediate: true })

  function showMore(stageId: string): void {
    const shown = board.value?.stages.find(({ id }) => id === stageId)?.cards.length ?? 0
    most.value = { ...most.value, [stageId]: shown + MORE }
    void load()
  }

  async function move({ card, from, to }: Move): Promise<boolean> {
    if (from.id === to.id || !board.value?.mayMove) return false
    show({ card, from, to })
    try {
      await api(moveAddress(card), { method: 'PUT', body: { stageId: to.id, from: from.id } })
      moved.value = { card, from, to }
      problem.value = ''
      await load()
      return true
    }
    catch (error) {
      const { message } = problemIn(error)
      await load()
      problem.value = message
      return false
    }
  }

  async function takeBack(): Promise<void> {
    if (!moved.value) return
    const { card, from, to } = moved.value
    moved.value = null
    if (await move({ card, from: to, to: from })) moved.value = null
  }

  /** Puts the card where it goes before the server has answered; the counts follow with the answer. */
  function show({ card, from, to }: Move): void {
    const there = board.value!
    board.value = {
      ...there,
      stages: there.stages.map(stage => stage.id === from.id
        ? { ...stage, count: stage.count - 1, cards: stage.cards.filter(({ id }) => id !== card.id) }
        : stage.id === to.id ? { ...stage, count: stage.count + 1, cards: [card, ...stage.cards] } : stage),
    }
  }

  const loadSoon = useDebounceFn(load, 300)
  const isShown = (id: string) => board.value?.stages.some(({ cards }) => cards.some(card => card.id === id)) ?? false
  useLive((notice) => {
    if ((notice.kind === 'record' || notice.kind === 'entry') && isShown(notice.recordId)) void loadSoon()
  }, () => void load())

  return { board, problem, moved, load, showMore, move, takeBack }
}

export type ShownBoard = ReturnType<typeof useBoard>
