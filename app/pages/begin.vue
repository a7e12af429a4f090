<script setup lang="ts">
import type { BeginForm, Beginning } from '~~/shared/schemas/begin'
import { STARTING_SETS } from '~~/shared/starting-sets'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Where somebody makes the firm and is its first admin, with the key behind the # of the address that the start has printed. */
definePageMeta({ layout: 'bare' })
useHead({ title: 'Begin with Plauder' })

const route = useRoute()
const beginning = shallowRef<Beginning | null>(null)
const problem = ref('')
const { errors, saving, save } = useSaving('key')
const form = ref<BeginForm>({
  key: route.hash.slice(1),
  firm: '',
  country: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  name: '',
  mail: '',
  password: '',
  set: 'sales',
  practice: true,
})

const named = new Intl.DisplayNames('en', { type: 'region' })
const countries = computed(() =>
  (beginning.value?.countries ?? []).map(code => ({ code, name: named.of(code) ?? code })).sort((a, b) => a.name.localeCompare(b.name)),
)

async function load(): Promise<void> {
  problem.value = ''
  try {
    beginning.value = await api<Beginning>('/api/begin', { asAnybody: true })
    if (!beginning.value.open) return void await navigateTo('/sign-in')
    form.value.practice = beginning.value.practice
  }
  catch {
    problem.value = 'Plauder cannot be reached.'
  }
}

const begin = () => save(async () => {
  await api('/api/begin', { method: 'POST', body: form.value, asAnybody: true })
  // anew, so that nothing of this page with its key is left
  window.location.replace('/')
})

onMounted(load)
</script>

<template>
  <main class="sheet">
    <p class="name">
      Plauder
    </p>
    <h1>Begin</h1>
    <p class="quiet">
      Set up your firm, with yourself as its admin. It takes a minute.
    </p>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-else-if="!form.key"
      class="notice failed"
    >
      The key is missing. Open the whole address that the start of Plauder has printed.
    </p>
    <form
      v-else-if="beginning?.open"
      class="form"
      novalidate
      @submit.prevent="begin"
    >
      <h2>Your firm</h2>
      <LabelledField
        id="firm"
        v-slot="{ input }"
        label="What it is called"
        :error="errors.firm"
      >
        <InputText
          v-bind="input"
          v-model="form.firm"
          autocomplete="organization"
          autofocus
        />
      </LabelledField>
      <div class="two">
        <LabelledField
          id="country"
          v-slot="{ choice }"
          label="Country, for numbers that name none"
          :error="errors.country"
        >
          <Select
            v-bind="choice"
            v-model="form.country"
            :options="countries"
            option-label="name"
            option-value="code"
            placeholder="Choose"
            filter
          />
        </LabelledField>
        <ZoneField
          id="zone"
          v-model="form.zone"
          label="Your time zone"
          :error="errors.zone"
        />
      </div>
      <fieldset class="sets">
        <legend>What you do most, to begin with the right stages and fields</legend>
        <label
          v-for="({ label, about }, key) in STARTING_SETS"
          :key="key"
          class="check"
        ><input
          v-model="form.set"
          type="radio"
          name="set"
          :value="key"
        > <span>{{ label }} <span class="quiet small">{{ about }}</span></span></label>
        <p class="quiet small">
          All of it can be changed in Set-up.
        </p>
      </fieldset>
      <h2>You</h2>
      <LabelledField
        id="name"
        v-slot="{ input }"
        label="Your name"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="form.name"
          autocomplete="name"
        />
      </LabelledField>
      <LabelledField
        id="mail"
        v-slot="{ input }"
        label="Mail address, to sign in with"
        :error="errors.mail"
      >
        <InputText
          v-bind="input"
          v-model="form.mail"
          type="email"
          autocomplete="username"
        />
      </LabelledField>
      <LabelledField
        id="password"
        v-slot="{ input }"
        label="Password, of 12 characters or more"
        :error="errors.password"
      >
        <InputText
          v-bind="input"
          v-model="form.password"
          type="password"
          autocomplete="new-password"
        />
      </LabelledField>
      <label
        v-if="beginning.practice"
        class="check"
      ><input
        v-model="form.practice"
        type="checkbox"
      > <span>Give me a line of the practice carrier <span class="quiet">to try everything with: what is texted over it reaches the page of handsets, and nobody outside.</span></span></label>
      <p
        v-if="errors.practice || errors.key"
        class="notice failed"
        role="alert"
      >
        {{ errors.practice || errors.key }}
      </p>
      <Button
        type="submit"
        label="Begin"
        :loading="saving"
      />
    </form>
  </main>
</template>

<style scoped>
.sheet { max-width: 34rem; margin: 6vh auto; padding: 0 var(--space-8); display: grid; gap: var(--space-5); }
.name { font-family: var(--heading); font-weight: 800; font-size: 1.5rem; color: var(--accent); }
.form { display: grid; gap: var(--space-6); }
.form h2 { margin-top: var(--space-3); }
.two { display: grid; grid-template-columns: 1fr 1fr; gap: var(--space-6); align-items: end; }
.two :deep(.p-select) { width: 100%; }
.sets { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); }
.sets legend { font-weight: 600; margin-bottom: var(--space-3); padding: 0; }
.check { display: flex; gap: var(--space-3); align-items: baseline; }
@media (max-width: 500px) { .two { grid-template-columns: 1fr; } }
</style>
