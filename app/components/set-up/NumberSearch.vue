<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { COUNTRIES } from '~~/core/places/countries'
import { showPhone } from '~~/core/phone/show'
import type { NumberOffered } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { newestOnly } from '~/composables/newest'
import { useTrying } from '~/composables/trying'
import { countryName } from '~/words/country'
import { sayOffer } from '~/words/lines'

/** Finding a number that a carrier rents out, with what it does and costs. */
const { carrier, error = '' } = defineProps<{ carrier: string, error?: string }>()
const chosen = defineModel<NumberOffered | null>({ required: true })

const wish = reactive({ country: '', place: '', digits: '' })
const offers = shallowRef<NumberOffered[] | null>(null)
const { problem, errors, trying } = useTrying()
const begin = newestOnly()

async function look(): Promise<void> {
  const isNewest = begin()
  await trying(async () => {
    const found = await api<NumberOffered[]>('/api/set-up/lines/offers', { query: { carrier, ...wish } })
    if (!isNewest()) return
    offers.value = found
    // what was chosen stays so as long as it is among them
    chosen.value = found.find(({ e164 }) => e164 === chosen.value?.e164) ?? null
  })
}
watchDebounced(() => [carrier, wish.country, wish.place, wish.digits], look, { debounce: 250, immediate: true })

const countries = computed(() => [{ value: '', label: 'any' }, ...[...COUNTRIES].map(value => ({ value, label: countryName(value) })).sort((a, b) => a.label.localeCompare(b.label))])
</script>

<template>
  <div class="search">
    <div class="wish">
      <ChoiceField
        id="number-country"
        v-model="wish.country"
        label="Country"
        :choices="countries"
        :error="errors.country"
      />
      <LabelledField
        id="number-place"
        v-slot="{ input }"
        label="Place"
        :error="errors.place"
      >
        <InputText
          v-bind="input"
          v-model="wish.place"
          autocomplete="off"
          placeholder="Oregon"
        />
      </LabelledField>
      <LabelledField
        id="number-digits"
        v-slot="{ input }"
        label="Digits in it"
        :error="errors.digits"
      >
        <InputText
          v-bind="input"
          v-model="wish.digits"
          inputmode="tel"
          autocomplete="off"
          placeholder="555 012"
        />
      </LabelledField>
    </div>
    <p
      v-if="problem && Object.keys(errors).length === 0"
      class="field-error"
      role="alert"
    >
      {{ problem }} <button
        type="button"
        class="plain-button"
        @click="look"
      >
        Look again
      </button>
    </p>
    <p
      v-else-if="offers === null"
      class="quiet"
      role="status"
    >
      Looking what there is…
    </p>
    <p
      v-else-if="offers.length === 0"
      class="quiet"
      role="status"
    >
      It has no such number. Ask for less: only the place, or only some digits.
    </p>
    <fieldset
      v-else
      class="offers"
    >
      <legend class="heard-only">
        Numbers to be had
      </legend>
      <label
        v-for="offer in offers"
        :key="offer.e164"
        class="offer"
      >
        <input
          v-model="chosen"
          type="radio"
          name="offer"
          :value="offer"
        >
        <span class="figures">{{ showPhone(offer.e164, true) }}</span>
        <span>{{ offer.place }}, {{ countryName(offer.country) }}</span>
        <span class="quiet small terms">{{ sayOffer(offer) }}</span>
      </label>
    </fieldset>
    <p
      v-if="error"
      class="field-error"
      role="alert"
    >
      {{ error }}
    </p>
  </div>
</template>

<style scoped>
.search { display: grid; gap: var(--space-4); }
.wish { display: grid; grid-template-columns: minmax(0, 1.3fr) repeat(2, minmax(0, 1fr)); gap: var(--space-4); }
.offers { border: 1px solid var(--rule); border-radius: var(--round); padding: 0; margin: 0; max-height: 16rem; overflow-y: auto; }
.offer { display: grid; grid-template-columns: auto 10rem minmax(0, 1fr); gap: 0 var(--space-4); align-items: baseline; padding: var(--space-3) var(--space-4); cursor: pointer; }
.offer + .offer { border-top: 1px solid var(--rule); }
.offer:has(:checked) { background: var(--accent-ground); }
.terms { grid-column: 2 / -1; }
@media (max-width: 480px) { .wish { grid-template-columns: minmax(0, 1fr); } .offer { grid-template-columns: auto minmax(0, 1fr); } .offer > :nth-child(n + 3) { grid-column: 2 / -1; } }
</style>
