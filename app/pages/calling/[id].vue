<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { mayTurn, type RoundState } from '~~/core/call/round'
import type { RoundDetail } from '~~/shared/rounds'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useTextMany } from '~/composables/text-many'
import { useRounds } from '~/stores/rounds'
import { talked } from '~/words/calls'
import { many } from '~/words/count'
import { ORDER_WORDS, ROUND_WORDS, sayPassed, sayPause } from '~/words/rounds'

definePageMeta({ key: route => route.fullPath })

const id = String(useRoute().params.id)
const rounds = useRounds()
const { found: round, problem, load, trying } = useLoaded<RoundDetail>(`/api/rounds/${id}`)
const changing = ref(false)
const changes = ref(0)

const loadSoon = useDebounceFn(async () => {
  changes.value++
  await load()
}, 250)
// a call of the round that ends, or how it went, changes what is shown here too
useLive(notice => void ((notice.kind === 'round' ? notice.roundId === id : notice.kind === 'call') && loadSoon()), () => void loadSoon())

async function turn(state: RoundState): Promise<void> {
  if (await trying(() => api(`/api/rounds/${id}/state`, { method: 'PUT', body: { state } }))) await load()
}

/** Whom of it a bulk text can go to. */
const OUTCOMES = [
  { reached: false, label: 'Text those not reached', called: 'not reached' },
  { reached: true, label: 'Text those reached', called: 'reached' },
]
const { problem: notTexted, busy: texting, textMany } = useTextMany()

const TURNS: { to: RoundState, label: string }[] = [
  { to: 'open', label: 'Go on with it' },
  { to: 'paused', label: 'Pause it' },
  { to: 'stopped', label: 'Stop it' },
]
const turns = computed(() => round.value?.mayChange ? TURNS.filter(({ to }) => mayTurn(round.value!.state, to)) : [])
const most = computed(() => Math.max(1, ...round.value?.results.map(({ count }) => count) ?? []))
const left = computed(() => round.value ? round.value.counts.waiting + round.value.counts.held : 0)
const notNow = computed(() => round.value ? sayPassed(round.value.notNow) : '')
const manner = computed(
  () =>
    round.value
    && [
      ORDER_WORDS[round.value.order],
      `the next one is dialled ${sayPause(round.value.pauseSeconds)}`,
      `nobody called in the last ${many(round.value.notWithinHours, 'hour', 'hours')}`,
    ].join('; '),
)
</script>

<template>
  <div class="page">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!round && !problem"
      class="quiet"
      role="status"
    >
      Opening the round…
    </p>
    <template v-if="round">
      <header class="head">
        <h1>{{ round.name }}</h1>
        <p class="quiet where">
          {{ round.team ? `${round.team.name}, made by ${round.madeBy.firstName}` : `${round.madeBy.firstName} alone` }}. {{ manner }}.
        </p>
        <strong
          v-if="round.state !== 'open'"
          class="state"
        >{{ ROUND_WORDS[round.state] }}</strong>
      </header>
      <p class="acts">
        <Button
          v-if="round.state === 'open' && left > 0"
          :label="rounds.mine?.id !== round.id ? 'Work on it' : rounds.mine.inHand ? `Go to ${rounds.mine.inHand.name}` : 'Go on with the next'"
          :loading="rounds.busy"
          @click="rounds.next(round.id)"
        />
        <button
          v-for="{ to, label } in turns"
          :key="to"
          type="button"
          class="plain-button"
          @click="turn(to)"
        >
          {{ label }}
        </button>
        <button
          v-if="round.mayChange"
          type="button"
          class="plain-button calm"
          @click="changing = true"
        >
          Change how it goes
        </button>
      </p>
      <RoundBar :counts="round.counts" />
      <p
        v-if="round.state !== 'stopped' && notNow"
        class="quiet"
      >
        Of those waiting, these cannot be called now: {{ notNow }}.
      </p>
      <div class="glance">
        <section>
          <h2>How it went</h2>
          <p
            v-if="round.results.length === 0"
            class="quiet"
          >
            Nobody has been called yet.
          </p>
          <ul v-else>
            <li
              v-for="{ name, colour, count } in round.results"
              :key="name"
              class="result"
            >
              <span>{{ name || 'no disposition yet' }}</span>
              <span class="track"><span
                class="length"
                :class="{ open: colour === null }"
                :style="{ width: `${count / most * 100}%`, background: colour ? `var(--${colour === 'plain' ? 'quiet' : colour})` : undefined }"
              /></span>
              <span class="figures">{{ count.toLocaleString('en-US') }}</span>
            </li>
          </ul>
          <p
            v-if="round.counts.called + round.counts.passed + round.counts.skipped > 0"
            class="then"
          >
            <button
              v-for="{ reached, label, called } in OUTCOMES"
              :key="label"
              type="button"
              class="plain-button"
              :disabled="texting"
              @click="textMany(`${round.name}, ${called}`.slice(0, 60), { ofRound: { roundId: id, reached } })"
            >
              {{ label }}
            </button>
          </p>
          <p
            v-if="notTexted"
            class="notice failed"
            role="alert"
          >
            {{ notTexted }}
          </p>
        </section>
        <section>
          <h2>Who calls</h2>
          <p
            v-if="round.colleagues.length === 0"
            class="quiet"
          >
            Nobody has started.
          </p>
          <ul v-else>
            <li
              v-for="one in round.colleagues"
              :key="one.id"
              class="colleague"
            >
              <strong>{{ one.firstName }}</strong>
              <span class="quiet">{{ one.here ? 'on it now' : 'not now' }}</span>
              <span class="figures">{{ one.called }} called, {{ one.reached }} reached{{ one.talkMs > 0 ? `, talked ${talked(one.talkMs)}` : '' }}</span>
            </li>
          </ul>
        </section>
      </div>
      <RoundPeopleList
        :round="round"
        :changes="changes"
        @changed="loadSoon"
      />
      <LazyRoundManner
        v-if="changing"
        :round="round"
        @close="changing = false"
        @saved="changing = false; load()"
      />
    </template>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; max-width: 76rem; }
.head { display: flex; align-items: baseline; gap: var(--space-5); flex-wrap: wrap; }
.where { flex: 1; }
.state { color: var(--waiting); }
.acts { display: flex; gap: var(--space-7); align-items: center; }
.glance { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: var(--space-10); }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.result { display: grid; grid-template-columns: 13rem minmax(0, 1fr) 2.5rem; gap: var(--space-5); align-items: center; border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
.then { display: flex; gap: var(--space-7); padding-top: var(--space-3); }
.result .figures { text-align: right; }
.length { display: block; height: 10px; min-width: 3px; }
.length.open { background: none; border: 1px solid var(--waiting); }
.colleague { display: grid; grid-template-columns: 6rem 6rem minmax(0, 1fr); gap: var(--space-5); border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } .glance { grid-template-columns: minmax(0, 1fr); gap: var(--space-6); } .result { grid-template-columns: 9rem minmax(0, 1fr) 2rem; } }
</style>
