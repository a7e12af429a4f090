<script setup lang="ts">
import { stepsFrom, type LineStep } from '~~/core/lines/life'
import type { SetUpLine } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayStep, STEP_WORDS } from '~/words/lines'

/** What can be done with a line, each after what it does has been read. */
const { line } = defineProps<{ line: SetUpLine }>()
const emit = defineEmits<{ stepped: [lines: SetUpLine[]] }>()

const asked = ref<LineStep | null>(null)
const zone = computed(() => useMe().me!.zone)
const steps = computed(() => stepsFrom(line.state))
const { problem, busy, trying } = useTrying()
const question = useTemplateRef<HTMLElement>('question')

async function askFirst(step: LineStep): Promise<void> {
  asked.value = step
  problem.value = ''
  await nextTick()
  // whoever came by key goes on by key, and a second press of it does nothing yet
  question.value?.focus()
}

const take = (step: LineStep) => trying(async () => {
  const lines = await api<SetUpLine[]>(`/api/set-up/lines/${line.id}/step`, { method: 'POST', body: { step } })
  asked.value = null
  emit('stepped', lines)
})

// a colleague or the carrier was quicker
watch(() => line.state, () => asked.value = null)
</script>

<template>
  <div
    v-if="asked"
    ref="question"
    class="notice ask"
    role="group"
    tabindex="-1"
    :aria-label="`${STEP_WORDS[asked]}: ${line.name}?`"
    @keydown.esc.stop="asked = null"
  >
    <p>{{ sayStep(asked, line, zone) }}</p>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
    <p class="acts">
      <button
        type="button"
        class="plain-button"
        :class="{ wrong: asked === 'end' }"
        :disabled="busy"
        @click="take(asked)"
      >
        {{ STEP_WORDS[asked] }}
      </button>
      <button
        type="button"
        class="plain-button calm"
        @click="asked = null"
      >
        Leave it as it is
      </button>
    </p>
  </div>
  <span
    v-else
    class="acts"
  >
    <button
      v-for="step in steps"
      :key="step"
      type="button"
      class="plain-button"
      :aria-label="`${STEP_WORDS[step]}: ${line.name}`"
      @click="askFirst(step)"
    >
      {{ STEP_WORDS[step] }}
    </button>
  </span>
</template>

<style scoped>
.ask { display: grid; gap: var(--space-3); }
.acts { display: inline-flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); }
</style>
