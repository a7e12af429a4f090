<script setup lang="ts">
import { expected, tells } from '~~/core/plan/answers'
import type { ExpectedAnswers } from '~~/shared/bulk-texts'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { clock, span } from '~/words/time'

/** How many answers are to be expected, and the way to go no faster than they can be worked off. */
const { answers, error } = defineProps<{ answers: ExpectedAnswers, error?: string }>()
/** How many an hour can be; empty: as fast as the lines allow. */
const anHour = defineModel<string>({ required: true })
const { zone } = useMe().me!

/** One every three minutes (common practice). */
const EACH_AN_HOUR = 20
const suggested = computed(() => Math.max(1, answers.answering) * EACH_AN_HOUR)
const brought = computed(() => {
  const { hits, of } = answers.brought
  const found = { texted: of, answered: hits, delays: [] }
  const { share, low, high } = expected(found)
  const percent = `${Math.round(share * 100)} in a hundred (${Math.round(low * 100)} to ${Math.round(high * 100)})`
  if (!tells(found)) return `Too little like it has been sent to tell: reckoned with ${percent} who answer.`
  return `Of ${many(of, 'text', 'texts')} like it, ${percent} were answered${answers.medianMs === null ? '' : `, half of them within ${span(answers.medianMs)}`}.`
})
</script>

<template>
  <div class="pace">
    <p
      v-if="answers.busiest"
      class="quiet"
    >
      {{ brought }} That makes <strong>{{ many(answers.busiest.likely, 'answer', 'answers') }}</strong> ({{ answers.busiest.low.toLocaleString('en-US') }} to {{ answers.busiest.high.toLocaleString('en-US') }}) in the busiest hour, from {{ clock(answers.busiest.from, zone) }}, for {{ many(answers.answering, 'colleague', 'colleagues') }}.
    </p>
    <p>
      <label for="bulk-an-hour">No faster than</label>
      <input
        id="bulk-an-hour"
        v-model="anHour"
        class="plain-field few"
        inputmode="numeric"
        autocomplete="off"
        :aria-invalid="!!error"
        aria-describedby="bulk-an-hour-error"
      > answers an hour{{ anHour === '' ? ': as fast as the lines allow' : '' }}
      <button
        v-if="anHour === ''"
        type="button"
        class="plain-button"
        @click="anHour = String(suggested)"
      >
        {{ suggested }}, {{ EACH_AN_HOUR }} for each colleague
      </button>
    </p>
    <p
      id="bulk-an-hour-error"
      class="field-error"
      role="alert"
    >
      {{ error }}
    </p>
  </div>
</template>

<style scoped>
.pace { display: grid; gap: var(--space-2); }
.few { width: 4rem; margin-inline: var(--space-3); }
.plain-button { margin-left: var(--space-4); }
.field-error:empty { display: none; }
</style>
