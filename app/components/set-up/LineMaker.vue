<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { showPhone } from '~~/core/phone/show'
import type { CarrierChoice, LineChoices, SetUpLine } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'

/** Making a number that a carrier has given us a line. */
const { carriers } = defineProps<{ carriers: CarrierChoice[] }>()
const emit = defineEmits<{ saved: [lines: SetUpLine[]], close: [] }>()

const id = uuid()
const carrier = ref(carriers[0]!.name)
const number = ref('')
const name = ref('')
/** Whose it is: `team …` or `colleague …`. */
const whose = ref('')
const isPrivate = ref(false)
const choices = shallowRef<LineChoices | null>(null)
const { problem, trying } = useTrying()
const { errors, saving, save: saveWith } = useSaving('name')

watch(carrier, async (chosen) => {
  choices.value = null
  number.value = ''
  await trying(async () => {
    const found = await api<LineChoices>('/api/set-up/lines/choices', { query: { carrier: chosen } })
    // another one was chosen meanwhile
    if (chosen === carrier.value) choices.value = found
  })
}, { immediate: true })

const chosen = (kind: 'team' | 'colleague') => whose.value.startsWith(`${kind} `) ? whose.value.slice(kind.length + 1) : null

const save = () => saveWith(async () => emit('saved', await api<SetUpLine[]>('/api/set-up/lines', {
  method: 'POST',
  body: {
    id,
    carrier: carrier.value,
    number: number.value,
    name: name.value,
    teamId: chosen('team'),
    colleagueId: chosen('colleague'),
    private: chosen('colleague') !== null && isPrivate.value,
  },
})))
</script>

<template>
  <Dialog
    visible
    modal
    header="Add a line"
    :style="{ width: '30rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
      <ChoiceField
        id="line-carrier"
        v-model="carrier"
        label="Carrier"
        :choices="carriers.map(({ name: value, title }) => ({ value, label: title }))"
        :error="errors.carrier"
      />
      <p
        v-if="problem"
        class="field-error"
        role="alert"
      >
        {{ problem }}
      </p>
      <ChoiceField
        v-else-if="choices?.numbers"
        id="line-number"
        v-model="number"
        label="Number"
        :choices="choices.numbers.map(value => ({ value, label: showPhone(value, true) }))"
        :none="choices.numbers.length > 0 ? 'Choose one that it has given you' : 'All that it has given you are lines'"
        :error="errors.number"
      />
      <LabelledField
        v-else-if="choices"
        id="line-number"
        v-slot="{ input }"
        label="Number, as the carrier has given it to you"
        :error="errors.number"
      >
        <InputText
          v-bind="input"
          v-model="number"
          type="tel"
          autocomplete="off"
          placeholder="+1 503 555 0170"
        />
      </LabelledField>
      <LabelledField
        id="line-name"
        v-slot="{ input }"
        label="What colleagues call it"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="name"
          autocomplete="off"
          placeholder="Seattle line"
        />
      </LabelledField>
      <LabelledField
        v-if="choices"
        id="line-whose"
        v-slot="{ input }"
        label="Who answers it"
        :error="errors.colleagueId"
      >
        <select
          v-bind="input"
          v-model="whose"
          class="plain-field"
        >
          <option
            value=""
            disabled
          >
            Choose a team or a colleague
          </option>
          <optgroup label="Teams">
            <option
              v-for="team in choices.teams"
              :key="team.id"
              :value="`team ${team.id}`"
            >
              {{ team.name }}
            </option>
          </optgroup>
          <optgroup label="Colleagues">
            <option
              v-for="colleague in choices.colleagues"
              :key="colleague.id"
              :value="`colleague ${colleague.id}`"
            >
              {{ colleague.name }}
            </option>
          </optgroup>
        </select>
      </LabelledField>
      <label
        v-if="chosen('colleague')"
        class="check"
      ><input
        v-model="isPrivate"
        type="checkbox"
      > <span>It is private <span class="quiet">what goes over it shows on timelines to nobody else.</span></span></label>
      <p>
        <Button
          type="submit"
          label="Add the line"
          :loading="saving"
          :disabled="!choices"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
</style>
