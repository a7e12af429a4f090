<script setup lang="ts">
import { wrongLink } from '~~/core/message/cautions'
import { measureText } from '~~/core/text/measure'
import { swapsIn } from '~~/core/text/swaps'
import { toPieces } from '~~/core/template/pieces'
import type { TemplateTrial } from '~~/shared/template'

/** What the writer of a template may want to change: mistakes with their place, and what makes the text dear. */
const { source, trial, labelOf } = defineProps<{ source: string, trial: TemplateTrial, labelOf: (path: string) => string }>()
const emit = defineEmits<{ swap: [from: string, to: string] }>()

const words = computed(() => toPieces(source).map(piece => piece.kind === 'words' ? piece.words : '').join(' '))
const dear = computed(() => swapsIn(words.value))
const measure = computed(() => trial.text ? measureText(trial.text) : null)
/** What all the swaps together save, for the person it is tried on. */
const saving = computed(() => {
  if (!measure.value || dear.value.length === 0) return 0
  return (
    measure.value.parts
    - measureText(dear.value.reduce((text, { char, swap }) => (swap === null ? text : text.replaceAll(char, swap)), trial.text!)).parts
  )
})
function swapAll(): void {
  for (const { char, swap } of dear.value) if (swap !== null) emit('swap', char, swap)
}
const unfinished = computed(() => words.value.includes('{{'))
const link = computed(() => wrongLink(words.value))
const named = computed(() => /\b(?:sender|firm)\./.test(source))
const oneTooMany = computed(
  () => measure.value && measure.value.parts > 1 && measureText(trial.text!.slice(0, -3)).parts < measure.value.parts,
)
const said = (char: string) => char === '\u00A0' ? 'a non-breaking space' : `“${char}”`
</script>

<template>
  <ul
    class="checks"
    aria-label="To look at"
  >
    <li
      v-for="(one, index) in trial.problems"
      :key="index"
      class="wrong"
    >
      <strong>Line {{ one.line }}, character {{ one.column }}:</strong> {{ one.message }}
    </li>
    <li
      v-for="hole in trial.holes"
      :key="hole.path"
      class="wrong"
    >
      <strong>{{ labelOf(hole.path) }}</strong> is empty for {{ trial.record?.name }}, so nothing would be sent. Choose its pill and say what stands in where it is empty.
    </li>
    <li
      v-if="unfinished"
      class="wrong"
    >
      “&#123;&#123;” begins a field, and none was chosen. Choose one, or take it out.
    </li>
    <li
      v-for="one in dear"
      :key="one.char"
    >
      {{ said(one.char) }} makes every part shorter, from 160 to 70 characters.
      <button
        v-if="one.swap !== null"
        type="button"
        class="plain-button"
        @click="emit('swap', one.char, one.swap)"
      >
        Write {{ one.swap === '' ? 'nothing' : one.swap === ' ' ? 'a plain space' : `“${one.swap}”` }}
      </button>
    </li>
    <li v-if="dear.filter(({ swap }) => swap !== null).length > 1">
      <button
        type="button"
        class="plain-button"
        @click="swapAll"
      >
        Swap them all
      </button>
    </li>
    <li
      v-if="saving > 0"
      class="quiet"
    >
      With all of them swapped it is {{ saving }} {{ saving === 1 ? 'part' : 'parts' }} shorter.
    </li>
    <li v-if="link">
      {{ link }}
    </li>
    <li v-if="!named && source.trim()">
      It does not say who is writing. As a first text it should: put in your name or the firm’s.
    </li>
    <li v-if="oneTooMany && measure">
      It needs {{ measure.parts }} parts for a few characters. Three fewer, and it is {{ measure.parts - 1 === 1 ? 'one part' : `${measure.parts - 1} parts` }}.
    </li>
  </ul>
</template>

<style scoped>
.checks { display: grid; gap: var(--space-2); color: var(--waiting); }
.checks:empty { display: none; }
.wrong { color: var(--wrong); }
</style>
