<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { showPhone } from '~~/core/phone/show'
import type { PortingForm } from '~~/shared/schemas/line'
import type { CarrierChoice, LineChoices, NumberOffered, SetUpLine } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { sum } from '~/words/money'

/** Making a number that a carrier has given us a line, or taking one that it has to offer. */
const { carriers } = defineProps<{ carriers: CarrierChoice[] }>()
const emit = defineEmits<{ saved: [lines: SetUpLine[]], close: [] }>()

const id = uuid()
const carrier = ref(carriers[0]!.name)
const number = ref('')
/** Whether it is one that the carrier has given, one that is to be taken there first, or one to be brought over from another. */
const way = ref<'given' | 'taken' | 'brought'>('given')
const takes = computed(() => way.value === 'taken')
const porting = ref<PortingForm>({ from: '', account: '', wishedDay: '' })
const offer = shallowRef<NumberOffered | null>(null)
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
    if (chosen !== carrier.value) return
    choices.value = found
    way.value = found.rents && found.numbers?.length === 0 ? 'taken' : 'given'
  })
}, { immediate: true })

const chosen = (kind: 'team' | 'colleague') => whose.value.startsWith(`${kind} `) ? whose.value.slice(kind.length + 1) : null

const save = () => saveWith(async () => emit('saved', await api<SetUpLine[]>('/api/set-up/lines', {
  method: 'POST',
  body: {
    id,
    carrier: carrier.value,
    number: takes.value ? offer.value?.e164 ?? '' : number.value,
    takes: takes.value,
    brings: way.value === 'brought' ? porting.value : null,
    name: name.value,
    teamId: chosen('team'),
    colleagueId: chosen('colleague'),
    private: chosen('colleague') !== null && isPrivate.value,
  },
})))
</script>

<template>
  <FormDialog
    header="Add a line"
    width="38rem"
    :written="{ number, name, whose, porting }"
    @close="emit('close')"
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
      <fieldset
        v-if="choices?.rents && (choices.numbers!.length > 0 || choices.brings)"
        class="ways"
      >
        <legend class="heard-only">
          Which number?
        </legend>
        <label v-if="choices.numbers!.length > 0"><input
          v-model="way"
          type="radio"
          value="given"
        > One that it has given you already</label>
        <label><input
          v-model="way"
          type="radio"
          value="taken"
        > Another one that it has</label>
        <label v-if="choices.brings"><input
          v-model="way"
          type="radio"
          value="brought"
        > One that you have with another carrier: bring it over</label>
      </fieldset>
      <NumberSearch
        v-if="choices?.rents && takes"
        v-model="offer"
        :carrier="carrier"
        :error="errors.number"
      />
      <ChoiceField
        v-else-if="choices?.numbers && way === 'given'"
        id="line-number"
        v-model="number"
        label="Number"
        :choices="choices.numbers.map(value => ({ value, label: showPhone(value, true) }))"
        none="Choose one that it has given you"
        :error="errors.number"
      />
      <LabelledField
        v-else-if="choices"
        id="line-number"
        v-slot="{ input }"
        :label="way === 'brought' ? 'Number, with its country code' : 'Number, as the carrier has given it to you'"
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
      <PortingFields
        v-if="way === 'brought'"
        v-model="porting"
        :errors="errors"
      />
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
          :label="way === 'brought' ? 'Bring it over' : takes && offer ? `Take it for ${sum({ ...offer.rent, micros: offer.rent.micros + offer.setUp.micros })} now` : 'Add the line'"
          :loading="saving"
          :disabled="!choices"
        />
      </p>
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.ways { display: grid; gap: var(--space-2); border: 0; padding: 0; margin: 0; }
.ways label { display: inline-flex; gap: var(--space-3); align-items: center; min-height: 24px; cursor: pointer; }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
</style>
