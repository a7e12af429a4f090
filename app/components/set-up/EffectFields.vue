<script setup lang="ts">
import type { Effect, EffectKind } from '~~/core/effects/effects'
import type { Field } from '~~/core/template/fields'
import { keyOf } from '~~/shared/fields'
import type { Stage } from '~~/shared/pipelines'
import { EFFECT_CHOICES, freshEffect } from '~/words/effects'

/** One effect of a disposition: what it does, and what it needs for that. */
const { templates, stages, groups, fields, error, place } = defineProps<{
  templates: { id: string, name: string }[]
  stages: Stage[]
  /** Those into which people are put by hand. */
  groups: { id: string, name: string }[]
  fields: Field[]
  error: string
  place: number
}>()
const emit = defineEmits<{ remove: [] }>()
const effect = defineModel<Effect>({ required: true })

const value = (event: Event) => (event.target as HTMLInputElement).value
const set = (values: object) => effect.value = { ...effect.value, ...values } as Effect
const field = computed(() => {
  const one = effect.value
  return one.kind === 'field' ? fields.find(other => keyOf(other) === one.field) : undefined
})
/** What it chooses one of, where it does. */
const chooses = computed(() => {
  const one = effect.value
  switch (one.kind) {
    case 'text': return { key: 'templateId', value: one.templateId, what: 'Template', from: templates }
    case 'stage': return { key: 'stageId', value: one.stageId, what: 'Stage', from: stages }
    case 'add-group': case 'remove-group': return { key: 'groupId', value: one.groupId, what: 'Group', from: groups }
    default: return null
  }
})
const days = (event: Event) => set({ days: value(event) === '' ? null : Number(value(event)) })
</script>

<template>
  <div class="effect">
    <select
      class="plain-field"
      :value="effect.kind"
      :aria-label="`Effect ${place + 1}`"
      @change="effect = freshEffect(value($event) as EffectKind)"
    >
      <option
        v-for="({ label }, kind) in EFFECT_CHOICES"
        :key="kind"
        :value="kind"
      >
        {{ label }}
      </option>
    </select>
    <select
      v-if="chooses"
      class="plain-field"
      :value="chooses.value"
      :aria-label="`${chooses.what} of effect ${place + 1}`"
      @change="set({ [chooses.key]: value($event) })"
    >
      <option value="">
        Choose a {{ chooses.what.toLowerCase() }}
      </option>
      <option
        v-for="one in chooses.from"
        :key="one.id"
        :value="one.id"
      >
        {{ one.name }}
      </option>
    </select>
    <input
      v-else-if="effect.kind === 'add-tag' || effect.kind === 'remove-tag'"
      class="plain-field"
      :value="effect.tag"
      :aria-label="`Tag of effect ${place + 1}`"
      placeholder="the tag"
      @input="set({ tag: value($event) })"
    >
    <template v-else-if="effect.kind === 'field'">
      <select
        class="plain-field"
        :value="effect.field"
        :aria-label="`Field of effect ${place + 1}`"
        @change="set({ field: value($event), value: null })"
      >
        <option value="">
          Choose a field
        </option>
        <option
          v-for="one in fields"
          :key="one.path"
          :value="keyOf(one)"
        >
          {{ one.label }}
        </option>
      </select>
      <FieldValueInput
        v-if="field"
        :field="field"
        :model-value="effect.value"
        :label="`Value of effect ${place + 1}`"
        empty="asks on the call"
        @update:model-value="set({ value: $event })"
      />
    </template>
    <template v-else-if="effect.kind === 'task' || effect.kind === 'call-back'">
      <input
        v-if="effect.kind === 'task'"
        class="plain-field"
        :value="effect.title"
        :aria-label="`What effect ${place + 1} has to be done`"
        placeholder="what is to be done"
        @input="set({ title: value($event) })"
      >
      <span class="when">
        <input
          type="number"
          min="0"
          max="730"
          class="plain-field days"
          :value="effect.days ?? ''"
          :aria-label="`Days of effect ${place + 1}`"
          :placeholder="effect.kind === 'call-back' ? 'asks' : ''"
          @input="days"
        > days later at
        <TimeField
          :model-value="effect.time"
          :aria-label="`Time of effect ${place + 1}`"
          @update:model-value="set({ time: $event })"
        />
      </span>
    </template>
    <button
      type="button"
      class="plain-button calm"
      :aria-label="`Remove effect ${place + 1}`"
      @click="emit('remove')"
    >
      Remove
    </button>
    <p
      v-if="error"
      class="field-error"
    >
      {{ error }}
    </p>
  </div>
</template>

<style scoped>
.effect { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-4); align-items: center; border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.effect select, .effect input { padding: var(--space-2) var(--space-3); }
.effect select { max-width: 15rem; }
.when { display: inline-flex; gap: var(--space-2); align-items: center; }
.days { width: 4.5rem; }
.effect .plain-button { margin-left: auto; }
.field-error { flex: 1 1 100%; }
</style>
