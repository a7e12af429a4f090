<script setup lang="ts">
import { shapeOf, TESTS, type Condition, type Test } from '~~/core/conditions/conditions'
import type { ListColumn } from '~~/shared/list'
import { TEST_WORDS } from '~/words/conditions'

/**
 * One condition: which field, how it is asked, and what it is compared with.
 *
 * Its choices open within it, not at the end of the page: an option is taken when the mouse goes down, so whoever holds it
 * longer than the choices take to close lets it go over what is beneath, and beside the form that would close the form.
 */
const { condition, columns } = defineProps<{ condition: Condition | null, columns: ListColumn[] }>()
const emit = defineEmits<{ done: [condition: Condition | null] }>()

const field = ref(condition?.field ?? '')
const test = ref<Test | null>(condition?.test ?? null)
const value = ref<string>(Array.isArray(condition?.value) || condition?.value === undefined ? '' : String(condition.value))
const chosen = ref<string[]>(Array.isArray(condition?.value) ? condition.value : [])
const error = ref('')

const form = useTemplateRef<HTMLElement>('form')
onMounted(() => form.value?.querySelector<HTMLElement>('[role="combobox"]')?.focus())

const column = computed(() => columns.find(one => one.key === field.value) ?? null)
const tests = computed(() => column.value ? TESTS[column.value.kind].map(one => ({ value: one, label: TEST_WORDS[one] })) : [])
const shape = computed(() => column.value && test.value ? shapeOf(test.value, column.value.kind) : 'nothing')
watch(field, () => {
  test.value = tests.value[0]?.value ?? null
  value.value = ''
  chosen.value = []
})

const VALUE_LABELS = { words: 'Words', number: 'Number', day: 'Day', days: 'Days', choices: '' }
const MISSING = {
  words: 'Type what to look for.',
  number: 'Type a number.',
  day: 'Choose a day.',
  days: 'Type how many days.',
  choices: 'Choose at least one.',
}

function done(): void {
  if (!column.value || !test.value) return
  const kind = shape.value
  const empty = kind === 'choices' ? chosen.value.length === 0 : kind !== 'nothing' && value.value.trim() === ''
  error.value = empty && kind !== 'nothing' ? MISSING[kind] : ''
  if (error.value) return
  const compared
    = kind === 'nothing'
      ? {}
      : { value: kind === 'choices' ? chosen.value : kind === 'number' || kind === 'days' ? Number(value.value) : value.value.trim() }
  emit('done', { field: field.value, test: test.value, ...compared })
}
</script>

<template>
  <form
    ref="form"
    class="form"
    @submit.prevent="done"
  >
    <LabelledField
      id="condition-field"
      v-slot="{ choice }"
      label="Field"
    >
      <Select
        v-bind="choice"
        v-model="field"
        :options="columns"
        option-value="key"
        option-label="label"
        append-to="self"
        filter
        placeholder="Choose a field"
      />
    </LabelledField>
    <LabelledField
      v-if="column"
      id="condition-test"
      v-slot="{ choice }"
      label="How"
    >
      <Select
        v-bind="choice"
        v-model="test"
        :options="tests"
        append-to="self"
        option-value="value"
        option-label="label"
      />
    </LabelledField>
    <fieldset
      v-if="shape === 'choices'"
      class="choices"
    >
      <legend class="heard-only">
        {{ column?.label }}
      </legend>
      <label
        v-for="choice in column?.choices"
        :key="choice.value"
        class="choice"
      >
        <input
          v-model="chosen"
          type="checkbox"
          :value="choice.value"
        >
        {{ choice.label }}
      </label>
      <p
        v-if="!column?.choices?.length"
        class="quiet"
      >
        There is none yet.
      </p>
    </fieldset>
    <LabelledField
      v-else-if="shape !== 'nothing'"
      id="condition-value"
      v-slot="{ input }"
      :label="VALUE_LABELS[shape]"
      :error="error"
    >
      <DayField
        v-if="shape === 'day'"
        v-bind="input"
        v-model="value"
        roomy
      />
      <InputText
        v-else
        v-bind="input"
        v-model="value"
        :type="shape === 'words' ? 'text' : 'number'"
        :min="shape === 'days' ? 0 : undefined"
        :step="shape === 'number' ? 'any' : 1"
        autocomplete="off"
      />
    </LabelledField>
    <p
      v-if="error && shape === 'choices'"
      class="field-error"
      role="alert"
    >
      {{ error }}
    </p>
    <p
      v-if="column"
      class="ways"
    >
      <Button
        type="submit"
        label="Add this condition"
      />
      <button
        v-if="condition"
        type="button"
        class="plain-button calm"
        @click="emit('done', null)"
      >
        Remove it
      </button>
    </p>
  </form>
</template>

<style scoped>
.form { display: grid; gap: var(--space-4); width: 18rem; }
.choices { border: 0; margin: 0; padding: 0; display: grid; gap: var(--space-2); max-height: 14rem; overflow-y: auto; }
.choice { display: flex; gap: var(--space-3); align-items: baseline; }
.choice input { accent-color: var(--accent); }
.ways { display: flex; gap: var(--space-6); align-items: center; }
</style>
