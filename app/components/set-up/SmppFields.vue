<script setup lang="ts">
import { BINDS, LONG_TEXTS, type SmppSettings } from '~~/shared/carriers'
import { BIND_WORDS, LONG_TEXT_WORDS } from '~/words/carriers'

/** How one gets to an SMS centre. */
const { errors } = defineProps<{
  errors: Record<string, string>
  /** There is a password, which stays where none is written. */
  kept: boolean
}>()
const settings = defineModel<SmppSettings>({ required: true })
const secret = defineModel<string>('secret', { required: true })

const WAYS = BINDS.map(value => ({ value, label: BIND_WORDS[value] }))
const LONG = LONG_TEXTS.map(value => ({ value, label: LONG_TEXT_WORDS[value] }))
</script>

<template>
  <div class="form">
    <p class="quiet">
      The carrier gives you a host, a port, a system id and a password.
    </p>
    <div class="place">
      <LabelledField
        id="carrier-host"
        v-slot="{ input }"
        label="Host"
        :error="errors['settings.host']"
      >
        <InputText
          v-bind="input"
          v-model="settings.host"
          autocomplete="off"
          spellcheck="false"
        />
      </LabelledField>
      <NumberField
        id="carrier-port"
        v-model="settings.port as number | null"
        label="Port"
        :least="1"
        :most="65535"
        :error="errors['settings.port']"
      />
    </div>
    <label class="check"><input
      v-model="settings.tls"
      type="checkbox"
    > <span>With TLS <span class="quiet">without it whoever sits in between reads every text and the password.</span></span></label>
    <div class="pair">
      <LabelledField
        id="carrier-system-id"
        v-slot="{ input }"
        label="System id"
        :error="errors['settings.systemId']"
      >
        <InputText
          v-bind="input"
          v-model="settings.systemId"
          autocomplete="off"
          spellcheck="false"
        />
      </LabelledField>
      <LabelledField
        id="carrier-secret"
        v-slot="{ input }"
        label="Password"
        :error="errors.secret"
      >
        <InputText
          v-bind="input"
          v-model="secret"
          type="password"
          autocomplete="new-password"
          :placeholder="kept ? 'kept, and never shown' : ''"
        />
      </LabelledField>
    </div>
    <details>
      <summary>Further, as the carrier wants it</summary>
      <div class="form further">
        <LabelledField
          id="carrier-system-type"
          v-slot="{ input }"
          label="System type; mostly empty"
          :error="errors['settings.systemType']"
        >
          <InputText
            v-bind="input"
            v-model="settings.systemType"
            autocomplete="off"
          />
        </LabelledField>
        <ChoiceField
          id="carrier-bind"
          v-model="settings.bind"
          label="How one connects"
          :choices="WAYS"
          :error="errors['settings.bind']"
        />
        <ChoiceField
          id="carrier-long-texts"
          v-model="settings.longTexts"
          label="How a text of several parts goes"
          :choices="LONG"
          :error="errors['settings.longTexts']"
        />
        <NumberField
          id="carrier-window"
          v-model="settings.window as number | null"
          label="Texts on their way without an answer, at most"
          :least="1"
          :most="100"
          :error="errors['settings.window']"
        />
      </div>
    </details>
  </div>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.place { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-5); align-items: start; }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); align-items: start; }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
.further { padding-top: var(--space-4); }
@media (max-width: 500px) { .place, .pair { grid-template-columns: minmax(0, 1fr); } }
</style>
