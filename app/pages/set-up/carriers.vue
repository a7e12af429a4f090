<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import type { SetUpCarrier } from '~~/shared/carriers'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { sayState, wayWords } from '~/words/carriers'

definePageMeta({ middleware: () => onlyWith('carrier.edit') })

/** How often it is looked whether a carrier can be reached, while somebody looks. */
const LOOK_EVERY_MS = 4_000

const { list: carriers, problem, trying, load } = useSetUpList<SetUpCarrier>(() => ({ path: '/api/set-up/carriers' }))
const now = useNow()
/** What is being changed; `new`: a further one. */
const editing = shallowRef<SetUpCarrier | 'new' | null>(null)
const removing = ref<string | null>(null)

useIntervalFn(() => {
  if (!document.hidden && carriers.value && !problem.value)
    void api<SetUpCarrier[]>('/api/set-up/carriers').then(found => carriers.value = found, () => {})
}, LOOK_EVERY_MS)

function saved(all: SetUpCarrier[]): void {
  carriers.value = all
  editing.value = null
}

async function remove({ account }: SetUpCarrier): Promise<void> {
  if (await trying(() => api<SetUpCarrier[]>(`/api/set-up/carriers/${account!.id}`, { method: 'DELETE' }))) removing.value = null
}

function what({ account }: SetUpCarrier): string {
  if (!account) return 'It ships with Plauder: what is texted over it reaches the page of handsets, and nobody outside.'
  return wayWords(account)
}
const over = ({ lines }: SetUpCarrier): string =>
  lines.length > 0 ? `${lines.join(', ')} ${lines.length === 1 ? 'texts' : 'text'} over it.` : 'No line texts over it.'
</script>

<template>
  <SetUpRoom
    title="Carriers"
    hint="Who carries your texts to the networks."
    what="the carriers"
    :loaded="carriers !== null"
    :problem="problem"
    @again="load"
  >
    <p v-if="carriers?.length === 0">
      None is connected yet, so nothing can be texted.
    </p>
    <ul>
      <li
        v-for="carrier in carriers"
        :key="carrier.name"
        class="carrier"
      >
        <div>
          <h2>{{ carrier.title }}</h2>
          <p class="quiet small">
            {{ what(carrier) }}
          </p>
          <p class="quiet small">
            {{ over(carrier) }}
          </p>
        </div>
        <div>
          <p v-if="carrier.state">
            <strong :class="carrier.state.is === 'connected' ? 'good' : carrier.state.is === 'away' ? 'wrong' : 'quiet'">{{ sayState(carrier.state, now) }}</strong>
            <span
              v-if="carrier.state.is === 'away'"
              class="quiet"
            > It is tried again by itself; texts wait.</span>
          </p>
          <p
            v-if="carrier.account"
            class="ways"
          >
            <button
              type="button"
              class="plain-button"
              :aria-label="`Change how ${carrier.title} is connected`"
              @click="editing = carrier"
            >
              Change
            </button>
            <button
              type="button"
              class="plain-button calm"
              :aria-label="`Remove ${carrier.title}`"
              @click="removing = carrier.name"
            >
              Remove
            </button>
          </p>
          <RemoveQuestion
            v-if="removing === carrier.name"
            @remove="remove(carrier)"
            @keep="removing = null"
          >
            What is told of its texts from now on is not heard any more.
          </RemoveQuestion>
        </div>
      </li>
    </ul>
    <p>
      <Button
        label="Connect a carrier"
        @click="editing = 'new'"
      />
    </p>
    <p
      v-if="carriers?.some(({ account, lines }) => account && lines.length === 0)"
      class="quiet"
    >
      A carrier without a line carries nothing: <NuxtLink to="/set-up/lines">add its numbers as lines</NuxtLink>.
    </p>
    <LazyCarrierEditor
      v-if="editing"
      :carrier="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </SetUpRoom>
</template>

<style scoped>
.carrier { display: grid; grid-template-columns: 24rem minmax(0, 1fr); gap: var(--space-8); border-top: 1px solid var(--rule); padding: var(--space-4) 0; }
.carrier h2 { font-size: var(--size-text); }
.ways { display: flex; gap: var(--space-6); }
.good { color: var(--good); }
.wrong { color: var(--wrong); }
@media (max-width: 700px) { .carrier { grid-template-columns: minmax(0, 1fr); gap: var(--space-3); } }
</style>
