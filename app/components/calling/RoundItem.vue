<script setup lang="ts">
import { PhListNumbers } from '@phosphor-icons/vue'
import type { MyRound } from '~~/shared/rounds'
import { useKeys } from '~/composables/keys'
import { useSeconds } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { useRounds } from '~/stores/rounds'
import { clock } from '~/words/time'

/** The round I am on, on the shelf: how far it is, who is in hand, and what can be done with them at once. */
const { round } = defineProps<{ round: MyRound }>()
const A_MOMENT_MS = 3_000
const route = useRoute()
const rounds = useRounds()
const calls = useCalls()
const me = useMe()
const seconds = useSeconds()

const done = computed(() => round.counts.called + round.counts.skipped + round.counts.passed)
const total = computed(() => done.value + round.counts.waiting + round.counts.held)
const onCall = computed(() => calls.on !== null)
const left = computed(() => rounds.dialsAt === null ? null : Math.max(0, Math.ceil((rounds.dialsAt - seconds.value) / 1_000)))
const idle = computed(() => {
  if (round.state !== 'open') return `is ${round.state}`
  if (round.counts.waiting + round.counts.held === 0) return 'everybody had their turn'
  // what is due now is told as this very moment, by a clock that may be a little ahead
  if (round.nextAt !== null && round.nextAt > seconds.value + A_MOMENT_MS)
    return `nobody may be called before ${clock(round.nextAt, me.me!.zone)}`
  return ''
})
/** Whoever comes next waits while it is being said how it went with the one before. */
const comes = computed(() => !onCall.value && calls.openId !== null && calls.openId === rounds.ended)
const inHand = computed(() => onCall.value || comes.value ? null : round.inHand)
/** There the key for calling them works. */
const isTheirPage = computed(() => route.path === `/record/${round.inHand?.recordId}`)
const mayGoOn = computed(() => !round.inHand && round.state === 'open' && idle.value === '')

useKeys([
  { keys: 'r n', shown: 'R N', what: 'The next person in the round', act: () => mayGoOn.value && !onCall.value && void rounds.next() },
  { keys: 'r s', shown: 'R S', what: 'Skip whoever is in hand in the round', act: () => inHand.value && void rounds.say('skip') },
  { keys: 'r l', shown: 'R L', what: 'Come back to them later in the round', act: () => inHand.value && void rounds.say('later') },
  { keys: 'r w', shown: 'R W', what: 'Do not dial by itself now', act: rounds.wait },
  { keys: 'r q', shown: 'R Q', what: 'Stop for now, and leave the round', act: () => void rounds.leave() },
].map(one => ({ ...one, everywhere: true })))
</script>

<template>
  <div
    class="round"
    role="group"
    :aria-label="`Round ${round.name}`"
  >
    <NuxtLink
      class="name"
      :to="`/calling/${round.id}`"
    >
      <PhListNumbers
        size="18"
        aria-hidden="true"
      />
      <span><strong>{{ round.name }}</strong>&ensp;<span class="figures">{{ done }} of {{ total }}</span></span>
    </NuxtLink>
    <span
      v-if="round.inHand && comes"
      class="text quiet"
    >then {{ round.inHand.name }}</span>
    <template v-else-if="inHand">
      <NuxtLink
        class="act"
        :to="`/record/${inHand.recordId}`"
      >
        {{ inHand.name }}
      </NuxtLink>
      <span
        v-if="round.state !== 'open'"
        class="text"
        role="status"
      >is {{ round.state }}</span>
      <template v-else-if="left !== null">
        <span
          class="text figures"
          role="timer"
        >calls in {{ left }} s</span>
        <button
          type="button"
          class="act"
          @click="rounds.wait()"
        >
          Wait
        </button>
      </template>
      <button
        v-else
        type="button"
        class="act main"
        :disabled="calls.busy"
        @click="rounds.dial()"
      >
        Call <kbd v-if="isTheirPage">D</kbd>
      </button>
      <button
        type="button"
        class="act"
        :disabled="rounds.busy"
        @click="rounds.say('later')"
      >
        Later
      </button>
      <button
        type="button"
        class="act"
        :disabled="rounds.busy"
        @click="rounds.say('skip')"
      >
        Skip
      </button>
    </template>
    <template v-else-if="!onCall">
      <button
        v-if="mayGoOn"
        type="button"
        class="act main"
        :disabled="rounds.busy"
        @click="rounds.next()"
      >
        Next
      </button>
      <span
        v-else
        class="text"
        role="status"
      >{{ idle }}</span>
    </template>
    <button
      v-if="!onCall"
      type="button"
      class="act calm"
      @click="rounds.leave()"
    >
      Stop for now
    </button>
  </div>
</template>

<style scoped>
.round { display: flex; align-items: stretch; min-height: 41px; border-right: 1px solid var(--field-rule); white-space: nowrap; }
.name, .act, .text { display: flex; align-items: center; color: inherit; text-decoration: none; }
.name { gap: var(--space-3); padding: 0 var(--space-4) 0 var(--space-6); }
.act { gap: var(--space-2); border: 0; background: none; cursor: pointer; padding: 0 var(--space-3); font-weight: 700; }
.act:hover, .name:hover { background: var(--hover); }
.main { color: var(--accent); }
.text { padding: 0 var(--space-3); color: var(--waiting); }
.text.quiet { color: var(--quiet); }
.calm { color: var(--quiet); font-weight: 400; padding-right: var(--space-6); }
.name:focus-visible, .act:focus-visible { outline-offset: -3px; }
@media (max-width: 700px) { .round { flex: 1 1 100%; flex-wrap: wrap; border-right: 0; } }
</style>
