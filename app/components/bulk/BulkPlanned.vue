<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { sayMoney } from '~~/core/numbers/money'
import { instantOf, wallOf } from '~~/core/hours/schedule'
import { ALLOWED_HOURS } from '~~/core/hours/reachable'
import { MOST_DAYS, type BulkPlan, type BulkTextDetail } from '~~/shared/bulk-texts'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { LEFT_WHY_WORDS } from '~/words/bulk'
import { many } from '~/words/count'
import { clock, dayName, hourOfDay } from '~/words/time'

/** When each would leave, for a start that can be moved; and the start itself. */
const { bulk, changes } = defineProps<{ bulk: BulkTextDetail, changes: number }>()
const emit = defineEmits<{ started: [], changed: [] }>()
const { zone } = useMe().me!
const now = useNow()

/** Null: at once. */
const start = ref<number | null>(null)
const days = ref('1')
const day = ref('')
const time = ref('')
const { errors, saving, save } = useSaving('start')
const anHour = ref('')
/** What is no number of answers is planned as if nothing were written, and refused when it is started. */
const plannedAnHour = computed(() => /^[1-9]\d{0,3}$/.test(anHour.value) ? Number(anHour.value) : undefined)
const asked = computed(() => ({
  start: start.value ?? undefined,
  days: Math.min(MOST_DAYS, Math.max(1, Math.round(Number(days.value)) || 1)),
  answersAnHour: plannedAnHour.value,
}))
const { found: plan, problem, load } = useLoaded(() => api<BulkPlan>(`/api/bulk-texts/${bulk.id}/plan`, { query: asked.value }))
const loadSoon = useDebounceFn(load, 60, { maxWait: 120 })
watch([asked, () => changes], loadSoon)

function move(at: number): void {
  const isNow = at <= now.value
  start.value = isNow ? null : at
  const wall = isNow ? '' : wallOf(at, zone)
  day.value = wall.slice(0, 10)
  time.value = wall.slice(11)
}
watch([day, time], () => {
  if (!day.value || !time.value) return
  const found = instantOf(`${day.value}T${time.value}`, zone)
  if (found.ok && found.instant !== start.value) start.value = found.instant
})

const leaves = computed(() => plan.value?.runs.reduce((sum, { people }) => sum + people, 0) ?? 0)
const left = computed(() => plan.value?.left.reduce((sum, { people }) => sum + people, 0) ?? 0)
const when = (at: number) => `${dayName(at, zone, now.value).replace('Today', 'today')}, ${clock(at, zone)}`
const parts = computed(() => Object.entries(bulk.parts).reduce((sum, [count, people]) => sum + Number(count) * people, 0))
/** A pace by answers may be slower than one a minute. */
const rate = (everyMs: number) => everyMs <= 60_000 ? `${many(Math.round(60_000 / everyMs), 'text', 'texts')} a minute` : `${many(Math.round(3_600_000 / everyMs), 'text', 'texts')} an hour`
const pace = computed(() => plan.value?.lines.map(({ name, everyMs, perDay, newMost, people }) =>
  `${name}: ${many(people, 'text', 'texts')}, ${rate(everyMs)}${perDay ? `, ${perDay.toLocaleString('en-US')} a day` : ''}${newMost ? `; it is new, so ${newMost.toLocaleString('en-US')} that day and twice as many each day after` : ''}`) ?? [])

const go = () => save(async () => {
  await api(`/api/bulk-texts/${bulk.id}/start`, { method: 'POST', body: { start: start.value, days: asked.value.days, answersAnHour: anHour.value === '' ? null : anHour.value } })
  emit('started')
})
/** Whoever has no usual line is texted over any that suits. */
const spread = () => save(async () => {
  const { name, body, template, fillIns, answers, numberWay, numberLabel, pictureIds, latelyDays, holdOut, occasion, place, eventAt } = bulk
  const said = { name, body, templateId: template?.id ?? null, templateVersion: template?.version ?? null, fillIns, answers, pictureIds }
  await api(`/api/bulk-texts/${bulk.id}`, {
    method: 'PUT',
    body: { ...said, lineId: null, spread: true, numberWay, numberLabel, latelyDays, holdOut, occasion, place, eventAt },
  })
  await api(`/api/bulk-texts/${bulk.id}/check`, { method: 'POST', body: {} })
  emit('changed')
})
const label = computed(() => start.value === null ? `Send ${many(leaves.value, 'text', 'texts')} now` : `Send ${many(leaves.value, 'text', 'texts')} from ${when(start.value)}`)
</script>

