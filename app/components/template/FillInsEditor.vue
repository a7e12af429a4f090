<script setup lang="ts">
import { FILL_IN_KINDS, type FillIn } from '~~/core/template/fill-ins'
import { fieldKey } from '~~/core/fields/key'
import { KIND_WORDS } from '~/words/fields'

/** The blanks of a template, which whoever sends it fills in. */
const { readonly = false, errors = {} } = defineProps<{ readonly?: boolean, errors?: Record<string, string | undefined> }>()
const fillIns = defineModel<FillIn[]>({ required: true })
const emit = defineEmits<{ insert: [path: string, kind: FillIn['kind']] }>()

const editing = ref<number | null>(null)

function add(): void {
  fillIns.value = [
    ...fillIns.value,
    {
      key: fieldKey(
        `blank ${fillIns.value.length + 1}`,
        fillIns.value.map(({ key }) => key),
      ),
      label: '',
      kind: 'text',
      example: '',
      options: [],
    },
  ]
  editing.value = fillIns.value.length - 1
  void nextTick(() => document.getElementById(`fill-in-label-${editing.value}`)?.focus())
}
const change = (place: number, values: Partial<FillIn>) =>
  (fillIns.value = fillIns.value.map((one, i) => (i === place ? { ...one, ...values } : one)))

/** Its key follows its name until it stands in the text. */
function put(place: number): void {
  const one = fillIns.value[place]!
  const key
    = /^blank_\d+$/.test(one.key) && one.label
      ? fieldKey(
          one.label,
          fillIns.value.filter((_, i) => i !== place).map(({ key: other }) => other),
        )
      : one.key
  change(place, { key })
  emit('insert', `fill_in.${key}`, one.kind)
}
const options = (place: number) => fillIns.value[place]!.options.join('\n')
const error = (place: number) => Object.entries(errors).find(([path]) => path.startsWith(`fillIns[${place}]`))?.[1]
</script>

<template>
  <section>
    <h2>Filled in when it is sent</h2>
    <p
      v-if="fillIns.length === 0"
      class="quiet small"
    >
      A time, an amount, an order number: a blank that whoever sends it fills.
    </p>
    <ul class="all">
      <li
        v-for="(one, place) in fillIns"
        :key="place"
        class="one"
      >
        <p class="row">
          <strong>{{ one.label || 'A new blank' }}</strong>
          <span class="small quiet">{{ KIND_WORDS[one.kind] }}<template v-if="one.example">, such as {{ one.example }}</template></span>
          <template v-if="!readonly">
            <button
              type="button"
              class="plain-button"
              :disabled="one.label === ''"
              @click="put(place)"
            >
              Insert
            </button>
            <button
              type="button"
              class="plain-button calm"
              :aria-expanded="editing === place"
              @click="editing = editing === place ? null : place"
            >
              Change
            </button>
          </template>
        </p>
        <div
          v-if="editing === place"
          class="form"
        >
          <LabelledField
            :id="`fill-in-label-${place}`"
            v-slot="{ input }"
            label="What is asked for"
            :error="error(place)"
          >
            <InputText
              v-bind="input"
              :model-value="one.label"
              placeholder="Time"
              autocomplete="off"
              @update:model-value="change(place, { label: $event ?? '' })"
            />
          </LabelledField>
          <label class="field">Holds <select
            class="plain-field blank"
            :value="one.kind"
            @change="change(place, { kind: ($event.target as HTMLSelectElement).value as FillIn['kind'] })"
          >
            <option
              v-for="kind in FILL_IN_KINDS"
              :key="kind"
              :value="kind"
            >{{ KIND_WORDS[kind] }}</option>
          </select></label>
          <LabelledField
            :id="`fill-in-example-${place}`"
            v-slot="{ input }"
            label="An example"
          >
            <InputText
              v-bind="input"
              :model-value="one.example"
              placeholder="10:30"
              autocomplete="off"
              @update:model-value="change(place, { example: $event ?? '' })"
            />
          </LabelledField>
          <LabelledField
            v-if="one.kind === 'choice'"
            :id="`fill-in-options-${place}`"
            v-slot="{ input }"
            label="To choose from, one a line"
          >
            <Textarea
              v-bind="input"
              :model-value="options(place)"
              rows="3"
              @update:model-value="change(place, { options: ($event ?? '').split('\n').map((option: string) => option.trim()).filter(Boolean) })"
            />
          </LabelledField>
          <button
            type="button"
            class="plain-button calm"
            @click="fillIns = fillIns.filter((_, i) => i !== place); editing = null"
          >
            Remove it
          </button>
        </div>
      </li>
    </ul>
    <button
      v-if="!readonly"
      type="button"
      class="plain-button"
      @click="add"
    >
      One more blank
    </button>
  </section>
</template>

<style scoped>
.all { display: grid; gap: var(--space-2); padding: var(--space-2) 0; }
.row { display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-1) var(--space-5); }
.form { display: grid; grid-template-columns: 1fr 1fr; gap: var(--space-3) var(--space-5); align-items: end; padding: var(--space-2) 0 var(--space-3); }
.blank { padding: var(--space-2) var(--space-3); width: 100%; }
</style>
