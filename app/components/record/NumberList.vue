<script setup lang="ts">
import { PhChatCenteredText, PhPhone } from '@phosphor-icons/vue'
import { hasNumbers } from '~~/shared/modules'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import { showPhone } from '~~/core/phone/show'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { clock, shortDay } from '~/words/time'
import { whyNotTexted } from '~/words/choices'
import { KIND_WORDS, UNUSABLE_WORDS } from '~/words/phone'

/** A record's numbers: what each is, what time it is there, and whether texts are welcome. */
const { record, onlyToRead = false } = defineProps<{ record: RecordDetail, onlyToRead?: boolean }>()
const emit = defineEmits<{ consent: [phone: RecordPhone, agrees: boolean, covers: 'texts' | 'calls'], call: [phone: RecordPhone], text: [phone: RecordPhone] }>()
const ledgerOf = shallowRef<RecordPhone | null>(null)
const now = useNow()
const me = useMe()

const sharers = ({ e164, person }: RecordPhone) => person ? [] : record.sharing.filter(one => one.e164 === e164)
const timeThere = (phone: RecordPhone) => [...new Set(phone.zones.flatMap((name) => {
  const rules = record.zones.find(zone => zone.name === name)
  return rules ? [clock(now.value, rules)] : []
}))].join(' or ')

function consentWords({ consent }: RecordPhone): string {
  if (consent.texts === 'unknown' || consent.at === null) return ''
  const day = shortDay(consent.at, me.me!.zone)
  const how
    = consent.how === 'form'
      ? 'on a form'
      : consent.how === 'text'
        ? `by “${consent.words}”${consent.line ? ` to ${consent.line}` : ''}`
        : 'as noted'
  return `${how}, ${day}`
}

/** "bakery, landline, calls only, 7:06 there." */
function about(phone: RecordPhone): string {
  const label = KIND_WORDS[phone.kind].startsWith(phone.label) ? null : phone.label
  const there = timeThere(phone)
  return `${[label, KIND_WORDS[phone.kind], there && `${there} there`].filter(Boolean).join(', ')}.`
}

/** What can be written into the number's ledger. Who has opted out by a text can take that back only by another one. */
const decisions = ({ kind, consent, mayBeCalled }: RecordPhone) => [
  ...(kind !== 'landline' && consent.texts === 'unknown' ? [{ label: 'Record consent', agrees: true, covers: 'texts' as const }] : []),
  ...(kind !== 'landline' && consent.texts !== 'refused' ? [{ label: 'Opt out of texts', agrees: false, covers: 'texts' as const }] : []),
  mayBeCalled
    ? { label: 'Opt out of calls', agrees: false, covers: 'calls' as const }
    : { label: 'Allow calls again', agrees: true, covers: 'calls' as const },
]
</script>

<template>
  <ul class="numbers">
    <li
      v-for="phone in record.phones"
      :key="phone.id"
    >
      <p class="number figures">
        <strong>{{ phone.e164 ? showPhone(phone.e164) : phone.typed }}</strong><template v-if="phone.extension">
          ext. {{ phone.extension }}
        </template>
        <button
          v-if="!onlyToRead && !whyNotTexted(phone)"
          type="button"
          class="call"
          :aria-label="`Text ${showPhone(phone.e164!)}`"
          @click="emit('text', phone)"
        >
          <PhChatCenteredText
            size="18"
            aria-hidden="true"
          /> Text
        </button>
        <button
          v-if="phone.e164 && phone.mayBeCalled"
          type="button"
          class="call"
          :aria-label="`Call ${showPhone(phone.e164)}`"
          @click="emit('call', phone)"
        >
          <PhPhone
            size="18"
            aria-hidden="true"
          /> Call
        </button>
      </p>
      <p
        v-if="phone.person"
        class="small"
      >
        <NuxtLink :to="`/record/${phone.person.id}`">
          {{ phone.person.name }}
        </NuxtLink>
      </p>
      <p
        v-if="sharers(phone).length > 0"
        class="small"
      >
        Also the number of <template
          v-for="(one, i) in sharers(phone)"
          :key="one.id"
        >
          {{ i > 0 ? ', ' : '' }}<NuxtLink :to="`/record/${one.id}`">{{ one.name }}</NuxtLink>
        </template>.
      </p>
      <p
        v-if="phone.unusable"
        class="small unusable"
      >
        {{ phone.label }}. {{ UNUSABLE_WORDS[phone.unusable] }}
      </p>
      <p
        v-else
        class="small quiet"
      >
        {{ about(phone) }}
        <template v-if="phone.consent.texts === 'agreed'">
          <strong class="yes">Consent given</strong> {{ consentWords(phone) }}.
        </template>
        <template v-else-if="phone.consent.texts === 'refused'">
          <strong class="no">Opted out</strong> {{ consentWords(phone) }}. No text leaves.
        </template>
        <template v-if="!phone.mayBeCalled">
          <strong class="no">Not to be called.</strong>
        </template>
      </p>
      <p
        v-if="!onlyToRead && phone.e164"
        class="small acts"
      >
        <button
          v-for="{ label, agrees, covers } in record.mayEdit ? decisions(phone) : []"
          :key="label"
          type="button"
          class="plain-button calm"
          @click="emit('consent', phone, agrees, covers)"
        >
          {{ label }}
        </button>
        <button
          type="button"
          class="plain-button calm"
          @click="ledgerOf = phone"
        >
          Ledger
        </button>
      </p>
    </li>
    <li
      v-if="record.phones.length === 0"
      class="quiet"
    >
      {{ hasNumbers(record.module) ? 'No number yet. Add one, and you can text.' : 'Put somebody on it, and you can text from here.' }}
    </li>
    <LazyNumberLedger
      v-if="ledgerOf"
      :phone="ledgerOf"
      @close="ledgerOf = null"
    />
  </ul>
</template>

<style scoped>
.numbers li { padding: var(--space-3) 0; border-top: 1px solid var(--rule); }
.number { font-size: var(--size-text); }
.number { display: flex; align-items: baseline; gap: var(--space-3); }
.call { margin-left: auto; display: inline-flex; gap: var(--space-2); align-items: center; border: 0; background: none; color: var(--accent); font-size: var(--size); cursor: pointer; padding: var(--space-hair) 0; }
.call + .call { margin-left: var(--space-5); }
.call:hover { text-decoration: underline; }
.unusable { color: var(--wrong); }
.yes { color: var(--good); }
.no { color: var(--wrong); }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); }
</style>
