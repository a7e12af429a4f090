<script setup lang="ts">
import type { BoardCard, BoardStage, Stage } from '~~/shared/pipelines'
import type { ShownBoard } from '~/composables/board'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { ago, span } from '~/words/time'
import { amount, amounts } from '~/words/money'

/**
 * A pipeline as the columns of a ledger: one for each stage, a line for each deal or candidate. Lines are
 * dragged from column to column, or moved by Shift with the arrows, or by a menu.
 */
const { shown, peeked = null } = defineProps<{
  shown: ShownBoard
  peeked?: string | null
}>()
const emit = defineEmits<{ peek: [card: BoardCard, text: boolean], call: [stage: BoardStage] }>()

const { board, problem, moved, load, showMore, move, takeBack } = shown
const now = useNow()
const stages = computed(() => board.value?.stages ?? [])
const columns = useTemplateRef<HTMLElement>('columns')
const dragged = shallowRef<{ card: BoardCard, from: Stage } | null>(null)
const over = ref<string | null>(null)

const about = (card: BoardCard) => [
  card.owner,
  card.lastContactAt ? ago(card.lastContactAt, now.value) : 'no contact yet',
  card.since ? `here ${span(now.value - card.since)}` : null,
].filter(Boolean).join(', ')

function begin(event: DragEvent, card: BoardCard, from: Stage): void {
  dragged.value = { card, from }
  event.dataTransfer?.setData('text/plain', card.name)
  if (event.dataTransfer) event.dataTransfer.effectAllowed = 'move'
}

function drop(stage: BoardStage): void {
  const held = dragged.value
  dragged.value = null
  over.value = null
  if (held) void move({ ...held, to: stage })
}

const linksOf = (column: Element) => [...column.querySelectorAll<HTMLElement>('a.open')]

/** Where the focus is: which stage, which card. */
function place(): { stage: number, card: number } | null {
  const all = [...columns.value?.children ?? []]
  const stage = all.findIndex(column => column.contains(document.activeElement))
  if (stage < 0) return null
  const card = linksOf(all[stage]!).findIndex(link => link.closest('li')!.contains(document.activeElement))
  return card < 0 ? null : { stage, card }
}

function focused(): { card: BoardCard, from: Stage } | null {
  const at = place()
  const stage = at && stages.value[at.stage]
  return stage ? { card: stage.cards[at.card]!, from: stage } : null
}

function focusOn(stage: number, card: number): void {
  const column = columns.value?.children[stage]
  const links = column ? linksOf(column) : []
  links[Math.max(0, Math.min(card, links.length - 1))]?.focus()
}

