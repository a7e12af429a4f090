<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { BINDS, LONG_TEXTS, type CarrierSettings, type CarrierTried, type SetUpCarrier } from '~~/shared/carriers'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { BIND_WORDS, LONG_TEXT_WORDS } from '~/words/carriers'

/** Connecting a carrier, or changing how it is connected; what is written can be tried before it is kept. */
const { carrier } = defineProps<{ carrier: SetUpCarrier | null }>()
const emit = defineEmits<{ saved: [carriers: SetUpCarrier[]], close: [] }>()

const FRESH: CarrierSettings = {
  host: '', port: 2775, tls: true, systemId: '', systemType: '', bind: 'transceiver', longTexts: 'header', window: 10,
}
const WAYS = BINDS.map(value => ({ value, label: BIND_WORDS[value] }))
const LONG = LONG_TEXTS.map(value => ({ value, label: LONG_TEXT_WORDS[value] }))
const id = carrier?.account?.id ?? uuid()
const title = ref(carrier?.title ?? '')
const settings = ref<CarrierSettings>({ ...FRESH, ...carrier?.account?.settings })
const secret = ref('')
const { errors, saving, save: saveWith } = useSaving('title')
const { errors: tryErrors, saving: tryingIt, save: tryWith } = useSaving('title')
const wrong = computed(() => ({ ...tryErrors.value, ...errors.value }))

/** What came of trying it as it is written now. */
const tried = shallowRef<CarrierTried | null>(null)
watch([settings, secret], () => tried.value = null, { deep: true })

const body = () => ({ kind: 'smpp', title: title.value, settings: settings.value, secret: secret.value === '' && carrier ? null : secret.value })

async function attempt(): Promise<void> {
  errors.value = {}
  tried.value = null
  await tryWith(async () => {
    // its name has nothing to do with whether it lets us in
    const { title, ...written } = body()
    tried.value = await api<CarrierTried>('/api/set-up/carriers/try', { method: 'POST', body: { ...written, title: title || 'New', id: carrier ? id : null } })
  })
}

function save(): Promise<unknown> {
  tryErrors.value = {}
  return saveWith(async () => emit('saved', carrier
    ? await api<SetUpCarrier[]>(`/api/set-up/carriers/${id}`, { method: 'PUT', body: body() })
    : await api<SetUpCarrier[]>('/api/set-up/carriers', { method: 'POST', body: { ...body(), id } })))
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="carrier ? `How ${carrier.title} is connected` : 'Connect a carrier'"
    :style="{ width: '36rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
      <p class="quiet">
        By SMPP 3.4, the protocol of SMS centres. The carrier gives you a host, a port, a system id and a password.
      </p>
      <LabelledField
        id="carrier-title"
        v-slot="{ input }"
        label="What colleagues call it"
        :error="wrong.title"
      >
        <InputText
          v-bind="input"
          v-model="title"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <div class="place">
        <LabelledField
          id="carrier-host"
          v-slot="{ input }"
          label="Host"
          :error="wrong['settings.host']"
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
          :error="wrong['settings.port']"
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
          :error="wrong['settings.systemId']"
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
          :error="wrong.secret"
        >
          <InputText
            v-bind="input"
            v-model="secret"
            type="password"
            autocomplete="new-password"
            :placeholder="carrier ? 'kept, and never shown' : ''"
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
            :error="wrong['settings.systemType']"
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
            :error="wrong['settings.bind']"
          />
          <ChoiceField
            id="carrier-long-texts"
            v-model="settings.longTexts"
            label="How a text of several parts goes"
            :choices="LONG"
            :error="wrong['settings.longTexts']"
          />
          <NumberField
            id="carrier-window"
            v-model="settings.window as number | null"
            label="Texts on their way without an answer, at most"
            :least="1"
            :most="100"
            :error="wrong['settings.window']"
          />
        </div>
      </details>
      <p
        class="tried"
        role="status"
      >
        <template v-if="tryingIt">
          Trying…
        </template>
        <strong
          v-else-if="tried"
          :class="tried.ok ? 'good' : 'wrong'"
        >{{ tried.said }}</strong>
      </p>
      <p class="ways">
        <Button
          type="submit"
          :label="carrier ? 'Save the carrier' : 'Connect it'"
          :loading="saving"
        />
        <button
          type="button"
          class="plain-button"
          :disabled="tryingIt"
          @click="attempt"
        >
          Try it first
        </button>
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.place { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-5); align-items: start; }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); align-items: start; }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
.further { padding-top: var(--space-4); }
.tried:empty { display: none; }
.good { color: var(--good); }
.wrong { color: var(--wrong); }
.ways { display: flex; gap: var(--space-6); align-items: center; }
@media (max-width: 500px) { .place, .pair { grid-template-columns: minmax(0, 1fr); } }
</style>
