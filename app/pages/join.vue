<script setup lang="ts">
import type { Invitation } from '~~/shared/people'
import { api, ApiProblem } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Where somebody joins, or chooses a new password, with the key behind the # of the link that an admin has given them. */
definePageMeta({ layout: 'bare' })
useHead({ title: 'Join in Plauder' })

const key = useRoute().hash.slice(1)
const found = shallowRef<Invitation | null>(null)
const problem = ref('')
const name = ref('')
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone)
const password = ref('')
const { errors, saving, save } = useSaving('key')

async function load(): Promise<void> {
  problem.value = ''
  try {
    found.value = await api<Invitation>('/api/join/read', { method: 'POST', body: { key }, asAnybody: true })
    name.value = found.value.name
  }
  catch (error) {
    problem.value = error instanceof ApiProblem ? error.message : 'Plauder cannot be reached.'
  }
}

const join = () => save(async () => {
  await api('/api/join', { method: 'POST', body: { key, name: name.value, zone: zone.value, password: password.value }, asAnybody: true })
  // anew, so that nothing of this page with its key is left
  window.location.replace('/')
})

onMounted(() => key ? load() : undefined)
</script>

<template>
  <main class="sheet">
    <p class="name">
      Plauder
    </p>
    <p
      v-if="!key"
      class="notice failed"
    >
      The key is missing. Open the whole link that you were given.
    </p>
    <LoadProblem
      v-else-if="problem"
      :problem="problem"
      @again="load"
    />
    <form
      v-else-if="found"
      class="form"
      novalidate
      @submit.prevent="join"
    >
      <h1>{{ found.newPassword ? 'A new password' : `Join ${found.firm}` }}</h1>
      <p class="quiet">
        You sign in with <strong>{{ found.mail }}</strong>.
        <template v-if="found.newPassword">
          Wherever you are signed in, that ends.
        </template>
      </p>
      <template v-if="!found.newPassword">
        <LabelledField
          id="name"
          v-slot="{ input }"
          label="Your name"
          :error="errors.name"
        >
          <InputText
            v-bind="input"
            v-model="name"
            autocomplete="name"
          />
        </LabelledField>
        <ZoneField
          id="zone"
          v-model="zone"
          label="Your time zone"
          :error="errors.zone"
        />
      </template>
      <input
        type="text"
        autocomplete="username"
        :value="found.mail"
        readonly
        hidden
      >
      <LabelledField
        id="password"
        v-slot="{ input }"
        label="Password, of 12 characters or more"
        :error="errors.password"
      >
        <InputText
          v-bind="input"
          v-model="password"
          type="password"
          autocomplete="new-password"
        />
      </LabelledField>
      <p
        v-if="errors.key"
        class="notice failed"
        role="alert"
      >
        {{ errors.key }}
      </p>
      <Button
        type="submit"
        :label="found.newPassword ? 'Take this password' : 'Join'"
        :loading="saving"
      />
    </form>
    <p
      v-else
      class="quiet"
      role="status"
    >
      Looking whether the link works…
    </p>
  </main>
</template>

<style scoped>
.sheet { max-width: 28rem; margin: 6vh auto; padding: 0 var(--space-8); display: grid; gap: var(--space-5); }
.name { font-family: var(--heading); font-weight: 800; font-size: 1.5rem; color: var(--accent); }
.form { display: grid; gap: var(--space-6); }
.form :deep(.p-select) { width: 100%; }
</style>
