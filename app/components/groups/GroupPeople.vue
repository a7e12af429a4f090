<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import type { GroupHead, GroupPeople } from '~~/shared/groups'
import { MODULE_FACTS } from '~~/shared/modules'
import type { NamedRecord } from '~~/shared/record'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { ago } from '~/words/time'

/** Who is in a group; where it is not found by a rule they are put in and taken out here. */
const { group, changes } = defineProps<{ group: GroupHead, /** Grows when somebody came or went. */ changes: number }>()
const emit = defineEmits<{ total: [count: number] }>()
const now = useNow()
const words = ref('')
const typed = ref('')
watchDebounced(words, it => typed.value = it, { debounce: 150 })
const page = ref(1)
const { found: people, problem, load, trying } = useLoaded(
  () => api<GroupPeople>(`/api/groups/${group.id}/people`, { query: { words: typed.value, page: page.value } }),
  ({ total }) => {
    if (typed.value === '') emit('total', total)
  })
watch(typed, () => page.value = 1)
watch([typed, page, () => changes], load)
const pages = computed(() => Math.max(1, Math.ceil((people.value?.total ?? 0) / (people.value?.size ?? 1))))

const chosen = ref<{ id: string, name: string } | string | null>(null)
/** Whom I have just taken out, to be put back with a press. */
const out = shallowRef<{ id: string, name: string } | null>(null)
const put = (recordId: string, isIn: boolean) =>
  trying(async () => {
    await api(`/api/groups/${group.id}/people`, { method: 'POST', body: { recordId, in: isIn } })
    await load()
  })

async function add({ id }: NamedRecord): Promise<void> {
  await put(id, true)
  chosen.value = null
}
async function takeOut(row: { id: string, name: string }): Promise<void> {
  if (await put(row.id, false)) out.value = row
}
async function putBack(): Promise<void> {
  if (await put(out.value!.id, true)) out.value = null
}
const about = (row: GroupPeople['rows'][number]) => [row.title, row.company, row.city].filter(Boolean).join(', ')
</script>

<template>
  <section class="people">
    <div class="tools">
      <input
        v-model="words"
        class="plain-field filter"
        type="search"
        aria-label="Filter the people of this group"
        placeholder="Name, company, city or number"
      >
      <label
        v-if="group.way !== 'rule'"
        class="add"
      >
        <span class="quiet">Put in</span>
        <RecordPicker
          v-model="chosen"
          kind="person"
          :choice="{ 'inputId': 'group-add', 'aria-label': 'Put somebody in' }"
          placeholder="a part of a name"
          @picked="add"
        />
      </label>
      <p
        v-if="out"
        class="quiet"
        role="status"
      >
        {{ out.name }} is out.
        <button
          type="button"
          class="plain-button"
          @click="putBack"
        >
          Put back
        </button>
      </p>
    </div>
    <PagedTable
      v-model="page"
      :problem="problem"
      loading="Loading the people…"
      :found="people?.rows.length ?? null"
      :none="typed ? `Nobody in it has “${typed}”.` : group.way === 'rule' ? 'Its rule holds for nobody whom you see.' : 'Nobody whom you see is in it yet.'"
      :heads="['Who', 'What they are', 'Whose', 'Last contact', 'What can be done']"
      :pages="pages"
      @again="load"
    >
      <tr
        v-for="row in people?.rows"
        :key="row.id"
      >
        <td>
          <NuxtLink :to="`/record/${row.id}`">
            <strong>{{ row.name }}</strong>
          </NuxtLink> <span class="quiet small">{{ about(row) }}</span>
        </td>
        <td class="quiet">
          {{ MODULE_FACTS[row.module].one }}
        </td>
        <td>{{ row.owner }}</td>
        <td class="quiet figures">
          {{ row.lastContactAt ? ago(row.lastContactAt, now) : 'no contact yet' }}
        </td>
        <td class="end">
          <button
            v-if="group.way !== 'rule'"
            type="button"
            class="plain-button calm"
            :aria-label="`Take ${row.name} out`"
            @click="takeOut(row)"
          >
            Take out
          </button>
        </td>
      </tr>
    </PagedTable>
  </section>
</template>

<style scoped>
.people { min-width: 0; display: grid; gap: var(--space-3); align-content: start; }
.tools { display: flex; align-items: baseline; gap: var(--space-3) var(--space-7); flex-wrap: wrap; }
.filter { width: 17rem; max-width: 100%; padding: var(--space-2) var(--space-4); }
.add { display: flex; align-items: baseline; gap: var(--space-3); }
td { border-top: 1px solid var(--rule); padding: var(--space-2) var(--space-5) var(--space-2) 0; vertical-align: baseline; overflow-wrap: anywhere; }
.end { text-align: right; padding-right: 0; white-space: nowrap; }
.calm { color: var(--quiet); }
@media (max-width: 900px) { :deep(table), :deep(tbody), tr, td { display: block; } tr { border-top: 1px solid var(--rule); padding: var(--space-3) 0; } td { border: 0; padding: 0; } td:nth-child(n + 2) { display: inline; padding-right: var(--space-5); } .end { text-align: left; } }
</style>
