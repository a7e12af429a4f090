<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { Pipeline } from '~~/shared/pipelines'
import { api } from '~/composables/api'
import { useBoard } from '~/composables/board'
import { useKeys } from '~/composables/keys'
import { useLoaded } from '~/composables/loaded'
import { many } from '~/words/count'
import { amounts } from '~/words/money'

definePageMeta({ key: route => String(route.params.id) })

const chosen = String(useRoute().params.id ?? '')
const whose = ref<'all' | 'mine'>('all')

const { found: pipelines, problem, load } = useLoaded(() => api<Pipeline[]>('/api/pipelines', { query: { holds: 'deal' } }), ([first]) => {
  if (chosen === '' && first) void navigateTo(`/pipelines/${first.id}`, { replace: true })
})

const shown = chosen
  ? useBoard(
      () => ({ url: `/api/pipelines/${chosen}/board`, query: { whose: whose.value } }),
      card => `/api/records/${card.id}/stage`,
    )
  : null
const open = computed(() => shown?.board.value?.stages.filter(stage => !stage.over) ?? [])
const openCount = computed(() => open.value.reduce((all, { count }) => all + count, 0))
const openWorth = computed(() => {
  const sums = new Map<string, number>()
  for (const { currency, amount } of open.value.flatMap(({ worth }) => worth)) sums.set(currency, (sums.get(currency) ?? 0) + amount)
  return amounts([...sums].map(([currency, amount]) => ({ currency, amount })))
})

const make = () => navigateTo({ path: `/records/${MODULE_FACTS.deal.slug}/new`, query: { pipeline: chosen } })

useKeys([
  { keys: 'c', shown: 'C', what: 'Make a new deal', act: () => void make() },
  { keys: 'm', shown: 'M', what: 'Show my deals, or all', act: () => whose.value = whose.value === 'all' ? 'mine' : 'all' },
])
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Deals</h1>
      <p
        class="quiet figures"
        role="status"
      >
        <template v-if="shown?.board.value">
          {{ many(openCount, 'open deal', 'open deals') }}
        </template>
      </p>
      <ModuleNav
        class="right"
        module="deal"
      />
    </header>
    <div class="kept">
      <nav
        aria-label="Pipelines"
        class="pipelines"
      >
        <NuxtLink to="/records/deals">
          As a list
        </NuxtLink>
        <NuxtLink
          v-for="pipeline in pipelines"
          :key="pipeline.id"
          :to="`/pipelines/${pipeline.id}`"
          :aria-current="pipeline.id === chosen ? 'page' : undefined"
        >
          {{ pipeline.name }}
        </NuxtLink>
      </nav>
      <span
        v-if="openWorth"
        class="quiet figures"
      >open: {{ openWorth }}</span>
      <span class="right acts">
        <button
          type="button"
          class="plain-button calm"
          :aria-pressed="whose === 'mine'"
          @click="whose = whose === 'all' ? 'mine' : 'all'"
        >
          {{ whose === 'mine' ? 'Mine only' : 'Everybody’s' }} <kbd>M</kbd>
        </button>
        <NuxtLink
          :to="{ path: `/records/${MODULE_FACTS.deal.slug}/new`, query: { pipeline: chosen } }"
          class="new"
        >
          New deal <kbd>C</kbd>
        </NuxtLink>
      </span>
    </div>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <BoardBeside
      v-if="shown"
      :shown="shown"
    />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-3); }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.kept { display: flex; align-items: baseline; flex-wrap: wrap; gap: var(--space-2) var(--space-7); }
.pipelines { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); }
.pipelines a { color: var(--quiet); text-decoration: none; }
.pipelines a[aria-current] { color: var(--accent); font-weight: 700; }
.right { margin-left: auto; }
.acts { display: flex; gap: var(--space-7); align-items: baseline; }
.new { font-weight: 700; text-decoration: none; }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } }
</style>
