<script setup lang="ts">
import { lastOf } from '~~/core/plan/run'
import { STATE_WORDS } from '~~/core/message/words'
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { BULK_WORDS, sayLeftOut } from '~/words/bulk'
import { many } from '~/words/count'
import { clock, dayName } from '~/words/time'

/** How far a bulk text has come, what became of what was sent, and what is left. */
const { bulk, busy } = defineProps<{ bulk: BulkTextDetail, busy: boolean }>()
const emit = defineEmits<{ turn: [step: 'pause' | 'go-on' | 'stop'], changed: [] }>()
const { zone } = useMe().me!
const now = useNow()

const all = computed(() => bulk.counts.ready + bulk.counts.texted + bulk.counts.refused)
const last = computed(() => bulk.runs && bulk.runs.length > 0 ? Math.max(...bulk.runs.map(lastOf)) : null)
const when = (at: number) => `${dayName(at, zone, now.value).replace('Today', 'today')}, ${clock(at, zone)}`
const next = computed(() => bulk.state === 'running' ? bulk.runs?.find(run => lastOf(run) > now.value)?.from ?? null : null)
const said = computed(() => {
  if (bulk.state === 'running')
    return next.value !== null && next.value > now.value ? `goes on ${when(next.value)}` : last.value === null ? '' : `the last one ${when(last.value)}`
  return bulk.endedAt ? when(bulk.endedAt) : ''
})
const states = computed(() => Object.entries(bulk.states).sort(([, a], [, b]) => b - a))
</script>

<template>
  <section aria-label="How far it has come">
    <p
      class="far"
      role="status"
    >
      <strong class="figures">{{ bulk.counts.texted.toLocaleString('en-US') }} of {{ all.toLocaleString('en-US') }}</strong> sent, {{ BULK_WORDS[bulk.state] }}{{ said ? `, ${said}` : '' }}
    </p>
    <BulkBar
      :sent="bulk.counts.texted"
      :refused="bulk.counts.refused"
      :all="all"
    />
    <p
      v-if="bulk.why && bulk.state === 'paused'"
      class="notice failed"
    >
      It has paused by itself: {{ bulk.why }}
    </p>
    <BulkPaced
      :bulk="bulk"
      @changed="emit('changed')"
    />
    <p class="acts">
      <button
        v-if="bulk.state === 'running'"
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="emit('turn', 'pause')"
      >
        Pause
      </button>
      <button
        v-if="bulk.state === 'paused' || bulk.state === 'stopped'"
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="emit('turn', 'go-on')"
      >
        Go on
      </button>
      <button
        v-if="bulk.state === 'running' || bulk.state === 'paused'"
        type="button"
        class="plain-button calm"
        :disabled="busy"
        @click="emit('turn', 'stop')"
      >
        Stop
      </button>
    </p>
    <PlanChart
      v-if="bulk.runs && bulk.runs.length > 0 && bulk.state !== 'done'"
      :runs="bulk.runs"
      :places="bulk.places"
      :start="bulk.runs[0]!.from"
      :last="last"
      :event="bulk.eventAt"
      :now="now"
    />
    <dl class="facts">
      <div
        v-for="[state, count] in states"
        :key="state"
      >
        <dt>{{ STATE_WORDS[state as keyof typeof STATE_WORDS] ?? state }}</dt>
        <dd>{{ count.toLocaleString('en-US') }}</dd>
      </div>
      <div v-if="bulk.counts.texted > 0">
        <dt>answered</dt>
        <dd>{{ bulk.answered.toLocaleString('en-US') }}</dd>
      </div>
      <div v-if="bulk.counts.ready > 0">
        <dt>to come</dt>
        <dd>{{ bulk.counts.ready.toLocaleString('en-US') }}</dd>
      </div>
      <div
        v-if="bulk.counts.refused > 0"
        class="wrong"
      >
        <dt>refused at the last moment</dt>
        <dd>{{ bulk.counts.refused.toLocaleString('en-US') }}</dd>
      </div>
    </dl>
    <p
      v-if="bulk.leftOut.length > 0"
      class="quiet small"
    >
      Left out: {{ bulk.leftOut.map(one => `${many(one.people, 'person', 'people')} who ${sayLeftOut(one.reason, one.people)}`).join('; ') }}.
    </p>
  </section>
</template>

<style scoped>
section { display: grid; gap: var(--space-4); max-width: 60rem; }
.far strong { font-family: var(--heading); font-size: var(--size-large); }
.acts { display: flex; gap: var(--space-7); }
.facts { display: flex; flex-wrap: wrap; gap: var(--space-4) var(--space-9); margin: 0; }
.facts div { display: flex; flex-direction: column-reverse; }
.facts dd { margin: 0; font-weight: 700; font-size: var(--size-large); font-variant-numeric: tabular-nums; }
.facts dt { color: var(--quiet); font-size: var(--size-small); }
.wrong dd { color: var(--wrong); }
</style>
