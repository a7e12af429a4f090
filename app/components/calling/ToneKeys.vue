<script setup lang="ts">
import type { CallDetail } from '~~/shared/calling'
import { useCalls } from '~/stores/calls'

/** The keys of a telephone, for a machine at the other end. What is typed goes at once, and is kept nowhere. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const sent = ref('')
const field = useTemplateRef<HTMLInputElement>('field')
onMounted(() => field.value?.focus())

/** One after the other, as they were pressed, however quickly. */
let last: Promise<void> = Promise.resolve()
function send(tone: string): void {
  last = last.then(async () => {
    if (await calls.sendTones(call, tone)) sent.value = `${sent.value}${tone}`.slice(-24)
  })
}

function onKey(event: KeyboardEvent): void {
  if (!/^[0-9*#]$/.test(event.key) || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  send(event.key)
}

/** A whole number of an account, as it was copied. */
function onPaste(event: ClipboardEvent): void {
  event.preventDefault()
  const tones = (event.clipboardData?.getData('text') ?? '').replace(/[^0-9*#]/g, '').slice(0, 32)
  if (tones) send(tones)
}
</script>

<template>
  <section aria-label="Tones">
    <input
      ref="field"
      class="sent figures"
      :value="sent"
      readonly
      aria-label="Type digits, * or #: each goes at once"
      placeholder="Type digits, * or #: each goes at once"
      @keydown="onKey"
      @paste="onPaste"
    >
    <TelephoneKeys
      of="tones"
      @press="send"
    />
  </section>
</template>

<style scoped>
section { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-6); align-items: start; }
.sent { border: 1px solid var(--field-rule); border-radius: var(--round); background: var(--surface); padding: var(--space-3) var(--space-4); letter-spacing: 0.08em; }
.sent::placeholder { letter-spacing: 0; }
</style>
