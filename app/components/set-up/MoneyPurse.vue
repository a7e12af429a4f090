<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { leftIn } from '~~/core/money/purse'
import { microsTyped } from '~~/core/money/typed'
import { PACE_DAYS, sayLasting } from '~~/core/money/pace'
import type { MoneyAccount, MoneyFront } from '~~/shared/money'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { sum } from '~/words/money'

/** What is there in one currency: how much, for how long, how it is paid for, and adding to it. */
const { account } = defineProps<{ account: MoneyAccount }>()
const emit = defineEmits<{ changed: [front: MoneyFront] }>()

const say = (micros: number) => sum({ micros, currency: account.currency })
const lasts = computed(() => account.lastsDays === null ? 'nothing was spent lately' : sayLasting(account.lastsDays))

const form = ref({ prepaid: account.prepaid, warnDays: account.warnDays as number | null })
// a list that comes anew for another reason takes nothing away that is being changed
watch(() => [account.prepaid, account.warnDays] as const, ([prepaid, warnDays]) => form.value = { prepaid, warnDays })
const changed = computed(() => form.value.prepaid !== account.prepaid || form.value.warnDays !== account.warnDays)
const { errors, saving, save } = useSaving('warnDays')
const keep = () => save(async () =>
  emit('changed', await api<MoneyFront>('/api/set-up/money', { method: 'PUT', body: { currency: account.currency, ...form.value } })))

const typed = ref('')
const words = ref('')
const added = ref('')
/** The same id as long as it is tried, so that a lost answer never enters it twice. */
let id = uuid()
const { errors: addErrors, saving: adding, save: saveAdding } = useSaving('micros')
const add = () => saveAdding(async () => {
  added.value = ''
  const micros = microsTyped(typed.value)
  emit('changed', await api<MoneyFront>('/api/set-up/money/paid-in', { method: 'POST', body: { id, currency: account.currency, micros, words: words.value } }))
  added.value = `${say(micros!)} added.`
  id = uuid()
  typed.value = words.value = ''
})
const part = (name: string) => `${name}-${account.currency}`
</script>

<template>
  <section
    class="purse"
    :aria-label="`What is there in ${account.currency}`"
  >
    <dl class="facts">
      <div v-if="account.prepaid">
        <dt>left to pay with</dt>
        <dd
          class="large"
          :class="{ wrong: leftIn(account) <= 0 }"
        >
          {{ say(leftIn(account)) }}
        </dd>
      </div>
      <div v-if="account.heldMicros > 0">
        <dt>held for texts on their way</dt>
        <dd>{{ say(account.heldMicros) }}</dd>
      </div>
      <div>
        <dt>spent in the last {{ PACE_DAYS }} days</dt>
        <dd>{{ say(account.spentMicros) }}</dd>
      </div>
      <div v-if="account.prepaid">
        <dt>lasts at that pace</dt>
        <dd :class="{ waits: account.runsOut }">
          {{ lasts }}
        </dd>
      </div>
    </dl>
    <form
      class="row"
      novalidate
      @submit.prevent="add"
    >
      <LabelledField
        :id="part('amount')"
        v-slot="{ input }"
        :label="`Paid to the carrier, ${account.currency}`"
        :error="addErrors.micros ?? addErrors.currency"
      >
        <InputText
          v-bind="input"
          v-model="typed"
          inputmode="decimal"
          autocomplete="off"
          class="amount"
          placeholder="50.00"
        />
      </LabelledField>
      <LabelledField
        :id="part('words')"
        v-slot="{ input }"
        label="How, for the ledger"
        :error="addErrors.words"
      >
        <InputText
          v-bind="input"
          v-model="words"
          autocomplete="off"
          placeholder="Card, 1 December"
        />
      </LabelledField>
      <Button
        type="submit"
        label="Add it to the balance"
        :loading="adding"
      />
      <span
        class="quiet"
        role="status"
      >{{ added }}</span>
    </form>
    <form
      class="row"
      novalidate
      @submit.prevent="keep"
    >
      <fieldset class="ways">
        <legend>How it is paid for</legend>
        <label class="check"><input
          v-model="form.prepaid"
          type="radio"
          :name="part('way')"
          :value="true"
        > In advance <span class="quiet small">no text leaves that the balance does not cover</span></label>
        <label class="check"><input
          v-model="form.prepaid"
          type="radio"
          :name="part('way')"
          :value="false"
        > By a bill afterwards <span class="quiet small">it is counted, and stops nothing</span></label>
      </fieldset>
      <NumberField
        v-if="form.prepaid"
        :id="part('warn')"
        v-model="form.warnDays"
        label="Warn when it lasts fewer days than"
        :least="1"
        :most="90"
        :error="errors.warnDays"
      />
      <Button
        v-if="changed"
        type="submit"
        label="Save"
        severity="secondary"
        :loading="saving"
      />
    </form>
  </section>
</template>

<style scoped>
.purse { display: grid; gap: var(--space-6); border-top: 1px solid var(--rule); padding-top: var(--space-5); }
.facts { display: flex; flex-wrap: wrap; gap: var(--space-5) var(--space-9); }
.facts dt { color: var(--quiet); font-size: var(--size-small); }
.facts dd { margin: 0; font-weight: 700; }
.facts .large { font-family: var(--heading); font-size: 1.6rem; line-height: 1.1; }
.waits { color: var(--waiting); }
.row { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: end; }
.amount { width: 8rem; }
.ways { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-2); }
.ways legend { padding: 0 0 var(--space-2); }
.check { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-3); align-items: baseline; cursor: pointer; }
</style>