/** Arrows walk; with Shift, left and right take the card along. */
function walk(event: KeyboardEvent): void {
  const step = { ArrowUp: [0, -1], ArrowDown: [0, 1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }[event.key]
  const at = place()
  if (!step || !at) return
  event.preventDefault()
  if (event.shiftKey) return void carry(at.stage + step[0]!)
  let stage = at.stage + step[0]!
  // empty stages are stepped over
  while (step[0] !== 0 && stages.value[stage]?.cards.length === 0) stage += step[0]!
  focusOn(stage, at.card + step[1]!)
}

async function carry(to: number): Promise<void> {
  const held = focused()
  const stage = stages.value[to]
  if (!held || !stage || held.from.id === stage.id) return
  await move({ ...held, to: stage })
  await nextTick()
  const now = stages.value.findIndex(({ cards }) => cards.some(({ id }) => id === held.card.id))
  if (now >= 0) focusOn(now, stages.value[now]!.cards.findIndex(({ id }) => id === held.card.id))
}

const menu = useTemplateRef<{ toggle: (event: Event) => void }>('menu')
const held = shallowRef<{ card: BoardCard, from: Stage } | null>(null)
const places = computed(() =>
  stages.value
    .filter(({ id }) => id !== held.value?.from.id)
    .map(to => ({ label: to.name, command: () => void move({ ...held.value!, to }) })),
)

function askWhere(event: Event, card: BoardCard, from: Stage): void {
  held.value = { card, from }
  menu.value?.toggle(event)
}

useKeys([
  { keys: 'p', shown: 'P', what: 'Peek at the line you are on', act: () => {
    const at = focused()
    if (at) emit('peek', at.card, false)
  } },
  { keys: 't', shown: 'T', what: 'Text from the line you are on', act: () => {
    const at = focused()
    if (at) emit('peek', at.card, true)
  } },
])
</script>

<template>
  <div class="board">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      class="told small"
      role="status"
    >
      <template v-if="moved">
        {{ moved.card.name }} went from {{ moved.from.name }} to {{ moved.to.name }}.
        <button
          type="button"
          class="plain-button"
          @click="takeBack"
        >
          Take it back
        </button>
      </template>
      <span
        v-else-if="board?.mayMove"
        class="quiet"
      >Drag a line to another stage, or press <kbd>Shift</kbd> <kbd>→</kbd> on it.</span>
    </p>
    <!-- the keys walk over the links inside -->
    <div
      ref="columns"
      class="columns"
      :aria-busy="!board"
      @keydown="walk"
    >
      <section
        v-for="stage in stages"
        :key="stage.id"
        :aria-label="stage.name"
        class="stage"
        :class="{ target: over === stage.id && dragged?.from.id !== stage.id, over: stage.over }"
        @dragover.prevent="over = stage.id"
        @dragleave="over = null"
        @drop.prevent="drop(stage)"
      >
        <header class="head">
          <h2>{{ stage.name }}</h2>
          <span class="quiet figures count">{{ stage.count.toLocaleString('en-US') }}</span>
          <p class="quiet small figures worth">
            {{ amounts(stage.worth) }}
            <button
              v-if="stage.cards.length > 0"
              type="button"
              class="plain-button calm"
              :aria-label="`Call ${stage.name} in a round`"
              @click="emit('call', stage)"
            >
              Call in a round
            </button>
          </p>
        </header>
        <ol>
          <li
            v-for="card in stage.cards"
            :key="card.id"
            class="card"
            :class="{ peeked: card.id === peeked, waits: card.waits, held: dragged?.card.id === card.id }"
            :draggable="board?.mayMove"
            @dragstart="begin($event, card, stage)"
            @dragend="dragged = null"
          >
            <p class="first">
              <NuxtLink
                class="open"
                :to="`/record/${card.id}`"
                draggable="false"
              >
                {{ card.name }}
              </NuxtLink>
            </p>
            <p
              v-if="card.about || card.money"
              class="first small"
            >
              <span>{{ card.about }}</span>
              <span
                v-if="card.money"
                class="figures money"
              >{{ amount(card.money.amount, card.money.currency) }}</span>
            </p>
            <p class="small quiet">
              {{ about(card) }}
            </p>
            <p
              v-if="card.waits"
              class="small waiting"
            >
              waits for an answer
            </p>
            <p class="acts small">
              <button
                type="button"
                class="plain-button calm"
                tabindex="-1"
                @click="emit('peek', card, true)"
              >
                Text
              </button>
              <button
                v-if="board?.mayMove"
                type="button"
                class="plain-button calm"
                tabindex="-1"
                aria-haspopup="menu"
                :aria-label="`Move ${card.name}`"
                @click="askWhere($event, card, stage)"
              >
                Move
              </button>
            </p>
          </li>
        </ol>
        <p
          v-if="stage.count === 0"
          class="quiet small none"
        >
          Nobody and nothing here.
        </p>
        <button
          v-if="stage.cards.length < stage.count"
          type="button"
          class="plain-button small more"
          @click="showMore(stage.id)"
        >
          {{ (stage.count - stage.cards.length).toLocaleString('en-US') }} more
        </button>
      </section>
      <template v-if="!board && !problem">
        <section
          v-for="i in 5"
          :key="i"
          class="stage shape"
        >
          <span
            v-for="j in 4"
            :key="j"
          />
        </section>
      </template>
    </div>
    <Menu
      ref="menu"
      :model="places"
      popup
    />
  </div>
</template>

<style scoped>
.board { display: grid; gap: var(--space-2); min-width: 0; }
.told { min-height: 1.6rem; }
.columns { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(11.5rem, 1fr); overflow-x: auto; border-top: 1px solid var(--field-rule); }
.stage { padding: var(--space-3) var(--space-4) var(--space-6); border-left: 1px solid var(--rule); min-width: 0; transition: background var(--move); }
.stage:first-child { border-left: 0; padding-left: 0; }
.stage.target { background: var(--accent-ground); box-shadow: inset 0 3px var(--accent); }
.head { display: grid; grid-template-columns: 1fr auto; align-items: baseline; padding-bottom: var(--space-3); }
.head h2 { font-size: var(--size); }
.stage.over h2 { color: var(--quiet); }
.worth { grid-column: 1 / -1; min-height: 1.2em; }
.card { padding: var(--space-3) var(--space-1) var(--space-3) var(--space-3); border-top: 1px solid var(--rule); border-left: 3px solid transparent; overflow-wrap: anywhere; position: relative; }
.card[draggable='true'] { cursor: grab; }
.card:hover, .card:focus-within { background: var(--hover); }
.card.waits { border-left-color: var(--waiting); }
.card.peeked { box-shadow: inset 3px 0 var(--accent); }
.card.held { opacity: 0.45; }
.first { display: flex; justify-content: space-between; gap: var(--space-3); align-items: baseline; }
.open { color: var(--ink); font-weight: 700; text-decoration: none; }
.open:hover { color: var(--accent); }
.money { white-space: nowrap; }
.waiting { color: var(--waiting); font-weight: 700; }
.acts { display: flex; gap: var(--space-5); position: absolute; right: 0.3rem; bottom: 0.3rem; padding: 0 var(--space-2); background: var(--hover); opacity: 0; }
.card:hover .acts, .card:focus-within .acts { opacity: 1; }
.none, .more { padding-top: var(--space-2); }
.shape { display: grid; gap: var(--space-5); align-content: start; }
.shape span { display: block; height: 2.2rem; background: var(--hover); border-radius: var(--round-small); }
@media (hover: none) { .acts { position: static; opacity: 1; background: none; padding: var(--space-1) 0 0; } }
@media (prefers-reduced-motion: reduce) { .stage { transition: none; } }
</style>
