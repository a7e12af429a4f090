<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import type { BulkTextHead } from '~~/shared/bulk-texts'
import { MODULE_FACTS } from '~~/shared/modules'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { BULK_WORDS } from '~/words/bulk'
import { many } from '~/words/count'
import { ago } from '~/words/time'

/** The bulk texts that I may see: those under way first. */
const now = useNow()
const { found: all, problem, load } = useLoaded<BulkTextHead[]>('/api/bulk-texts')
const loadSoon = useThrottleFn(load, 1_000, true)
useLive(notice => void (notice.kind === 'bulk-text' && loadSoon()), () => void load())

const kinds = computed(() => [
  { name: 'Under way', of: all.value?.filter(({ state }) => state === 'running' || state === 'paused') ?? [] },
  { name: 'Not started', of: all.value?.filter(({ state }) => state === 'draft' || state === 'checking' || state === 'checked') ?? [] },
  { name: 'Over', of: all.value?.filter(({ state }) => state === 'done' || state === 'stopped') ?? [] },
].filter(kind => kind.of.length > 0))
const whom = ({ people, modules }: BulkTextHead) => {
  const { one, many: several } = modules.length === 1 ? MODULE_FACTS[modules[0]!] : { one: 'person', many: 'people' }
  return many(people, one.toLowerCase(), several.toLowerCase())
}
const begun = ({ state }: BulkTextHead) => state === 'running' || state === 'paused' || state === 'done' || state === 'stopped'
const toGet = ({ counts }: BulkTextHead) => counts.ready + counts.texted + counts.refused
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Bulk texts</h1>
      <BulkNav />
      <p class="quiet">
        One text to many, checked person by person before it leaves.
      </p>
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
      Loading the bulk texts…
    </p>
    <p
      v-else-if="all?.length === 0"
      class="quiet empty"
    >
      There are none yet. Choose people in a list, all of it perhaps, or a group, and take “Text them”.
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
          v-for="one in kind.of"
          :key="one.id"
          class="row"
        >
          <p>
            <NuxtLink :to="`/bulk/${one.id}`">
              <strong>{{ one.name }}</strong>
            </NuxtLink>
            <span class="quiet small block">to {{ whom(one) }}, {{ one.madeBy.firstName }}, {{ ago(one.startedAt ?? one.madeAt, now) }}</span>
          </p>
          <BulkBar
            v-if="begun(one)"
            :sent="one.counts.texted"
            :refused="one.counts.refused"
            :all="toGet(one)"
          />
          <span
            v-else
            class="quiet"
          >{{ BULK_WORDS[one.state] }}</span>
          <span class="figures end">{{ begun(one) ? `${one.counts.texted.toLocaleString('en-US')} of ${toGet(one).toLocaleString('en-US')} sent` : '' }}</span>
          <span
            class="end"
            :class="{ quiet: one.state !== 'paused', waits: one.state === 'paused' }"
          >{{ begun(one) ? BULK_WORDS[one.state] : '' }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-7); align-content: start; max-width: 72rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.row { display: grid; grid-template-columns: 22rem minmax(0, 1fr) 11rem 7rem; gap: var(--space-7); align-items: center; border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
.block { display: block; }
.end { text-align: right; }
.waits { color: var(--waiting); font-weight: 700; }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } .row { grid-template-columns: minmax(0, 1fr); gap: var(--space-2); } .end { text-align: left; } }
</style>
