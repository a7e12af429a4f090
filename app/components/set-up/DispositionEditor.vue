<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { Family } from '~~/core/call/family'
import type { Effect } from '~~/core/effects/effects'
import { DISPOSITION_COLOURS, type DispositionColour, type OwnDisposition } from '~~/shared/calling'
import type { LineChoice } from '~~/shared/composer'
import type { GroupHead } from '~~/shared/groups'
import type { RoundHead } from '~~/shared/rounds'
import type { Field } from '~~/core/template/fields'
import type { PersonModule } from '~~/shared/modules'
import type { Pipeline, Stage } from '~~/shared/pipelines'
import type { TemplateDetail } from '~~/shared/template'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Making a disposition, or changing what one sets off. What was typed stays when saving fails. */
const { module, disposition } = defineProps<{ module: PersonModule, disposition: OwnDisposition | null }>()
const emit = defineEmits<{ saved: [dispositions: OwnDisposition[]], close: [] }>()

const id = disposition?.id ?? uuid()
const name = ref(disposition?.name ?? '')
const letter = ref(disposition?.letter ?? '')
const colour = ref<DispositionColour>(disposition?.colour ?? 'accent')
const family = ref<Family>(disposition?.family ?? 'reached')
const effects = ref<{ key: string, effect: Effect }[]>(disposition?.effects.map(effect => ({ key: uuid(), effect })) ?? [])
/** A list that drops down shows no choice whose value is nothing. */
const EVERY = 'every'
/** For all calls, or those over a line, or of a round: `line …`, `round …`. */
const purpose = ref(disposition?.onlyLineId ? `line ${disposition.onlyLineId}` : disposition?.onlyRoundId ? `round ${disposition.onlyRoundId}` : EVERY)
const purposes = ref([
  { value: EVERY, label: 'Every call' },
  ...disposition?.purpose ? [{ value: purpose.value, label: disposition.purpose }] : [],
])
const idOf = (kind: string) => purpose.value.startsWith(kind) ? purpose.value.slice(kind.length + 1) : null
const { errors, saving, save: saveWith } = useSaving('name')
const templates = shallowRef<TemplateDetail[]>([])
const fields = shallowRef<Field[]>([])
const stages = shallowRef<Stage[]>([])
const groups = shallowRef<GroupHead[]>([])
const fitting = computed(() => templates.value.filter(({ modules, audience }) => modules.includes(module) && audience !== 'mine'))
const COLOUR_WORDS: Record<DispositionColour, string> = {
  accent: 'Mulberry',
  good: 'Pine',
  waiting: 'Saffron',
  calm: 'Slate',
  wrong: 'Brick',
  plain: 'Ink',
}
const FAMILIES: { value: Family, label: string }[] = [
  { value: 'reached', label: 'Somebody was reached' },
  { value: 'not-reached', label: 'Nobody was reached' },
]

// without them a text can still be left as it is; choosing another one waits for the list
api<TemplateDetail[]>('/api/templates').then(
  all => (templates.value = all),
  () => (errors.value = { effects: 'The templates could not be loaded. Close this and open it again.' }),
)
api<Field[]>('/api/fields', { query: { module } }).then(
  all => (fields.value = all),
  () => (errors.value = { effects: 'The fields could not be loaded. Close this and open it again.' }),
)
api<Pipeline[]>('/api/pipelines', { query: { holds: module } }).then(
  all => (stages.value = all.flatMap(one => one.stages)),
  () => (errors.value = { effects: 'The stages could not be loaded. Close this and open it again.' }),
)

api<GroupHead[]>('/api/groups').then(
  all => (groups.value = all.filter(one => one.way === 'hand')),
  () => (errors.value = { effects: 'The groups could not be loaded. Close this and open it again.' }),
)

Promise.all([api<LineChoice[]>('/api/lines'), api<RoundHead[]>('/api/rounds')]).then(
  ([lines, rounds]) => purposes.value = [
    { value: EVERY, label: 'Every call' },
    ...lines.map(({ id, name }) => ({ value: `line ${id}`, label: `Calls over ${name}` })),
    ...rounds.filter(round => round.module === module).map(({ id, name }) => ({ value: `round ${id}`, label: `Calls of the round “${name}”` })),
    ...purposes.value.filter(({ value }) => value !== EVERY && ![...lines, ...rounds].some(({ id }) => value.endsWith(id))),
  ],
  () => (errors.value = { purpose: 'The lines and rounds could not be loaded. Close this and open it again.' }),
)

