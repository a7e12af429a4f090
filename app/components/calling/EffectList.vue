<script setup lang="ts">
import { DayField, TimeField } from '#components'
import type { Component } from 'vue'
import type { FillInKind } from '~~/core/template/fill-ins'
import { measureText } from '~~/core/text/measure'
import { showPhone } from '~~/core/phone/show'
import type { DispositionPreview } from '~~/shared/calling'
import type { EffectPreview } from '~~/shared/effects'
import type { Choice } from '~/composables/dispositions'
import { api } from '~/composables/api'
import { useMe } from '~/stores/me'
import { saidToReader } from '~/words/reader'

/** What a key is going to do for this person, each part to be changed, filled in or left out once. */
const { disposition, choices, recordId } = defineProps<{
  disposition: DispositionPreview
  choices: Record<number, Choice>
  recordId: string
}>()
const emit = defineEmits<{ say: [position: number, values: Partial<Choice>], enter: [] }>()

const me = useMe()
/** Texts filled with what was answered, by effect. */
const filled = ref<Record<number, string | null>>({})
const out = ({ position }: EffectPreview) => choices[position]?.leftOut ?? false
const textOf = (one: EffectPreview) => choices[one.position]?.text ?? filled.value[one.position] ?? one.text?.text ?? ''
const lengthOf = (text: string) => {
  const { units, parts } = measureText(text)
  return `${units} characters, ${parts === 1 ? '1 part' : `${parts} parts`}. Can be taken back for ${me.me!.takeBackSeconds} s`
}

/** Kept with each key: what is drawn anew meanwhile would take back what is only in the field. */
function keep(one: EffectPreview, key: string, value: string): Record<string, string> {
  const answers = { ...choices[one.position]?.answers, [key]: value }
  emit('say', one.position, { answers, text: null })
  return answers
}

async function answer(one: EffectPreview, key: string, value: string): Promise<void> {
  const answers = keep(one, key, value)
  if (one.effect.kind !== 'text' || one.text!.fillIns.some(({ key }) => !answers[key])) return
  const again = await api<{ text: string | null }>(`/api/records/${recordId}/templates/${one.effect.templateId}`, {
    method: 'POST',
    body: { answers },
  }).catch(() => null)
  if (again) filled.value = { ...filled.value, [one.position]: again.text }
}
const TYPED: Partial<Record<FillInKind, Component>> = { date: DayField, time: TimeField }
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <ul class="effects">
    <li
      v-for="one in disposition.effects"
      :key="one.position"
      :class="{ out: out(one) }"
    >
      <label class="what">
        <input
          type="checkbox"
          :checked="!out(one)"
          @change="emit('say', one.position, { leftOut: !out(one) })"
        >
        {{ saidToReader(one.words) }}
      </label>
      <template v-if="!out(one)">
        <p
          v-if="one.problem"
          class="small problem"
        >
          {{ saidToReader(one.problem) }}
        </p>
        <template v-else-if="one.text">
          <p class="small quiet">
            to {{ showPhone(one.text.to, true) }}, from {{ one.text.line }}
          </p>
          <p
            v-for="fillIn in one.text.fillIns"
            :key="fillIn.key"
            class="asked"
          >
            <label :for="`answer-${one.position}-${fillIn.key}`">{{ fillIn.label }}</label>
            <select
              v-if="fillIn.kind === 'choice'"
              :id="`answer-${one.position}-${fillIn.key}`"
              class="plain-field"
              data-asked
              :value="choices[one.position]?.answers[fillIn.key] ?? ''"
              @change="answer(one, fillIn.key, value($event))"
            >
              <option value="" />
              <option
                v-for="option in fillIn.options"
                :key="option"
              >
                {{ option }}
              </option>
            </select>
            <component
              :is="TYPED[fillIn.kind]"
              v-else-if="TYPED[fillIn.kind]"
              :id="`answer-${one.position}-${fillIn.key}`"
              data-asked
              :model-value="choices[one.position]?.answers[fillIn.key] ?? ''"
              @update:model-value="answer(one, fillIn.key, $event)"
              @keydown.enter.prevent="emit('enter')"
            />
            <input
              v-else
              :id="`answer-${one.position}-${fillIn.key}`"
              class="plain-field"
              data-asked
              :type="fillIn.kind === 'number' ? 'number' : 'text'"
              :placeholder="fillIn.kind === 'text' ? fillIn.example : undefined"
              :value="choices[one.position]?.answers[fillIn.key] ?? ''"
              @input="keep(one, fillIn.key, value($event))"
              @change="answer(one, fillIn.key, value($event))"
              @keydown.enter.prevent="answer(one, fillIn.key, value($event)).then(() => emit('enter'))"
            >
          </p>
          <textarea
            class="plain-field text"
            :aria-label="`Text of ${one.words}`"
            :value="textOf(one)"
            rows="4"
            @input="emit('say', one.position, { text: value($event) })"
          />
          <p class="small quiet figures">
            {{ lengthOf(textOf(one)) }}
          </p>
        </template>
        <p
          v-else-if="one.effect.kind === 'field' && one.field"
          class="asked"
        >
          <FieldValueInput
            :field="one.field"
            :label="one.field.label"
            :data-asked="one.effect.value === null ? '' : undefined"
            :model-value="choices[one.position]?.answers.value ?? one.effect.value"
            empty="say it now"
            @update:model-value="emit('say', one.position, { answers: { value: $event === null ? '' : String($event) } })"
            @keydown.enter.prevent="emit('enter')"
          />
        </p>
        <p
          v-else-if="one.effect.kind === 'task' || one.effect.kind === 'call-back'"
          class="asked"
        >
          <label :for="`day-${one.position}`">Day</label>
          <DayField
            :id="`day-${one.position}`"
            :data-asked="one.due ? undefined : ''"
            :model-value="choices[one.position]?.day ?? one.due?.wallTime.slice(0, 10) ?? ''"
            @update:model-value="emit('say', one.position, { day: $event || null })"
            @keydown.enter.prevent="emit('enter')"
          />
          <label :for="`time-${one.position}`">at</label>
          <TimeField
            :id="`time-${one.position}`"
            :model-value="choices[one.position]?.time ?? one.effect.time"
            @update:model-value="emit('say', one.position, { time: $event || null })"
          />
        </p>
      </template>
    </li>
    <li
      v-if="disposition.effects.length === 0"
      class="quiet"
    >
      Nothing but the note on the timeline.
    </li>
  </ul>
</template>

<style scoped>
.effects li { display: grid; gap: var(--space-1); padding: var(--space-3) 0; border-top: 1px solid var(--rule); }
.what { display: flex; gap: var(--space-3); align-items: baseline; cursor: pointer; }
.out .what { color: var(--quiet); text-decoration: line-through; }
.problem { color: var(--wrong); }
.text { width: 100%; border: 0; border-left: 3px solid var(--accent); background: var(--surface); padding: var(--space-1) var(--space-3); resize: vertical; line-height: 1.4; }
.asked { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-3); align-items: center; }
.asked input, .asked select { padding: var(--space-1) var(--space-2); max-width: 100%; }
.asked [data-asked]:not(:focus) { background: var(--waiting-ground); }
</style>
