<script setup lang="ts">
import { STANDINGS, type Standing } from '~~/core/call/round'
import type { RoundDetail, RoundPeople, RoundPersonRow } from '~~/shared/rounds'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { sayCall } from '~/words/calls'
import { PASS_WORDS, STANDING_WORDS } from '~/words/rounds'
import { ago, clock, dayName } from '~/words/time'

/** Everybody in a round: where they stand and why, and what came of it. */
const { round, changes } = defineProps<{ round: RoundDetail, /** Grows when something happened to them. */ changes: number }>()
const emit = defineEmits<{ changed: [] }>()
const me = useMe()
const now = useNow()
const state = ref<Standing['state'] | null>(null)
const page = ref(1)
const {
  found: people,
  problem,
  load,
  trying,
} = useLoaded(() => api<RoundPeople>(`/api/rounds/${round.id}/people`, { query: { state: state.value ?? undefined, page: page.value } }))
watch(state, () => page.value = 1)
watch([state, page, () => changes], load)

async function again({ recordId }: RoundPersonRow): Promise<void> {
  if (!await trying(() => api(`/api/rounds/${round.id}/people/${recordId}`, { method: 'POST', body: { say: 'again' } }))) return
  emit('changed')
  await load()
}

const pages = computed(() => Math.max(1, Math.ceil((people.value?.total ?? 0) / (people.value?.size ?? 1))))
const kinds = computed(() => STANDINGS.filter(one => round.counts[one] > 0))
const when = (instant: number) =>
  `${dayName(instant, me.me!.zone, now.value) === 'Today' ? '' : `${dayName(instant, me.me!.zone, now.value)}, `}${clock(instant, me.me!.zone)}`
function how(row: RoundPersonRow): string {
  if (row.reason)
    return [PASS_WORDS[row.reason], row.notBefore && row.notBefore > now.value ? `again from ${when(row.notBefore)}` : '']
      .filter(Boolean)
      .join(', ')
  if (row.state === 'held') return `with ${row.by}`
  if (row.state === 'skipped') return `by ${row.by}`
  return row.facts && row.state === 'called' ? sayCall(row.facts, 'out', now.value) : ''
}
const mayPutBack = (row: RoundPersonRow) => ['called', 'passed', 'skipped'].includes(row.state)
</script>

<template>
  <section>
    <div class="top">
      <h2>Everybody in it</h2>
      <p class="kinds">
        <button
          v-for="one in [null, ...kinds]"
          :key="one ?? 'all'"
          type="button"
          class="plain-button"
          :class="{ chosen: state === one }"
          :aria-pressed="state === one"
          @click="state = one"
        >
          {{ one ? `${STANDING_WORDS[one]} ${round.counts[one].toLocaleString('en-US')}` : 'all' }}
        </button>
      </p>
    </div>
    <PagedTable
      v-model="page"
      :problem="problem"
      loading="Loading the people…"
      :found="people?.rows.length ?? null"
      none="Nobody is at this point now."
      :heads="['Who', 'Where they stand', 'How it went', 'When', 'What can be done']"
      :pages="pages"
      fixed
      @again="load"
    >
      <template #cols>
        <colgroup>
          <col class="who"><col class="stands"><col><col class="when"><col class="acts">
        </colgroup>
      </template>
      <tr
        v-for="row in people?.rows"
        :key="row.recordId"
      >
        <td>
          <NuxtLink :to="`/record/${row.recordId}`">
            <strong>{{ row.name }}</strong>
          </NuxtLink> <span class="quiet small">{{ [row.company, row.city].filter(Boolean).join(', ') }}</span>
        </td>
        <td :class="row.state">
          {{ STANDING_WORDS[row.state] }}{{ row.state === 'called' && row.by ? ` by ${row.by}` : '' }}
        </td>
        <td>
          <strong v-if="row.disposition">{{ row.disposition }}</strong><span class="quiet">{{ row.disposition && how(row) ? ', ' : '' }}{{ how(row) }}</span>
        </td>
        <td class="quiet figures">
          {{ row.changedAt ? ago(row.changedAt, now) : '' }}
        </td>
        <td class="end">
          <button
            v-if="mayPutBack(row)"
            type="button"
            class="plain-button calm"
            :aria-label="`Put ${row.name} back into the round`"
            @click="again(row)"
          >
            Put back
          </button>
        </td>
      </tr>
    </PagedTable>
  </section>
</template>

<style scoped>
.top { display: flex; align-items: baseline; gap: var(--space-8); flex-wrap: wrap; padding-bottom: var(--space-2); }
h2 { font-size: var(--size-text); }
.kinds { display: flex; gap: var(--space-6); flex-wrap: wrap; }
.kinds .chosen { font-weight: 700; color: var(--ink); }
td { height: 36px; border-top: 1px solid var(--rule); padding: var(--space-1) var(--space-5) var(--space-1) 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.who { width: 36%; }
.stands { width: 9.5rem; }
.when { width: 8rem; }
.acts { width: 5.5rem; }
.called { color: var(--calm); }
.held { color: var(--accent); }
.passed { color: var(--quiet); }
.end { text-align: right; padding-right: 0; }
@media (max-width: 700px) { .when, .acts { width: 0; } td:nth-child(4), td:nth-child(5) { display: none; } td { white-space: normal; height: auto; } }
</style>
