<script setup lang="ts">
import type { Family } from '~~/core/call/family'
import type { DispositionPreview } from '~~/shared/calling'
import { saidToReader } from '~/words/reader'

/** How did it go? A field of keys, each with its letter and what it will set off for this person. */
const { dispositions, chosenId, first, left, ready } = defineProps<{
  dispositions: DispositionPreview[]
  chosenId: string | null
  /** The family that fits how the call ended. */
  first: Family
  /** Whether a message was left on a mailbox. */
  left: boolean
  /** Whether the call is over: before that a key only shows what it will do, and keeps what is said of it. */
  ready: boolean
}>()
const emit = defineEmits<{ look: [id: string], press: [id: string] }>()

const NAMES: Record<Family, string> = { 'reached': 'Reached', 'not-reached': 'Not reached' }
const families = computed(() => (first === 'reached' ? ['reached', 'not-reached'] as const : ['not-reached', 'reached'] as const)
  .map(family => ({ family, keys: inFront(dispositions.filter(one => one.family === family)) })).filter(({ keys }) => keys.length > 0))
/** After a message was left, what says so stands in front, by the words that teams call it by (common practice). */
const inFront = (keys: DispositionPreview[]) => left ? keys.toSorted((a, b) => Number(saysLeft(b)) - Number(saysLeft(a))) : keys
const saysLeft = ({ name }: DispositionPreview) => /\b(?:message|voicemail|mailbox)\b/i.test(name)

const sum = ({ effects }: DispositionPreview) =>
  effects.length === 0
    ? 'only the note'
    : saidToReader(effects.map(({ words, problem, effect }) => (problem && effect.kind === 'text' ? `no text: ${problem}` : words)).join('. '))

/** The next key in reading order, for the arrows. */
function onKey(event: KeyboardEvent): void {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
  const keys = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('button')]
  const at = keys.indexOf(document.activeElement as HTMLElement)
  if (!step || at < 0) return
  event.preventDefault()
  keys[(at + step + keys.length) % keys.length]!.focus()
}
</script>

<template>
  <div
    class="keys"
    @keydown="onKey"
  >
    <section
      v-for="({ family, keys }, index) in families"
      :key="family"
      :aria-label="NAMES[family]"
    >
      <h3>{{ index === 0 ? `How did it go? ${NAMES[family]}` : NAMES[family] }}</h3>
      <div class="board">
        <button
          v-for="one in keys"
          :key="one.id"
          type="button"
          class="key"
          :class="{ chosen: one.id === chosenId }"
          :aria-pressed="ready ? undefined : one.id === chosenId"
          :aria-describedby="`sum-${one.id}`"
          @focus="emit('look', one.id)"
          @mouseenter="emit('look', one.id)"
          @click="emit('press', one.id)"
        >
          <span
            class="letter"
            :class="`key-${one.colour}`"
          >{{ one.letter.toUpperCase() }}</span>
          <span class="name">{{ one.name }}</span>
          <span
            :id="`sum-${one.id}`"
            class="sum small quiet"
          >{{ sum(one) }}</span>
        </button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.keys { display: grid; gap: var(--space-5); }
.keys h3 { font-size: var(--size-small); padding-bottom: var(--space-2); }
.board { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); border: solid var(--rule); border-width: 1px 0 0 1px; }
.key { display: grid; grid-template-columns: 1.4rem minmax(0, 1fr); gap: var(--space-hair) var(--space-3); align-content: start; text-align: left; min-height: 4.6rem; padding: var(--space-4) var(--space-5); border: solid var(--rule); border-width: 0 1px 1px 0; background: var(--surface); cursor: pointer; }
.key.chosen { outline: 2px solid var(--accent); outline-offset: -2px; }
.key:focus-visible { outline: 3px solid var(--accent); outline-offset: -3px; }
.letter { grid-row: span 2; font-family: var(--heading); font-size: var(--size-large); font-weight: 700; line-height: 1.2; }
.name { font-weight: 700; }
.sum { line-height: 1.35; }
@media (max-width: 700px) { .board { grid-template-columns: minmax(0, 1fr); } }
</style>
