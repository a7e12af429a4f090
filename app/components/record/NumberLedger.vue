<script setup lang="ts">
import { consentAt } from '~~/core/consent/ledger'
import { addDays, dayAt, dayStart } from '~~/core/hours/days'
import { showPhone } from '~~/core/phone/show'
import type { LedgerEntry, RecordPhone } from '~~/shared/record'
import { useLoaded } from '~/composables/loaded'
import { useMe } from '~/stores/me'
import { CONSENT_STATE_WORDS, sayLedgerEntry } from '~/words/consent'
import { clock, dayName } from '~/words/time'

/** Everything that was ever said about a number, and how it stood on any day. */
const { phone } = defineProps<{ phone: RecordPhone }>()
const emit = defineEmits<{ close: [] }>()

const zone = useMe().me!.zone
const { found: ledger, problem, load } = useLoaded<LedgerEntry[]>(`/api/numbers/${phone.id}/ledger`)
const today = dayAt(zone, Date.now())
const day = ref(today)
const state = computed(() => ledger.value && day.value ? consentAt(ledger.value, dayStart(zone, addDays(day.value, 1)) - 1) : null)
</script>

<template>
  <Dialog
    visible
    modal
    :header="`Ledger of ${showPhone(phone.e164!)}`"
    :style="{ width: '34rem' }"
    @update:visible="emit('close')"
  >
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-else-if="!ledger"
      class="quiet"
      role="status"
    >
      Loading the ledger…
    </p>
    <template v-else>
      <p class="on-day">
        <label for="ledger-day">At the end of</label>
        <DayField
          id="ledger-day"
          v-model="day"
          :until="today"
        />
        <span
          v-if="state"
          aria-live="polite"
        >texts: <strong :class="state.texts">{{ CONSENT_STATE_WORDS[state.texts] }}</strong>, calls: <strong :class="state.calls">{{ CONSENT_STATE_WORDS[state.calls] }}</strong>.</span>
      </p>
      <p
        v-if="ledger.length === 0"
        class="quiet"
      >
        Nobody has agreed to anything or refused anything yet.
      </p>
      <ol v-else>
        <li
          v-for="entry in [...ledger].reverse()"
          :key="entry.id"
        >
          <p class="small quiet">
            {{ dayName(entry.at, zone, 0) }}, {{ clock(entry.at, zone) }}
          </p>
          <p>{{ sayLedgerEntry(entry) }}</p>
          <p
            v-if="entry.words"
            class="words"
            dir="auto"
          >
            “{{ entry.words }}”
          </p>
        </li>
      </ol>
    </template>
  </Dialog>
</template>

<style scoped>
.on-day { display: flex; flex-wrap: wrap; gap: var(--space-3); align-items: baseline; padding-bottom: var(--space-4); }
.agreed { color: var(--good); }
.refused { color: var(--wrong); }
li { padding: var(--space-3) 0; border-top: 1px solid var(--rule); }
.words { overflow-wrap: anywhere; color: var(--quiet); }
</style>