<template>
  <section aria-label="When each leaves">
    <h2>When each leaves</h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-else-if="!plan"
      class="quiet"
      role="status"
    >
      Working out when each leaves…
    </p>
    <template v-if="plan">
      <PlanChart
        v-if="plan.places.length > 0"
        :runs="plan.runs"
        :places="plan.places"
        :start="start ?? plan.start"
        :last="plan.last"
        :event="plan.event"
        :now="now"
        movable
        @move="move"
      />
      <dl class="facts">
        <div>
          <dt>{{ leaves === 1 ? 'text' : 'texts' }}, {{ many(parts, 'part', 'parts') }}</dt>
          <dd>{{ leaves.toLocaleString('en-US') }}</dd>
        </div>
        <div v-if="bulk.cost">
          <dt>in all</dt>
          <dd>{{ sayMoney(bulk.cost) }}</dd>
        </div>
        <div v-if="plan.last !== null">
          <dt>the last one, {{ when(plan.last).split(', ')[0] }}, your time</dt>
          <dd>{{ clock(plan.last, zone) }}</dd>
        </div>
        <div v-if="plan.event !== null">
          <dt>
            {{ left === 0 ? 'all out' : 'not all out' }} before {{ bulk.occasion ? `“${bulk.occasion}”` : 'the event' }}, {{ when(plan.event) }}
          </dt>
          <dd :class="{ wrong: left > 0 }">
            {{ left === 0 ? 'Yes' : 'No' }}
          </dd>
        </div>
      </dl>
      <p
        v-for="one in plan.left"
        :key="one.why"
        class="notice"
      >
        {{ many(one.people, 'person', 'people') }} {{ LEFT_WHY_WORDS[one.why] }}.
      </p>
      <p
        v-if="plan.event !== null"
        class="quiet"
      >
        <template v-if="plan.latestStart === null">
          No start is early enough for everybody: that takes fewer people, a later event, or lines that send more.
        </template>
        <template v-else>
          All of it is out in time if it starts {{ when(plan.latestStart) }} at the latest.
          <button
            v-if="left > 0"
            type="button"
            class="plain-button"
            @click="move(plan.latestStart)"
          >
            Start then
          </button>
        </template>
      </p>
      <p
        v-if="plan.spread"
        class="notice"
      >
        Spread over {{ plan.spread.lines.join(' and ') }}, {{ plan.spread.left === 0 ? 'all of it would be out in time' : `${many(plan.spread.left, 'person', 'people')} would be left` }}.
        <button
          type="button"
          class="plain-button"
          :disabled="saving"
          @click="spread"
        >
          Spread it, and check it again
        </button>
      </p>
      <form
        class="start"
        novalidate
        @submit.prevent="go"
      >
        <h3>How</h3>
        <p class="line">
          <span class="name">Lines</span>
          <span>{{ pace.join('; ') }}</span>
        </p>
        <p class="line">
          <span class="name">Hours</span>
          <span>{{ hourOfDay(ALLOWED_HOURS.from) }} to {{ hourOfDay(ALLOWED_HOURS.to) }} where the person is, and when they want to be reached</span>
        </p>
        <div class="line">
          <span class="name">Start</span>
          <span class="moment">
            <label for="bulk-start-day">Day</label> <DayField
              id="bulk-start-day"
              v-model="day"
            />
            <label for="bulk-start-time">Time</label> <TimeField
              id="bulk-start-time"
              v-model="time"
            />
            <button
              v-if="start !== null"
              type="button"
              class="plain-button"
              @click="move(0)"
            >At once</button>
            <span
              v-else
              class="quiet"
            >at once, unless you choose</span>
          </span>
        </div>
        <p class="line">
          <label
            class="name"
            for="bulk-days"
          >Days</label>
          <span>spread over <input
            id="bulk-days"
            v-model="days"
            class="plain-field few"
            inputmode="numeric"
          > {{ asked.days === 1 ? 'day: as soon as they can be reached' : 'days, each from the hour of the start on' }}</span>
        </p>
        <div
          v-if="!bulk.answersTo"
          class="line"
        >
          <span class="name">Answers</span>
          <PaceField
            v-model="anHour"
            :answers="plan.expected"
            :error="errors.answersAnHour"
          />
        </div>
        <p
          v-if="errors.start || errors.days"
          class="notice failed"
          role="alert"
        >
          {{ errors.start ?? errors.days }}
        </p>
        <p
          v-if="bulk.occasion || bulk.place"
          class="occasion"
        >
          It is about <strong>{{ [bulk.occasion, bulk.place].filter(Boolean).join(', ') }}</strong>{{ bulk.eventAt ? `, ${when(bulk.eventAt)}` : '' }}.
        </p>
        <Button
          type="submit"
          :label="label"
          :loading="saving"
          :disabled="leaves === 0"
        />
      </form>
    </template>
  </section>
</template>

<style scoped>
h2, h3 { font-size: var(--size-text); padding: var(--space-2) 0; }
.facts { display: flex; flex-wrap: wrap; gap: var(--space-4) var(--space-9); padding: var(--space-4) 0; margin: 0; }
.facts div { display: flex; flex-direction: column-reverse; justify-content: flex-end; max-width: 14rem; }
.facts dd { margin: 0; font-family: var(--heading); font-weight: 700; font-size: var(--size-large); font-variant-numeric: tabular-nums; }
.facts dt { color: var(--quiet); font-size: var(--size-small); }
.wrong { color: var(--wrong); }
.start { display: grid; gap: var(--space-3); justify-items: start; }
.line { display: grid; grid-template-columns: 7rem minmax(0, 1fr); gap: var(--space-4); align-items: baseline; justify-self: stretch; }
.name { color: var(--quiet); }
.moment { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-3) var(--space-4); }
.few { width: 3.5rem; }
</style>
