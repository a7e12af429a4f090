<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { FilledTemplate } from '~~/shared/template'
import { problemIn } from '~/composables/trying'

/** What whoever sends a template fills in, with the text as it would go. */
const { template, fill } = defineProps<{
  template: FilledTemplate
  fill: (templateId: string, answers: Record<string, string>) => Promise<Pick<FilledTemplate, 'text' | 'missing'>>
}>()
const emit = defineEmits<{ filled: [text: string], back: [] }>()

const answers = ref<Record<string, string>>(Object.fromEntries(template.fillIns.map(({ key }) => [key, ''])))
const errors = ref<Record<string, string>>({})
const text = ref(template.text ?? '')
const missing = ref<string[]>([])
const complete = computed(() => template.fillIns.every(({ key }) => answers.value[key]?.trim()))
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector<HTMLElement>('input, select')?.focus())

async function refill(): Promise<boolean> {
  try {
    const filled = await fill(template.id, answers.value)
    errors.value = {}
    missing.value = filled.missing
    if (filled.text) text.value = filled.text
    return filled.text !== null
  }
  catch (error) {
    const { fields, message } = problemIn(error)
    errors.value = Object.fromEntries(Object.entries(fields).map(([key, reason]) => [key.replace('answers.', ''), reason]))
    if (Object.keys(errors.value).length === 0) missing.value = [message]
    return false
  }
}

// shown as it is filled in; what is still empty is no mistake yet
watchDebounced(answers, () => complete.value && void refill(), { deep: true, debounce: 200 })

async function take(): Promise<void> {
  if (await refill()) emit('filled', text.value)
  else await nextTick(() => form.value?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus())
}
</script>

<template>
  <form
    ref="form"
    class="fill-ins"
    :aria-label="`Fill in ${template.name}`"
    novalidate
    @submit.prevent="take"
    @keydown.enter.stop
    @keydown.esc.stop.prevent="emit('back')"
  >
    <FillInFields
      v-model="answers"
      :fill-ins="template.fillIns"
      of="fill-in"
      :errors="errors"
    />
    <p
      v-if="missing.length > 0"
      class="notice"
      role="alert"
    >
      {{ missing.join(', ') }}: empty on this record, and the template has no stand-in.
    </p>
    <p
      class="filled"
      :class="{ examples: !complete }"
      aria-live="polite"
    >
      {{ text }}
    </p>
    <p class="acts small quiet">
      <Button
        type="submit"
        size="small"
        label="Insert it"
      />
      <span v-if="!complete">Examples stand in it until you fill them in.</span>
    </p>
  </form>
</template>

<style scoped>
.fill-ins { display: grid; grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr)); gap: var(--space-4) var(--space-6); align-items: start; }
.notice, .filled, .acts { grid-column: 1 / -1; }
.filled { white-space: pre-wrap; font-size: var(--size-text); border-left: 3px solid var(--accent); padding-left: var(--space-5); }
.examples { color: var(--quiet); }
.acts { display: flex; align-items: center; gap: var(--space-6); }
</style>
