<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { showPhone } from '~~/core/phone/show'
import type { RecordRow } from '~~/shared/record'
import { api } from '~/composables/api'
import { newestOnly } from '~/composables/newest'
import { useCalls } from '~/stores/calls'

/** A number is typed, or put together from the keys of a telephone, and called. */
const calls = useCalls()
const number = ref('')
const busy = ref(false)
const shown = computed({ get: () => calls.dialling, set: open => calls.dialling = open })

async function dial(): Promise<void> {
  if (number.value.trim() === '') return
  busy.value = true
  await calls.dial({ number: number.value, name: number.value })
  busy.value = false
  // who is asked about the night answers there
  if (calls.night) calls.dialling = false
}
/** Whose number it is, as far as it is typed: the cleaned number, and who has it. */
const reads = ref('')
const begin = newestOnly()
watchDebounced(number, async (typed) => {
  const isNewest = begin()
  if (typed.replace(/\D/g, '').length < 4) return void (reads.value = '')
  const { readPhone } = await import('~~/core/phone/read')
  const reading = readPhone(typed, 'US')
  const [found, ...others] = await api<RecordRow[]>('/api/find', { query: { words: reading.ok ? reading.e164 : typed } }).catch(() => [])
  if (!isNewest()) return
  const clean = reading.ok ? showPhone(reading.e164) : ''
  reads.value = found
    ? [clean || (found.phone?.startsWith('+') ? showPhone(found.phone) : found.phone), `${found.name}${others.length > 0 ? `, and ${others.length} more` : ''}`].filter(Boolean).join(', ')
    : clean && `${clean}, on no record`
}, { debounce: 200 })

const press = (key: string) => number.value = key === '←' ? number.value.slice(0, -1) : number.value + key
// what stood in the way belongs to the number that was typed
watch(number, () => calls.problem = '', { immediate: true })
</script>

<template>
  <Dialog
    v-model:visible="shown"
    modal
    header="Call a number"
    :style="{ width: '24rem' }"
  >
    <form
      class="form"
      @submit.prevent="dial"
    >
      <LabelledField
        id="dial-number"
        v-slot="{ input }"
        label="Number, with + and the country where it is abroad"
        :error="calls.problem"
      >
        <InputText
          v-bind="input"
          v-model="number"
          type="tel"
          inputmode="tel"
          autocomplete="off"
          autofocus
          class="number figures"
        />
      </LabelledField>
      <p
        class="reads small quiet figures"
        role="status"
      >
        {{ reads }}
      </p>
      <TelephoneKeys
        of="number"
        @press="press"
      />
      <p>
        <Button
          type="submit"
          label="Call it"
          :disabled="number.trim() === ''"
          :loading="busy"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.reads { min-height: 1.3em; }
.number { width: 100%; font-size: var(--size-large); letter-spacing: 0.04em; }
</style>
