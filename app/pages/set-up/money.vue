<script setup lang="ts">
import type { MoneyAsk, MoneyFront } from '~~/shared/money'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { onlyWith } from '~/composables/set-up-list'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { ago } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('money.edit') })

const me = useMe()
const now = useNow()
const { found: front, problem, load } = useLoaded<MoneyFront>('/api/set-up/money')
const { problem: notSettled, busy, trying } = useTrying()
const ledger = useTemplateRef<{ load: () => Promise<void> }>('ledger')
const use = useTemplateRef<{ load: () => Promise<void> }>('use')

function changed(answer: MoneyFront): void {
  front.value = answer
  void ledger.value?.load()
  void me.countAgain()
}
const settle = ({ id }: MoneyAsk) => trying(async () => changed(await api<MoneyFront>(`/api/set-up/money/asks/${id}`, { method: 'DELETE' })))

const again = () => {
  void load()
  void ledger.value?.load()
  void use.value?.load()
}
useLive(notice => notice.kind === 'money' && void load(), again)
</script>

<template>
  <SetUpRoom
    title="Money"
    hint="What there is to pay texts with, what it goes for, and who may spend how much."
    what="the balance"
    :loaded="front !== null"
    :problem="problem || notSettled"
    @again="again"
  >
    <template v-if="front">
      <section v-if="front.asks.length > 0">
        <h2>Wait for money</h2>
        <ul>
          <li
            v-for="ask in front.asks"
            :key="ask.id"
            class="ask"
          >
            <span><strong class="waits">{{ ask.name }}</strong> <span class="quiet">{{ ago(ask.at, now) }}</span> {{ ask.why }}</span>
            <button
              type="button"
              class="plain-button calm"
              :aria-label="`${ask.name} has been answered`"
              :disabled="busy"
              @click="settle(ask)"
            >
              Answered
            </button>
          </li>
        </ul>
      </section>
      <p
        v-if="front.accounts.length === 0"
        class="quiet"
      >
        No carrier has told prices yet, so there is nothing to count. They come once a carrier that has some answers.
      </p>
      <MoneyPurse
        v-for="account in front.accounts"
        :key="account.currency"
        :account="account"
        @changed="changed"
      />
      <section>
        <h2>What it went for</h2>
        <MoneyUseTable ref="use" />
      </section>
      <section v-if="front.accounts.length > 0">
        <h2>Limits</h2>
        <MoneyLimits
          :front="front"
          @changed="changed"
        />
      </section>
      <section>
        <h2>The ledger</h2>
        <MoneyLedger ref="ledger" />
      </section>
    </template>
  </SetUpRoom>
</template>

<style scoped>
section, .purse { max-width: 56rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-2); }
.ask { display: flex; flex-wrap: wrap; justify-content: space-between; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.waits { color: var(--waiting); }
</style>
