<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import type { GroupHead } from '~~/shared/groups'
import { TEXTED_MODULES } from '~~/shared/modules'
import { useKeys } from '~/composables/keys'
import { readListAddress } from '~/composables/list-address'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { sayWay } from '~/words/groups'

/** Every group, and how many I see in it. Counting asks every rule, so that it comes after the names. */
const route = useRoute()
const { found: groups, problem, load } = useLoaded<GroupHead[]>('/api/groups')
const { found: counts, load: count } = useLoaded<Record<string, number | null>>('/api/groups/counts')
/** Many may come or go at once. */
const OFTEN_MS = 2_000
const loadBoth = () => Promise.all([load(), count()])
const loadSoon = useThrottleFn(loadBoth, OFTEN_MS, true)
useLive(notice => void (notice.kind === 'group' && loadSoon()), () => void loadSoon())

/** From a list whose conditions are to be a rule. */
function begunAs() {
  const module = TEXTED_MODULES.find(one => one === route.query.module)
  return module ? { module, conditions: readListAddress(module, route.query).conditions } : null
}
const making = ref(route.query.make !== undefined)
useKeys([{ keys: 'c', shown: 'C', what: 'Make a group', act: () => making.value = true }])
const how = (id: string) => counts.value === null ? '' : counts.value[id] === null ? 'its rule cannot be asked' : (counts.value[id] ?? 0).toLocaleString('en-US')
</script>

<template>
  <div class="page">
    <header class="head">
      <h1>Groups</h1>
      <BulkNav />
      <button
        type="button"
        class="plain-button new"
        @click="making = true"
      >
        New group <kbd>C</kbd>
      </button>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="loadBoth"
    />
    <p
      v-else-if="!groups"
      class="quiet"
      role="status"
    >
      Loading the groups…
    </p>
    <p
      v-else-if="groups.length === 0"
      class="quiet empty"
    >
      There are none yet. A group is people under one name: put in by hand, or found by a rule. It can be texted and called as a whole,
      and shows what came back.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col">
            Group
          </th><th scope="col">
            Who is in it
          </th><th
            scope="col"
            class="end"
          >
            People you see
          </th><th scope="col">
            Made by
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="one in groups"
          :key="one.id"
        >
          <td>
            <NuxtLink :to="`/groups/${one.id}`">
              <strong>{{ one.name }}</strong>
            </NuxtLink>
          </td>
          <td class="quiet">
            {{ sayWay(one) }}
          </td>
          <td class="end figures">
            {{ how(one.id) }}
          </td>
          <td>{{ one.madeBy.firstName }}</td>
        </tr>
      </tbody>
    </table>
    <LazyGroupForm
      v-if="making"
      :group="null"
      :begun="begunAs()"
      @saved="navigateTo(`/groups/${$event.id}`)"
      @close="making = false"
    />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; max-width: 64rem; }
.head { display: flex; align-items: baseline; gap: var(--space-3) var(--space-8); flex-wrap: wrap; }
.new { margin-left: auto; font-weight: 700; }
.empty { max-width: 40rem; }
table { width: 100%; border-collapse: collapse; }
th { text-align: left; font-weight: 400; color: var(--quiet); font-size: var(--size-small); padding: 0 var(--space-5) var(--space-2) 0; }
td { border-top: 1px solid var(--rule); padding: var(--space-3) var(--space-5) var(--space-3) 0; overflow-wrap: anywhere; }
.end { text-align: right; padding-right: var(--space-9); }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } .end { padding-right: var(--space-5); } }
</style>
