<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { COUNTRIES } from '~~/core/places/countries'
import type { PapersFront } from '~~/shared/papers'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { countryName } from '~/words/country'

/** Papers that somebody has brought to a carrier which takes none by itself: over its website, by mail. */
const { front } = defineProps<{ front: PapersFront }>()
const emit = defineEmits<{ changed: [front: PapersFront], close: [] }>()

const form = ref({ carrier: front.byHand.length === 1 ? front.byHand[0]!.name : '', country: '', leastDays: '5', mostDays: '15' })
const { errors, saving, save } = useSaving('carrier')
const keep = () => save(async () => emit('changed', await api<PapersFront>('/api/set-up/papers/registrations', {
  method: 'POST',
  body: { ...form.value, id: uuid(), leastDays: Number(form.value.leastDays || NaN), mostDays: Number(form.value.mostDays || NaN) },
})))
const countries = COUNTRIES.map(value => ({ value, label: countryName(value) })).sort((a, b) => a.label.localeCompare(b.label))
</script>

<template>
  <FormDialog
    header="Brought to a carrier"
    width="30rem"
    :written="form"
    @close="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <p class="quiet small">
        What is written now counts as what they have. How long they take is yours to ask them: you are told when it is over.
      </p>
      <ChoiceField
        id="brought-carrier"
        v-model="form.carrier"
        label="Carrier"
        none="Choose a carrier"
        :choices="front.byHand.map(({ name, title }) => ({ value: name, label: title }))"
        :error="errors.carrier"
      />
      <ChoiceField
        id="brought-country"
        v-model="form.country"
        label="For texts to"
        none="Choose a country"
        :choices="countries"
        :error="errors.country"
      />
      <div class="pair">
        <LabelledField
          id="brought-least"
          v-slot="{ input }"
          label="They take at least, in days"
          :error="errors.leastDays"
        >
          <InputText
            v-bind="input"
            v-model="form.leastDays"
            inputmode="numeric"
            autocomplete="off"
          />
        </LabelledField>
        <LabelledField
          id="brought-most"
          v-slot="{ input }"
          label="At most"
          :error="errors.mostDays"
        >
          <InputText
            v-bind="input"
            v-model="form.mostDays"
            inputmode="numeric"
            autocomplete="off"
          />
        </LabelledField>
      </div>
      <p>
        <Button
          type="submit"
          label="They have them"
          :loading="saving"
        />
      </p>
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); align-items: start; }
</style>
