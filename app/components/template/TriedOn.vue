<script setup lang="ts">
import { measureText } from '~~/core/text/measure'
import type { TemplateTrial } from '~~/shared/template'

/** What of a template would be sent to one person, and what is wrong with it. */
const { source, trial, failed, labelOf } = defineProps<{
  /** The template as it is written. */
  source: string
  trial: TemplateTrial | null
  /** Why it could not be tried. */
  failed: string
  labelOf: (path: string) => string
}>()
/** On whom; whoever was contacted last, if nobody is chosen. */
const person = defineModel<{ id: string, name: string } | string | null>('person', { required: true })
const emit = defineEmits<{ swap: [from: string, to: string] }>()

const name = computed(() => trial?.record?.name ?? 'the person contacted last')
const measure = computed(() => trial?.text ? measureText(trial.text) : null)
</script>

<template>
  <section
    class="try"
    aria-label="What would be sent"
  >
    <LabelledField
      id="tried-on"
      v-slot="{ choice }"
      label="What would be sent to"
    >
      <RecordPicker
        v-model="person"
        kind="person"
        :choice="choice"
        :placeholder="name"
      />
    </LabelledField>
    <p
      v-if="failed"
      class="notice failed"
    >
      {{ failed }}
    </p>
    <p
      v-else-if="!trial"
      class="quiet"
    >
      Write a text, and it is shown here as {{ name }} would get it.
    </p>
    <template v-else>
      <div aria-live="polite">
        <p
          v-if="trial.text && measure"
          class="filled"
        >
          {{ trial.text }}
        </p>
        <p
          v-if="measure"
          class="small quiet figures"
        >
          {{ measure.units }} characters, {{ measure.parts === 1 ? '1 part' : `${measure.parts} parts` }}
        </p>
        <p
          v-if="!trial.record && trial.problems.length === 0"
          class="quiet"
        >
          There is nobody in these modules yet to try it on.
        </p>
      </div>
      <TemplateChecks
        :source="source"
        :trial="trial"
        :label-of="labelOf"
        @swap="(from, to) => emit('swap', from, to)"
      />
    </template>
  </section>
</template>

<style scoped>
.try { display: grid; gap: var(--space-4); align-content: start; min-width: 0; }
.filled { white-space: pre-wrap; overflow-wrap: anywhere; font-size: var(--size-text); border-left: 3px solid var(--accent); padding-left: var(--space-5); margin-bottom: var(--space-2); }
</style>
