<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import type { RoundHead } from '~~/shared/rounds'
import { MODULE_FACTS } from '~~/shared/modules'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useRounds } from '~/stores/rounds'
import { many } from '~/words/count'
import { ROUND_WORDS } from '~/words/rounds'
import { ago } from '~/words/time'

const now = useNow()
const rounds = useRounds()
const calls = useCalls()
const { found: all, problem, load } = useLoaded<RoundHead[]>('/api/rounds')
const loadSoon = useDebounceFn(load, 200)
useLive(notice => void (notice.kind === 'round' && loadSoon()), () => void load())

const kinds = computed(() => [
  { name: 'Under way', rounds: all.value?.filter(({ state }) => state === 'open') ?? [] },
  { name: 'Paused', rounds: all.value?.filter(({ state }) => state === 'paused') ?? [] },
  { name: 'Stopped', rounds: all.value?.filter(({ state }) => state === 'stopped') ?? [] },
].filter(kind => kind.rounds.length > 0))
const whose = ({ team, madeBy }: RoundHead) => team ? `${team.name}, made by ${madeBy.firstName}` : `${madeBy.firstName} alone`
const here = ({ on, state }: RoundHead) =>
  on.length === 0
    ? state === 'open'
      ? 'nobody is on it'
      : ROUND_WORDS[state]
    : `${on.map(({ firstName }) => firstName).join(', ')} ${on.length === 1 ? 'is' : 'are'} on it`
</script>

<template>
  <div class="page">
    <CallingNav />
    <header class="head">
      <h1>Call rounds</h1>
      <p class="quiet">
        People who are called one after the other, by one or by several of you.
      </p>
      <button
        type="button"
        class="plain-button dial"
        @click="calls.dialling = true"
      >
        Call a number <kbd>Alt D</kbd>
      </button>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-if="!all && !problem"
      class="quiet"
      role="status"
    >
      Loading the rounds…
    </p>
    <p
      v-else-if="all?.length === 0"
      class="quiet empty"
    >
      There are none yet. Choose people in a list, all of it perhaps, and take “Call them in a round”.
      <NuxtLink to="/records/leads">
        To the leads
      </NuxtLink>
    </p>
    <section
      v-for="kind in kinds"
      :key="kind.name"
    >
      <h2>{{ kind.name }}</h2>
      <ul>
        <li
          v-for="round in kind.rounds"
          :key="round.id"
          class="row"
        >
          <p>
            <NuxtLink :to="`/calling/${round.id}`">
              <strong>{{ round.name }}</strong>
            </NuxtLink>
            <span class="quiet small block">{{ many(Object.values(round.counts).reduce((sum, count) => sum + count, 0), MODULE_FACTS[round.module].one.toLowerCase(), MODULE_FACTS[round.module].many.toLowerCase()) }}, {{ whose(round) }}, {{ ago(round.madeAt, now) }}</span>
          </p>
          <RoundBar :counts="round.counts" />
          <span class="quiet">{{ here(round) }}</span>
          <button
            v-if="round.state === 'open' && round.counts.waiting + round.counts.held > 0"
            type="button"
            class="plain-button"
            :aria-label="`Work on ${round.name}`"
            :disabled="rounds.busy"
            @click="rounds.next(round.id)"
          >
            {{ rounds.mine?.id === round.id ? 'Go on' : 'Work on it' }}
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-7); align-content: start; max-width: 72rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.dial { margin-left: auto; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: grid; grid-template-columns: 20rem minmax(0, 1fr) 11rem 6rem; gap: var(--space-7); align-items: center; border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.row > button { justify-self: end; }
.block { display: block; }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } .row { grid-template-columns: minmax(0, 1fr); gap: var(--space-2); } .row > button { justify-self: start; } }
</style>
