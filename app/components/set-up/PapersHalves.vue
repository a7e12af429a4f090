<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { PapersFront, PapersWanted, Registration } from '~~/shared/papers'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { daysWords, PAPER_WORDS, PAPERS_STATE_WORDS, stepWords, waitWords, withWhom } from '~/words/papers'
import { shortDay } from '~/words/time'

/** In two halves: what is ours to do, and what others take their time over. */
const { front } = defineProps<{ front: PapersFront }>()
const emit = defineEmits<{ changed: [front: PapersFront] }>()

const now = useNow()
const zone = computed(() => useMe().me!.zone)
const { problem, busy, trying } = useTrying()

const inState = (...states: Registration['state'][]) => front.registrations.filter(({ state }) => states.includes(state))
const sentBack = computed(() => inState('asked-back', 'refused'))
const waiting = computed(() => inState('handed-in'))
const accepted = computed(() => inState('accepted'))
/** What happened to all of them, the latest first. */
const past = computed(() => front.registrations.flatMap(one => one.steps.map(step => ({ one, step }))).sort((a, b) => b.step.at - a.step.at))
/** How far the usual time is over, in percent. */
const share = ({ handedAt, mostDays }: Registration) => Math.max(0, Math.min(100, (now.value - handedAt) / 864_000 / Math.max(1, mostDays)))
const whole = computed(() => front.missing.length === 0)
const nothing = computed(() => whole.value && sentBack.value.length === 0 && front.wanted.length === 0)

const handIn = ({ carrier, country, leastDays, mostDays }: PapersWanted | Registration) => trying(async () =>
  emit('changed', await api<PapersFront>('/api/set-up/papers/registrations', { method: 'POST', body: { id: uuid(), carrier, country, leastDays, mostDays } })))

/** Of which papers somebody writes down what the carrier has said. */
const noting = shallowRef<Registration | null>(null)
const bringing = ref(false)
function changed(all: PapersFront): void {
  emit('changed', all)
  noting.value = null
  bringing.value = false
}
const linesWords = ({ lines }: PapersWanted) => lines > 0
  ? `It asks for them: you have ${many(lines, 'line', 'lines')} there.`
  : 'It asks for them once you take a line there.'
</script>

<template>
  <p
    v-if="problem"
    class="notice failed"
    role="alert"
  >
    {{ problem }}
  </p>
  <div class="halves">
    <section aria-labelledby="papers-ours">
      <h2 id="papers-ours">
        Yours to do
      </h2>
      <ul>
        <li
          v-if="!whole"
          class="one"
        >
          <strong class="waits">Write {{ front.missing.map(key => PAPER_WORDS[key]).join(', ') }}.</strong>
          <span class="quiet small">Below. Nothing is handed in before.</span>
        </li>
        <li
          v-for="one in sentBack"
          :key="one.id"
          class="one"
        >
          <strong class="waits">{{ withWhom(one) }}: {{ PAPERS_STATE_WORDS[one.state] }} on {{ shortDay(one.answeredAt!, zone) }}</strong>
          <span>“{{ one.steps[0]!.words }}”</span>
          <span>
            <button
              type="button"
              class="plain-button"
              :disabled="busy || !whole || !one.changedSince"
              :aria-label="`Hand in again: ${withWhom(one)}`"
              @click="handIn(one)"
            >
              Hand in again
            </button>
            <span
              v-if="!one.changedSince"
              class="quiet small"
            >once something is changed below</span>
          </span>
        </li>
        <li
          v-for="one in front.wanted"
          :key="`${one.carrier} ${one.country}`"
          class="one"
        >
          <strong>{{ withWhom(one) }}</strong>
          <span class="quiet small">{{ linesWords(one) }} It usually answers in {{ daysWords(one) }}.</span>
          <span><button
            type="button"
            class="plain-button"
            :disabled="busy || !whole"
            :aria-label="`Hand in: ${withWhom(one)}`"
            @click="handIn(one)"
          >
            Hand in
          </button></span>
        </li>
        <li
          v-if="nothing"
          class="one quiet"
        >
          Nothing.
        </li>
        <li
          v-for="title in front.away"
          :key="title"
          class="one away"
        >
          {{ title }} does not answer: what it asks for is not known at the moment.
        </li>
        <li
          v-if="front.byHand.length > 0"
          class="one"
        >
          <span><button
            type="button"
            class="plain-button calm"
            @click="bringing = true"
          >
            Write down papers that you have brought to a carrier yourself
          </button></span>
        </li>
      </ul>
    </section>
    <section aria-labelledby="papers-theirs">
      <h2 id="papers-theirs">
        Theirs to do
      </h2>
      <ul>
        <li
          v-for="one in waiting"
          :key="one.id"
          class="one"
        >
          <strong>{{ withWhom(one) }}</strong>
          <span :class="{ waits: waitWords(one, now).late }">waits {{ waitWords(one, now).waits }}</span>
          <span
            class="bar"
            aria-hidden="true"
          ><span :style="{ width: `${share(one)}%` }" /></span>
          <span
            v-if="one.ref"
            class="quiet small"
          >They know them as {{ one.ref }}.</span>
          <span v-if="!one.byItself"><button
            type="button"
            class="plain-button"
            :aria-label="`Write down their answer: ${withWhom(one)}`"
            @click="noting = one"
          >
            Write down their answer
          </button></span>
        </li>
        <li
          v-if="waiting.length === 0"
          class="one quiet"
        >
          Nobody has papers of yours to look through.
        </li>
        <li
          v-for="one in accepted"
          :key="one.id"
          class="one"
        >
          <span><strong class="good">{{ withWhom(one) }}</strong> accepted on {{ shortDay(one.answeredAt!, zone) }}</span>
          <span
            v-if="one.changedSince"
            class="quiet small"
          >What they have is older than what is written. <button
            type="button"
            class="plain-button"
            :disabled="busy || !whole"
            :aria-label="`Hand in what was changed: ${withWhom(one)}`"
            @click="handIn(one)"
          >
            Hand in what was changed
          </button></span>
        </li>
      </ul>
      <details
        v-if="front.registrations.length > 0"
        class="past"
      >
        <summary>Step by step</summary>
        <ol>
          <li
            v-for="({ one, step }, i) in past"
            :key="i"
            class="small"
          >
            {{ stepWords(one, step, zone) }}
          </li>
        </ol>
      </details>
    </section>
  </div>
  <LazyPapersBrought
    v-if="bringing"
    :front="front"
    @changed="changed"
    @close="bringing = false"
  />
  <LazyPapersAnswer
    v-if="noting"
    :registration="noting"
    @changed="changed"
    @close="noting = null"
  />
</template>

<style scoped>
.halves { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-8); max-width: 68rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.one { display: grid; gap: var(--space-2); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.waits { color: var(--waiting); }
.away { color: var(--wrong); }
.good { color: var(--good); }
.bar { display: block; height: 4px; background: var(--rule); border-radius: 2px; }
.bar span { display: block; height: 100%; background: var(--accent); border-radius: 2px; }
.past summary { cursor: pointer; color: var(--quiet); padding: var(--space-3) 0; }
.past ol { list-style: none; padding: 0; display: grid; gap: var(--space-2); }
@media (max-width: 900px) { .halves { grid-template-columns: minmax(0, 1fr); } }
</style>
