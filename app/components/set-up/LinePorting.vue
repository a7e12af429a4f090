<script setup lang="ts">
import { ANSWERS_WITHIN_DAYS } from '~~/core/lines/porting'
import type { PortingForm } from '~~/shared/schemas/line'
import type { SetUpLine } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { PORTING_STEPS, portingAt } from '~/words/lines'
import { calendarDay, shortDay } from '~/words/time'

/** The steps by which a number is brought over, where it stands, and asking again with what was wrong put right. */
const { line } = defineProps<{ line: SetUpLine }>()
const emit = defineEmits<{ saved: [lines: SetUpLine[]] }>()

const now = useNow()
const zone = computed(() => useMe().me!.zone)
const porting = computed(() => line.porting!)
const at = computed(() => portingAt(porting.value))
const mending = ref(false)
const form = ref<PortingForm>({ from: '', account: '', wishedDay: '' })
function mend(): void {
  const { from, account, wishedDay } = porting.value
  form.value = { from, account, wishedDay }
  mending.value = true
}
const { errors, saving, save } = useSaving('from')
const again = () => save(async () => {
  emit('saved', await api<SetUpLine[]>(`/api/set-up/lines/${line.id}/porting`, { method: 'PUT', body: form.value }))
  mending.value = false
})
/** When each step was, or will be. */
const whenOf = (step: number) =>
  step === 0 ? shortDay(porting.value.askedAt, zone.value) : step === 2 && porting.value.day ? calendarDay(porting.value.day) : ''
const days = computed(() => Math.max(0, Math.floor((now.value - porting.value.askedAt) / 86_400_000)))
</script>

<template>
  <ol
    class="steps"
    :aria-label="`Bringing ${line.name} over from ${porting.from}`"
  >
    <li
      v-for="(words, i) in PORTING_STEPS"
      :key="words"
      :class="{ done: i < at, here: i === at }"
      :aria-current="i === at ? 'step' : undefined"
    >
      {{ words.replace('…', porting.from) }} <span class="quiet small">{{ whenOf(i) }}</span>
    </li>
  </ol>
  <div v-if="porting.state === 'sent-back'">
    <p class="back">
      {{ porting.from }} has sent it back: “{{ porting.words }}”
    </p>
    <button
      v-if="!mending"
      type="button"
      class="plain-button"
      :aria-label="`Put it right and ask again: ${line.name}`"
      @click="mend"
    >
      Put it right and ask again
    </button>
    <form
      v-else
      class="mend"
      novalidate
      @submit.prevent="again"
    >
      <PortingFields
        v-model="form"
        :errors="errors"
      />
      <p>
        <Button
          type="submit"
          label="Ask again"
          :loading="saving"
        />
        <button
          type="button"
          class="plain-button calm"
          @click="mending = false"
        >
          Leave it
        </button>
      </p>
    </form>
  </div>
  <p
    v-else-if="porting.state === 'asked' && days > ANSWERS_WITHIN_DAYS"
    class="back"
  >
    No answer for {{ days }} days: ask {{ porting.from }}.
  </p>
</template>

<style scoped>
.steps { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: var(--space-2) var(--space-5); list-style: none; padding: 0; margin: 0; }
.steps li { color: var(--quiet); border-top: 3px solid var(--rule); padding-top: var(--space-2); }
.steps .done { color: var(--ink); border-top-color: var(--good); }
.steps .here { color: var(--ink); font-weight: 700; border-top-color: var(--accent); }
.back { color: var(--waiting); }
.mend { display: grid; gap: var(--space-4); max-width: 30rem; padding-top: var(--space-3); }
@media (max-width: 500px) { .steps { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
.mend p { display: flex; gap: var(--space-5); align-items: center; }
</style>
