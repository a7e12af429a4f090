<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { explain } from '~~/core/message/words'
import { showPhone } from '~~/core/phone/show'
import type { Today, TodayTask } from '~~/shared/today'
import { MODULE_FACTS } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { sayCall } from '~/words/calls'
import { sayWaits } from '~/words/inbox'
import { ago, clock, dayName, placeOf, timeOfDay } from '~/words/time'

/** What is mine to do, in the order in which I should do it: who waits, what a call still needs, what is due, what failed, who is new. */
const me = useMe()
const shelf = useShelf()
const calls = useCalls()
const now = useNow()
const { found: today, problem, load, trying } = useLoaded<Today>('/api/today')
const loadSoon = useDebounceFn(load, 300)
useLive(notice => notice.kind !== 'presence' && void loadSoon(), () => void load())
// what becomes due while one looks comes up
watch(now, (at, before) => today.value?.later.some(({ dueAt }) => dueAt <= at && dueAt > before) && void load())

const openCalls = computed(() => calls.calls.filter(call => calls.stateOf(call) === 'ended' && !call.disposition))
const nothing = computed(
  () =>
    today.value !== null
    && shelf.shown.length
    + openCalls.value.length
    + today.value.due.length
    + today.value.later.length
    + today.value.soon.length
    + today.value.failed.length
    + today.value.fresh.length
    === 0,
)

async function tick({ id }: TodayTask): Promise<void> {
  if (await trying(() => api(`/api/tasks/${id}/done`, { method: 'POST', body: { done: true } }))) await load()
}
/** By my clock, and by theirs where it is another one. */
function whenDue({ dueAt, wallTime, zone }: TodayTask): string {
  const [mine, theirs] = [clock(dueAt, me.me!.zone), timeOfDay(wallTime.slice(11))]
  return mine === theirs ? mine : `${mine}, ${theirs} in ${placeOf(zone)}`
}

const callBack = ({ phoneId, record }: TodayTask) => calls.dial({ phoneId: phoneId!, name: record.name })
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>{{ dayName(now, me.me!.zone, 0).replace(/,? \d{4}$/, '') }}</h1>
      <p class="quiet">
        What waits for you, {{ me.me!.firstName }}, the first thing first.
      </p>
      <a
        v-if="today && today.due.length + today.later.length > 0"
        class="calendar"
        href="/api/tasks/calendar"
        download="tasks.ics"
      >My tasks as a calendar</a>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Look again"
      @again="load"
    />
    <p
      v-if="!today && !problem"
      class="quiet"
      role="status"
    >
      Checking what is due…
    </p>
    <p
      v-if="nothing"
      class="quiet"
    >
      Nothing is owed, nothing is due. A list of <NuxtLink to="/records/leads">
        leads
      </NuxtLink> is a good place to begin.
    </p>
    <CarriersAway
      v-if="today"
      :away="today.away"
    />
    <TeamDayTable
      v-if="today?.team && today.team.length > 0"
      :team="today.team"
    />
    <WaitingLines
      v-if="today?.lines"
      :lines="today.lines"
    />
    <section v-if="shelf.shown.length > 0">
      <h2>Waiting for your answer</h2>
      <ul>
        <li
          v-for="item in shelf.shown"
          :key="item.conversationId"
          class="row"
        >
          <strong>{{ item.record?.name ?? showPhone(item.remote) }}</strong>
          <span class="waits">{{ sayWaits(item, now) }}</span>
          <span class="quiet">on {{ item.line }}</span>
          <button
            type="button"
            class="plain-button"
            @click.stop="shelf.openId = item.conversationId"
          >
            Answer
          </button>
        </li>
      </ul>
    </section>
    <section v-if="openCalls.length > 0">
      <h2>Calls without a disposition</h2>
      <ul>
        <li
          v-for="call in openCalls"
          :key="call.id"
          class="row"
        >
          <strong>{{ call.record?.name ?? showPhone(call.remote) }}</strong>
          <span class="calls">{{ sayCall(call.facts, call.direction, now) }}</span>
          <span class="quiet">{{ ago(call.facts.endedAt!, now) }}</span>
          <button
            type="button"
            class="plain-button"
            @click.stop="calls.openId = call.id"
          >
            Say how it went
          </button>
        </li>
      </ul>
    </section>
    <template
      v-for="{ name, tasks } in [{ name: 'Due', tasks: today?.due ?? [] }, { name: 'Later today', tasks: today?.later ?? [] }, { name: 'Next working day', tasks: today?.soon ?? [] }]"
      :key="name"
    >
      <section v-if="tasks.length > 0">
        <h2>{{ name }}</h2>
        <ul>
          <li
            v-for="one in tasks"
            :key="one.id"
            class="row"
          >
            <span class="what"><input
              type="checkbox"
              :aria-label="`Done: ${one.title}, ${one.record.name}`"
              @change="tick(one)"
            > <NuxtLink :to="`/record/${one.record.id}`"><strong>{{ one.record.name }}</strong></NuxtLink></span>
            <span :class="{ waits: name === 'Due' }">{{ one.title }}</span>
            <span class="quiet figures">{{ whenDue(one) }}</span>
            <button
              v-if="one.kind === 'call-back' && one.phoneId"
              type="button"
              class="plain-button"
              @click="callBack(one)"
            >
              Call
            </button>
          </li>
        </ul>
      </section>
    </template>
    <section v-if="today && today.failed.length > 0">
      <h2>Did not arrive</h2>
      <ul>
        <li
          v-for="one in today.failed"
          :key="one.id"
          class="row"
        >
          <strong>{{ one.name ?? showPhone(one.remote) }}</strong>
          <span class="failed">{{ explain(one.state, one.code)?.why }}</span>
          <span class="quiet words">{{ one.words }}</span>
          <NuxtLink
            v-if="one.recordId"
            :to="`/record/${one.recordId}`"
          >
            Open
          </NuxtLink>
        </li>
      </ul>
    </section>
    <section v-if="today && today.fresh.length > 0">
      <h2>New, and not contacted yet</h2>
      <ul>
        <li
          v-for="one in today.fresh"
          :key="one.id"
          class="row"
        >
          <NuxtLink :to="`/record/${one.id}`">
            <strong>{{ one.name }}</strong>
          </NuxtLink>
          <span>{{ [MODULE_FACTS[one.module].one, one.title, one.city].filter(Boolean).join(', ') }}</span>
          <span class="quiet">{{ ago(one.madeAt, now) }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-7); align-content: start; max-width: 72rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: grid; grid-template-columns: 15rem minmax(0, 1fr) minmax(0, 1fr) 8rem; gap: var(--space-6); align-items: baseline; min-height: 36px; border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
.row > :last-child:is(button, a) { justify-self: end; }
.what { display: flex; gap: var(--space-3); align-items: baseline; }
h1 ~ .calendar { margin-left: auto; color: var(--quiet); }
.waits { color: var(--waiting); }
.calls { color: var(--calm); }
.failed { color: var(--wrong); }
.words { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } .row { grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-hair) var(--space-5); } }
</style>
