<script setup lang="ts">
import { PhSlidersHorizontal } from '@phosphor-icons/vue'
import type { MessageColumn } from '~~/shared/schemas/timeline'
import { MESSAGES_A_PAGE, type MessagePage } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { messageColumns, useMessageColumns } from '~/composables/messages'
import { asQuery, type SieveForm } from '~/composables/sieve'
import { useMe } from '~/stores/me'
import { clock, shortDay } from '~/words/time'
import { wallTime } from '~~/core/hours/wall'

/** The texts of a record in rows, with the columns and the order that I choose. */
const { recordId, person, sieve } = defineProps<{ recordId: string, person: string, sieve: SieveForm }>()

const me = useMe()
const zone = me.me!.zone
const when = (at: number) => `${shortDay(at, zone)} ${wallTime(zone, at).year}, ${clock(at, zone)}`
const all = computed(() => messageColumns(person, when))
const shown = useMessageColumns()
const columns = computed(() => all.value.filter(({ key }) => shown.value.includes(key)))
const choosing = ref(false)

const sort = ref<{ by: MessageColumn, direction: 'up' | 'down' }>({ by: 'at', direction: 'down' })
const page = ref(1)
const { found, problem, load } = useLoaded(() => api<MessagePage>(`/api/records/${recordId}/messages`, {
  query: { ...asQuery(sieve), sort: sort.value.by, direction: sort.value.direction, page: page.value },
}))
watch(() => sieve, () => {
  page.value = 1
  void load()
})
watch([sort, page], load)
useLive((notice) => {
  if (notice.kind === 'entry' && notice.recordId === recordId) void load()
}, () => void load())

function sortBy(by: MessageColumn): void {
  sort.value = { by, direction: sort.value.by === by && sort.value.direction === 'down' ? 'up' : 'down' }
  page.value = 1
}

const aria = (key: MessageColumn) => sort.value.by === key ? sort.value.direction === 'up' ? 'ascending' as const : 'descending' as const : undefined
const toggle = (key: MessageColumn) => shown.value = shown.value.includes(key) ? shown.value.filter(one => one !== key) : [...shown.value, key]
const pages = computed(() => Math.max(1, Math.ceil((found.value?.count ?? 0) / MESSAGES_A_PAGE)))
</script>

<template>
  <section aria-label="Texts as a table">
    <p class="above quiet small">
      <button
        type="button"
        class="plain-button calm"
        :aria-expanded="choosing"
        @click="choosing = !choosing"
      >
        <PhSlidersHorizontal aria-hidden="true" /> Columns
      </button>
      <span v-if="found">{{ found.count === 1 ? '1 text' : `${found.count.toLocaleString('en-US')} texts` }}</span>
    </p>
    <p
      v-if="choosing"
      class="choose"
      role="group"
      aria-label="Columns of this table"
    >
      <label
        v-for="column in all"
        :key="column.key"
      ><input
        type="checkbox"
        :checked="shown.includes(column.key)"
        :disabled="shown.length === 1 && shown.includes(column.key)"
        @change="toggle(column.key)"
      > {{ column.label }}</label>
    </p>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-else-if="!found"
      class="quiet"
      role="status"
    >
      Loading the texts…
    </p>
    <p
      v-else-if="found.count === 0"
      class="quiet"
    >
      No text matches.
    </p>
    <div
      v-else
      class="scroll"
      tabindex="0"
      role="region"
      aria-label="Table of texts"
    >
      <table>
        <thead>
          <tr>
            <th
              v-for="column in columns"
              :key="column.key"
              scope="col"
              :aria-sort="aria(column.key)"
            >
              <button
                type="button"
                class="head"
                @click="sortBy(column.key)"
              >
                {{ column.label }} <span
                  v-if="sort.by === column.key"
                  aria-hidden="true"
                >{{ sort.direction === 'up' ? '↑' : '↓' }}</span>
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="entry in found.entries"
            :key="entry.id"
          >
            <td
              v-for="column in columns"
              :key="column.key"
              :class="{ figures: column.figures, long: column.key === 'words' }"
            >
              <NuxtLink
                v-if="column.key === 'at'"
                :to="`/record/${recordId}?entry=${entry.id}`"
              >
                {{ column.of(entry) }}
              </NuxtLink>
              <bdi v-else>{{ column.of(entry) }}</bdi>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <PageTurner
      v-model="page"
      :pages="pages"
    />
  </section>
</template>

<style scoped>
.above { display: flex; justify-content: space-between; padding-bottom: var(--space-2); }
.choose { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); padding-bottom: var(--space-3); }
.choose input { accent-color: var(--accent); }
.scroll { overflow-x: auto; }
table { width: 100%; border-collapse: collapse; }
th { text-align: left; padding: 0 var(--space-5) var(--space-2) 0; border-bottom: 1px solid var(--field-rule); white-space: nowrap; }
td { vertical-align: top; padding: var(--space-2) var(--space-5) var(--space-2) 0; border-bottom: 1px solid var(--rule); white-space: nowrap; }
.long { white-space: pre-wrap; overflow-wrap: anywhere; min-width: 16rem; }
.head { border: 0; background: none; padding: 0; font-weight: 400; color: var(--quiet); cursor: pointer; }
.head:hover { color: var(--accent); }
</style>