const errorOf = (place: number) => Object.entries(errors.value).find(([path]) => path.startsWith(`effects[${place}]`))?.[1] ?? ''

const save = () => saveWith(async () => {
  const body = {
    id,
    module,
    name: name.value,
    letter: letter.value.trim(),
    family: family.value,
    colour: colour.value,
    onlyLineId: idOf('line'),
    onlyRoundId: idOf('round'),
    effects: effects.value.map(({ effect }) => effect),
  }
  emit('saved', await api<OwnDisposition[]>('/api/set-up/dispositions', { method: 'PUT', body }))
})
</script>

<template>
  <FormDialog
    :header="disposition ? `Change “${disposition.name}”` : 'A new disposition'"
    width="40rem"
    :written="{ name, letter, colour, family, effects, purpose }"
    @close="emit('close')"
  >
    <form
      class="form"
      @submit.prevent="save"
    >
      <div class="top">
        <LabelledField
          id="disposition-name"
          v-slot="{ input }"
          label="Name"
          :error="errors.name"
        >
          <InputText
            v-bind="input"
            v-model="name"
            placeholder="Wants an offer"
            autocomplete="off"
          />
        </LabelledField>
        <LabelledField
          id="disposition-letter"
          v-slot="{ input }"
          label="Letter"
          :error="errors.letter"
        >
          <InputText
            v-bind="input"
            v-model="letter"
            maxlength="1"
            class="letter"
            autocomplete="off"
          />
        </LabelledField>
        <LabelledField
          id="disposition-family"
          v-slot="{ choice }"
          label="When"
          :error="errors.family"
        >
          <Select
            v-bind="choice"
            v-model="family"
            :options="FAMILIES"
            option-value="value"
            option-label="label"
          />
        </LabelledField>
      </div>
      <LabelledField
        id="disposition-purpose"
        v-slot="{ choice }"
        label="Offered after"
        :error="errors.purpose ?? errors.onlyLineId ?? errors.onlyRoundId ?? ''"
      >
        <Select
          v-bind="choice"
          v-model="purpose"
          :options="purposes"
          option-value="value"
          option-label="label"
        />
      </LabelledField>
      <fieldset class="colours">
        <legend class="quiet small">
          Colour of its key
        </legend>
        <label
          v-for="one in DISPOSITION_COLOURS"
          :key="one"
          :class="`key-${one}`"
        ><input
          v-model="colour"
          type="radio"
          name="colour"
          :value="one"
        > {{ COLOUR_WORDS[one] }}</label>
      </fieldset>
      <div>
        <p class="quiet small">
          What it sets off, in this order. Each can be changed or left out on the call.
        </p>
        <EffectFields
          v-for="(one, place) in effects"
          :key="one.key"
          v-model="one.effect"
          :place="place"
          :templates="fitting"
          :stages="stages"
          :groups="groups"
          :fields="fields"
          :error="errorOf(place)"
          @remove="effects.splice(place, 1)"
        />
        <p
          v-if="errors.effects"
          class="field-error"
        >
          {{ errors.effects }}
        </p>
        <button
          type="button"
          class="plain-button add"
          @click="effects.push({ key: uuid(), effect: { kind: 'text', templateId: '' } })"
        >
          Add an effect
        </button>
      </div>
      <Button
        type="submit"
        :label="disposition ? 'Save the change' : 'Save the disposition'"
        :loading="saving"
      />
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-6); justify-items: start; }
.form > div { width: 100%; }
.top { display: grid; grid-template-columns: minmax(0, 1fr) 5rem minmax(0, 14rem); gap: var(--space-6); align-items: start; }
.colours { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); border: 0; padding: 0; margin: 0; }
.colours legend { float: left; padding: 0 var(--space-4) 0 0; }
.colours label { display: inline-flex; gap: var(--space-2); align-items: center; min-height: 24px; font-weight: 700; cursor: pointer; }
.letter { width: 100%; text-transform: uppercase; text-align: center; }
.add { padding-top: var(--space-3); }
@media (max-width: 700px) { .top { grid-template-columns: minmax(0, 1fr); } }
</style>
