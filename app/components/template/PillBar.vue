<script setup lang="ts">
import type { Field } from '~~/core/template/fields'
import { DATE_FORMATS, type DateFormat } from '~~/core/template/date-formats'
import type { FieldPiece, Format } from '~~/core/template/pieces'
import { readersFormat } from '~/words/reader'

/** What the chosen pill says where it is empty, and in which format. */
const { piece, field, label } = defineProps<{ piece: FieldPiece, field?: Field, label: string }>()
const emit = defineEmits<{ change: [piece: FieldPiece], remove: [] }>()

/** Of a day there is no time to say. */
const DAY_FORMATS: DateFormat[] = ['day', 'long', 'weekday']
const EXAMPLE = { year: 2026, month: 12, day: 3, hour: 9, minute: 30, weekday: 4 }
const formats = computed<{ value: Format | null, label: string }[]>(() => {
  if (field?.kind === 'date')
    return DAY_FORMATS.map(key => ({ value: `date:${key}` as Format, label: DATE_FORMATS[key](EXAMPLE, readersFormat()) }))
  if (field?.kind === 'money' || field?.kind === 'number') return [{ value: null, label: 'as it is' }, { value: 'money', label: '1,280' }]
  if (field?.kind === 'text')
    return [
      { value: null, label: 'as it is' },
      { value: 'first_word', label: 'the first word' },
      { value: 'upcase', label: 'IN CAPITALS' },
    ]
  return []
})
const known = computed(() => formats.value.some(({ value }) => value === piece.format))
const standIn = ref(piece.standIn ?? '')
</script>

<template>
  <div
    class="pill-bar"
    role="group"
    :aria-label="`The field ${label}`"
  >
    <strong>{{ label }}</strong>
    <label>where it is empty <input
      v-model="standIn"
      class="plain-field blank"
      placeholder="nothing is sent"
      @change="emit('change', { ...piece, standIn: standIn === '' ? null : standIn })"
      @keydown.enter.prevent="emit('change', { ...piece, standIn: standIn === '' ? null : standIn })"
    ></label>
    <label v-if="formats.length > 0">written as <select
      class="plain-field blank"
      :value="piece.format"
      @change="emit('change', { ...piece, format: (($event.target as HTMLSelectElement).value || null) as Format | null })"
    >
      <option
        v-if="!known"
        :value="piece.format"
      >{{ piece.format?.replace('date:', '') ?? 'as it is' }}</option>
      <option
        v-for="one in formats"
        :key="one.label"
        :value="one.value ?? ''"
        :selected="one.value === piece.format"
      >{{ one.label }}</option>
    </select></label>
    <button
      type="button"
      class="plain-button calm"
      @click="emit('remove')"
    >
      Remove it
    </button>
  </div>
</template>

<style scoped>
.pill-bar { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-2) var(--space-6); border-left: 3px solid var(--accent); padding: var(--space-1) 0 var(--space-1) var(--space-5); }
.pill-bar label { display: inline-flex; align-items: center; gap: var(--space-2); color: var(--quiet); }
.blank { padding: var(--space-1) var(--space-3); width: 10rem; }
.blank::placeholder { color: var(--quiet); opacity: 1; }
</style>
