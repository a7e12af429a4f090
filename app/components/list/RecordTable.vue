<script setup lang="ts">
import { PhPhone } from '@phosphor-icons/vue'
import type { RecordRow } from '~~/shared/record'
import type { List } from '~/composables/list'
import type { ListSelection } from '~/composables/selection'
import { useNow } from '~/composables/now'
import { cell } from '~/words/cells'

/** The rows of a list: sorted by their heads, chosen by their boxes, walked over by the keys. */
const { list, selection, peeked = null } = defineProps<{ list: List, selection: ListSelection, peeked?: string | null }>()
const emit = defineEmits<{ peek: [row: RecordRow | null], call: [row: RecordRow] }>()

const now = useNow()
const body = useTemplateRef<HTMLElement>('body')
const rows = computed(() => list.list.value?.rows ?? [])
const ariaSort = (key: string) => list.sort.value !== key ? undefined : list.direction.value === 'up' ? 'ascending' : 'descending'

const links = () => [...body.value?.querySelectorAll<HTMLElement>('a.open') ?? []]
const focused = () => rows.value[links().indexOf(document.activeElement as HTMLElement)] ?? null

/** Up and down walk over the rows; Enter opens, as with any link. */
function walk(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!step) return
  const all = links()
  const next = all[Math.max(0, Math.min(all.length - 1, all.indexOf(document.activeElement as HTMLElement) + step))]
  next?.focus()
  if (peeked) emit('peek', focused())
  event.preventDefault()
}

defineExpose({ walk, focused })
</script>

<template>
  <div class="scroller">
    <!-- the keys walk over the links inside -->
    <table
      class="rows"
      :aria-busy="!list.list.value"
      @keydown="walk"
    >
      <thead>
        <tr>
          <th
            scope="col"
            class="box"
          >
            <input
              type="checkbox"
              aria-label="Choose this page"
              :disabled="rows.length === 0"
              :checked="selection.wholePage.value"
              @change="selection.togglePage"
            >
          </th>
          <th
            v-for="column in list.shownColumns.value"
            :key="column.key"
            scope="col"
            :aria-sort="ariaSort(column.key)"
          >
            <button
              type="button"
              class="sorter"
              @click="list.sortBy(column.key)"
            >
              {{ column.label }} <span aria-hidden="true">{{ column.key === list.sort.value ? (list.direction.value === 'up' ? '↑' : '↓') : '' }}</span>
            </button>
          </th>
        </tr>
      </thead>
      <tbody ref="body">
        <template v-if="!list.list.value && !list.problem.value">
          <tr
            v-for="i in 12"
            :key="i"
            class="shape"
          >
            <td :colspan="list.shownColumns.value.length + 1">
              <span />
            </td>
          </tr>
        </template>
        <tr
          v-for="row in rows"
          :key="row.id"
          :class="{ chosen: selection.has(row.id), peeked: row.id === peeked }"
        >
          <td class="box">
            <input
              type="checkbox"
              :aria-label="`Choose ${row.name}`"
              :checked="selection.has(row.id)"
              @change="selection.toggle(row)"
            >
          </td>
          <td
            v-for="column in list.shownColumns.value"
            :key="column.key"
            :class="{ figures: column.kind !== 'words' || column.key === 'phone', money: column.kind === 'number' }"
          >
            <template v-if="column.key === 'name'">
              <NuxtLink
                class="open"
                :to="`/record/${row.id}`"
              >{{ row.name }}</NuxtLink>
              <span
                v-if="!list.shown.value.includes('title') && !peeked"
                class="quiet small title"
              >{{ row.title }}</span>
            </template>
            <template v-else>
              <button
                v-if="column.key === 'phone' && row.phoneToCall"
                type="button"
                class="number"
                :aria-label="`Call ${row.name}, ${cell(row, column, now)}`"
                @click="emit('call', row)"
              >
                {{ cell(row, column, now) }} <PhPhone
                  size="15"
                  aria-hidden="true"
                />
              </button>
              <template v-else>
                {{ cell(row, column, now) }}
              </template>
              <span
                v-if="column.key === 'phone' && row.optedOut"
                class="out small"
              >opted out</span>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroller { overflow-x: auto; }
.rows { width: 100%; border-collapse: collapse; }
.rows th { text-align: left; font-weight: 400; font-size: var(--size-small); color: var(--quiet); border-bottom: 1px solid var(--field-rule); padding: 0 var(--space-4) var(--space-2) 0; white-space: nowrap; }
.rows td { height: 36px; padding: 0 var(--space-4) 0 0; border-bottom: 1px solid var(--rule); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; max-width: 17rem; }
.rows .box { width: 2rem; padding: 0 var(--space-3) 0 var(--space-2); }
.box input { accent-color: var(--accent); margin: 0; vertical-align: middle; }
.rows tbody tr:hover { background: var(--hover); }
.rows tbody tr.chosen { background: color-mix(in srgb, var(--accent-ground) 45%, transparent); }
.rows tbody tr:focus-within { background: var(--accent-ground); }
.rows tbody tr.peeked td:first-child { box-shadow: inset 3px 0 var(--accent); }
.sorter { border: 0; background: none; padding: 0; cursor: pointer; color: inherit; }
.sorter:hover { color: var(--ink); }
th[aria-sort] .sorter { color: var(--accent); font-weight: 700; }
.number { border: 0; background: none; padding: 0; cursor: pointer; color: inherit; font: inherit; }
.number svg { color: var(--calm); vertical-align: -2px; margin-left: var(--space-1); opacity: 0; }
tr:hover .number svg, tr:focus-within .number svg, .number:focus-visible svg { opacity: 1; }
.number:hover { color: var(--calm); text-decoration: underline; }
.money { text-align: right; padding-right: var(--space-7); }
.open { color: var(--ink); font-weight: 700; text-decoration: none; }
.title { margin-left: var(--space-3); }
.open:hover { color: var(--accent); }
.out { color: var(--wrong); margin-left: var(--space-2); }
.shape span { display: block; height: 0.8rem; width: 60%; background: var(--hover); border-radius: var(--round-small); }
</style>
