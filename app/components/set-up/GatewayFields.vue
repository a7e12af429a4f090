<script setup lang="ts">
import type { HttpSettings } from '~~/shared/carriers'
import { madeSecret } from '~/words/carriers'

/** How one gets to a gateway that takes signed texts over HTTP, and where it gets to us. */
const { errors } = defineProps<{
  errors: Record<string, string>
  /** There is a secret, which stays where none is written. */
  kept: boolean
  /** Where it tells us what becomes of texts. */
  reportTo: string
}>()
const settings = defineModel<HttpSettings>({ required: true })
const secret = defineModel<string>('secret', { required: true })
const EXAMPLE = 'https://gateway.example/plauder'
/** One that was made here has to be written down there too. */
const shown = ref(false)
function make(): void {
  secret.value = madeSecret()
  shown.value = true
}
</script>

<template>
  <div class="form">
    <p class="quiet">
      Any gateway that does what docs/gateway.md describes. The same secret stands on both sides, and there the address at the end.
    </p>
    <LabelledField
      id="gateway-url"
      v-slot="{ input }"
      label="Where it takes texts"
      :error="errors['settings.url']"
    >
      <InputText
        v-bind="input"
        v-model="settings.url"
        inputmode="url"
        autocomplete="off"
        spellcheck="false"
        :placeholder="EXAMPLE"
      />
    </LabelledField>
    <LabelledField
      id="gateway-secret"
      v-slot="{ input }"
      label="Secret"
      :error="errors.secret"
    >
      <InputText
        v-bind="input"
        v-model="secret"
        :type="shown ? 'text' : 'password'"
        autocomplete="off"
        spellcheck="false"
        :placeholder="kept ? 'kept, and never shown' : 'whsec_…'"
      />
    </LabelledField>
    <p class="under">
      <button
        type="button"
        class="plain-button"
        @click="make"
      >
        Make a secret
      </button>
      <span
        v-if="shown"
        class="quiet small"
      >Copy it now: once it is kept, nobody sees it again.</span>
    </p>
    <LabelledField
      id="gateway-report-to"
      v-slot="{ input }"
      label="Where it reports to"
      error=""
    >
      <InputText
        v-bind="input"
        :model-value="reportTo"
        readonly
        @focus="($event.target as HTMLInputElement).select()"
      />
    </LabelledField>
  </div>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.under { display: flex; gap: var(--space-5); align-items: baseline; margin-top: calc(-1 * var(--space-3)); }
</style>
