<script setup lang="ts">
import { showPhone } from '~~/core/phone/show'
import type { CallsWith, HowICall } from '~~/shared/calling'
import { MOST_OWN_PHONES } from '~~/shared/schemas/calling'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'

const loaded = ref(false)
const saved = ref(false)
const callsWith = ref<CallsWith>('browser')
const phones = ref<{ key: number, number: string, label: string }[]>([])
const { errors, saving, save } = useSaving('callsWith')
let keys = 0

function take(answer: HowICall): void {
  callsWith.value = answer.callsWith
  phones.value = answer.phones.map(({ e164, label }) => ({ key: keys++, number: showPhone(e164, true), label }))
  loaded.value = true
}

const { problem, load } = useLoaded<HowICall>('/api/me/calling', take)

const WAYS: { value: CallsWith, name: string, what: string }[] = [
  { value: 'browser', name: 'In this browser', what: 'with the headset of this computer' },
  { value: 'own-phones', name: 'With a telephone of mine', what: 'it rings first; when you pick it up, the other one is called. Calls that come in ring on it too' },
]
const add = () => phones.value.push({ key: keys++, number: '', label: phones.value.length === 0 ? 'mobile' : '' })

async function keep(): Promise<void> {
  saved.value = await save(async () =>
    take(
      await api<HowICall>('/api/me/calling', {
        method: 'PUT',
        body: { callsWith: callsWith.value, phones: phones.value.map(({ number, label }) => ({ number, label })) },
      }),
    ),
  )
}
watch([callsWith, phones], () => saved.value = false, { deep: true })
</script>

<template>
  <div class="page">
    <CallingNav />
    <header class="head">
      <h1>How I call</h1>
      <p class="quiet">
        For you alone. Calls that come in are answered here, on the shelf.
      </p>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!loaded && !problem"
      class="quiet"
      role="status"
    >
      Loading how you call…
    </p>
    <form
      v-if="loaded"
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <fieldset class="ways">
        <legend>I call</legend>
        <label
          v-for="{ value, name, what } in WAYS"
          :key="value"
        ><input
          v-model="callsWith"
          type="radio"
          name="calls-with"
          :value="value"
        > <span><strong>{{ name }}</strong><br><span class="quiet">{{ what }}</span></span></label>
        <p
          v-if="errors.callsWith"
          class="field-error"
          role="alert"
        >
          {{ errors.callsWith }}
        </p>
      </fieldset>
      <section>
        <h2>My telephones</h2>
        <p class="quiet small">
          All of them ring; whichever you pick up has the call.
        </p>
        <div
          v-for="(phone, place) in phones"
          :key="phone.key"
          class="phone"
        >
          <LabelledField
            :id="`phone-label-${phone.key}`"
            v-slot="{ input }"
            label="Which one"
            :error="errors[`phones[${place}].label`]"
          >
            <InputText
              v-bind="input"
              v-model="phone.label"
              placeholder="desk"
              autocomplete="off"
            />
          </LabelledField>
          <LabelledField
            :id="`phone-number-${phone.key}`"
            v-slot="{ input }"
            label="Its number"
            :error="errors[`phones[${place}].number`]"
          >
            <InputText
              v-bind="input"
              v-model="phone.number"
              type="tel"
              class="figures"
              autocomplete="off"
            />
          </LabelledField>
          <button
            type="button"
            class="plain-button calm"
            :aria-label="`Remove ${phone.label || 'this telephone'}`"
            @click="phones.splice(place, 1)"
          >
            Remove
          </button>
        </div>
        <p
          v-if="errors.phones"
          class="field-error"
        >
          {{ errors.phones }}
        </p>
        <button
          v-if="phones.length < MOST_OWN_PHONES"
          type="button"
          class="plain-button"
          @click="add"
        >
          Add a telephone
        </button>
      </section>
      <p class="acts">
        <Button
          type="submit"
          label="Keep this"
          :loading="saving"
        />
        <span
          v-if="saved"
          class="quiet"
          role="status"
        >Kept.</span>
      </p>
    </form>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; max-width: 46rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.form { display: grid; gap: var(--space-7); }
.ways { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); }
.ways legend { font-family: var(--heading); font-weight: 700; padding: 0 0 var(--space-2); }
.ways label { display: grid; grid-template-columns: auto 1fr; gap: var(--space-4); align-items: baseline; cursor: pointer; }
.phone { display: grid; grid-template-columns: 10rem minmax(0, 18rem) auto; gap: var(--space-6); align-items: start; border-top: 1px solid var(--rule); padding: var(--space-4) 0; width: 100%; }
.phone input { width: 100%; }
.phone > button { padding-top: var(--space-9); }
.form section { display: grid; gap: var(--space-2); justify-items: start; }
.acts { display: flex; gap: var(--space-6); align-items: center; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } .phone { grid-template-columns: minmax(0, 1fr); } }
</style>
