<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { CARRIER_KINDS, carrierNameOf, reportPath, type CarrierKind, type CarrierTried, type HttpSettings, type SetUpCarrier, type SmppSettings } from '~~/shared/carriers'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { KIND_WORDS } from '~/words/carriers'

/** Connecting a carrier, or changing how it is connected; what is written can be tried before it is kept. */
const { carrier } = defineProps<{ carrier: SetUpCarrier | null }>()
const emit = defineEmits<{ saved: [carriers: SetUpCarrier[]], close: [] }>()

const id = carrier?.account?.id ?? uuid()
const title = ref(carrier?.title ?? '')
const account = carrier?.account ?? null
const kind = ref<CarrierKind>(account?.kind ?? 'smpp')
const smpp = ref<SmppSettings>({
  host: '', port: 2775, tls: true, systemId: '', systemType: '', bind: 'transceiver', longTexts: 'header', window: 10,
  ...(account?.kind === 'smpp' && account.settings),
})
const http = ref<HttpSettings>({ url: '', ...(account?.kind === 'http' && account.settings) })
const settings = computed(() => kind.value === 'smpp' ? smpp.value : http.value)
const reportTo = computed(() => `${location.origin}${reportPath(carrierNameOf(kind.value, id))}`)
const secret = ref('')
const { errors, saving, save: saveWith } = useSaving('title')
const { errors: tryErrors, saving: tryingIt, save: tryWith } = useSaving('title')
const wrong = computed(() => ({ ...tryErrors.value, ...errors.value }))

/** What came of trying it as it is written now. */
const tried = shallowRef<CarrierTried | null>(null)
watch([settings, secret], () => tried.value = null, { deep: true })
watch(kind, () => {
  secret.value = ''
  errors.value = tryErrors.value = {}
})

const body = () => ({ kind: kind.value, title: title.value, settings: settings.value, secret: secret.value === '' && carrier ? null : secret.value })

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
  <FormDialog
    :header="carrier ? `How ${carrier.title} is connected` : 'Connect a carrier'"
    width="36rem"
    :written="{ title, smpp, http, secret }"
    @close="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
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
      <ChoiceField
        v-if="!carrier"
        id="carrier-kind"
        v-model="kind"
        label="How one gets to it"
        :choices="CARRIER_KINDS.map(value => ({ value, label: KIND_WORDS[value] }))"
      />
      <SmppFields
        v-if="kind === 'smpp'"
        v-model="smpp"
        v-model:secret="secret"
        :errors="wrong"
        :kept="carrier !== null"
      />
      <GatewayFields
        v-else
        v-model="http"
        v-model:secret="secret"
        :errors="wrong"
        :kept="carrier !== null"
        :report-to="reportTo"
      />
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
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.tried:empty { display: none; }
.good { color: var(--good); }
.wrong { color: var(--wrong); }
.ways { display: flex; gap: var(--space-6); align-items: center; }
</style>
