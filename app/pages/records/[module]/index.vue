<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { MODULE_FACTS, MODULES, moduleOfSlug } from '~~/shared/modules'
import type { RecordPage } from '~~/shared/record'
import type { RecordSort } from '~~/shared/schemas/record'
import { showPhone } from '~~/core/phone/show'
import { api, ApiProblem } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { ago } from '~/words/time'

definePageMeta({ key: route => String(route.params.module), validate: route => moduleOfSlug(String(route.params.module)) !== undefined })

const route = useRoute()
const now = useNow()
const module = moduleOfSlug(String(route.params.module))!
const facts = MODULE_FACTS[module]

const COLUMNS: { sort: RecordSort | null, label: string, of: 'all' | 'people' }[] = [
  { sort: 'name', label: 'Name', of: 'all' },
  { sort: 'company', label: 'Company', of: 'people' },
  { sort: 'stage', label: 'Stage', of: 'people' },
  { sort: 'city', label: 'City', of: 'all' },
  { sort: null, label: 'Number', of: 'people' },
  { sort: 'owner', label: 'Owner', of: 'all' },
  { sort: 'last-contact', label: 'Last contact', of: 'all' },
]
const columns = COLUMNS.filter(column => column.of === 'all' || module !== 'company')

const words = ref('')
const typed = refDebounced(words, 150)
const sort = ref<RecordSort>('last-contact')
const direction = ref<'up' | 'down'>('down')
const page = ref(1)
const list = shallowRef<RecordPage | null>(null)
const problem = ref('')
const filter = useTemplateRef<HTMLInputElement>('filter')
const body = useTemplateRef<HTMLElement>('body')
let asked = 0

async function load(): Promise<void> {
  const turn = ++asked
  try {
    const answer = await api<RecordPage>('/api/records', { query: { module, sort: sort.value, direction: direction.value, words: typed.value, page: page.value } })
    // an answer that was overtaken by a newer question is thrown away
    if (turn !== asked) return
    list.value = answer
    problem.value = ''
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.message
  }
}
watch(typed, () => page.value = 1)
watch([typed, sort, direction, page], load, { immediate: true })

function sortBy(column: RecordSort): void {
  if (sort.value === column) direction.value = direction.value === 'up' ? 'down' : 'up'
  else {
    sort.value = column
    direction.value = column === 'last-contact' ? 'down' : 'up'
  }
  page.value = 1
}

/** Up and down walk over the rows; Enter opens, as with any link. */
function walk(event: KeyboardEvent): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!step) return
  const links = [...body.value?.querySelectorAll<HTMLElement>('a.open') ?? []]
  const at = links.indexOf(document.activeElement as HTMLElement)
  links[Math.max(0, Math.min(links.length - 1, at + step))]?.focus()
  event.preventDefault()
}

const pages = computed(() => list.value ? Math.max(1, Math.ceil(list.value.total / list.value.size)) : 1)
useKeys([
  { keys: 'f', shown: 'F', what: 'Filter this list', act: () => filter.value?.focus() },
  { keys: 'c', shown: 'C', what: `Make a new ${facts.one.toLowerCase()}`, act: () => void navigateTo(`/records/${facts.slug}/new`) },
])
</script>

<template>
  <div class="list">
    <header class="head">
      <h1>{{ facts.many }}</h1>
      <p class="quiet figures">
        {{ list ? `${list.total.toLocaleString('en-US')} ${list.total === 1 ? facts.one.toLowerCase() : facts.many.toLowerCase()}` : '' }}
      </p>
      <nav
        class="modules"
        aria-label="Modules"
      >
        <NuxtLink
          v-for="other in MODULES"
          :key="other"
          :to="`/records/${MODULE_FACTS[other].slug}`"
          :aria-current="other === module ? 'page' : undefined"
        >
          {{ MODULE_FACTS[other].many }}
        </NuxtLink>
      </nav>
    </header>
    <div class="tools">
      <label
        for="filter"
        class="heard-only"
      >Filter this list</label>
      <input
        id="filter"
        ref="filter"
        v-model="words"
        class="filter"
        type="search"
        placeholder="Name, company, city, stage or number"
        @keydown="walk"
      >
      <kbd aria-hidden="true">F</kbd>
      <NuxtLink
        :to="`/records/${facts.slug}/new`"
        class="new"
      >
        New {{ facts.one.toLowerCase() }} <kbd>C</kbd>
      </NuxtLink>
    </div>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }} <button
        type="button"
        class="plain-button"
        @click="load"
      >
        Load it again
      </button>
    </p>
    <!-- the keys walk over the links inside -->
    <table
      class="rows"
      :aria-busy="!list"
      @keydown="walk"
    >
      <thead>
        <tr>
          <th
            v-for="column in columns"
            :key="column.label"
            scope="col"
            :aria-sort="column.sort === sort ? (direction === 'up' ? 'ascending' : 'descending') : undefined"
          >
            <button
              v-if="column.sort"
              type="button"
              class="sorter"
              @click="sortBy(column.sort)"
            >
              {{ column.label }} <span aria-hidden="true">{{ column.sort === sort ? (direction === 'up' ? '↑' : '↓') : '' }}</span>
            </button>
            <template v-else>
              {{ column.label }}
            </template>
          </th>
        </tr>
      </thead>
      <tbody ref="body">
        <template v-if="!list && !problem">
          <tr
            v-for="i in 12"
            :key="i"
            class="shape"
          >
            <td :colspan="columns.length">
              <span />
            </td>
          </tr>
        </template>
        <tr
          v-for="row in list?.rows"
          :key="row.id"
        >
          <td>
            <NuxtLink
              class="open"
              :to="`/record/${row.id}`"
            >{{ row.name }}</NuxtLink>
            <span class="quiet small title">{{ row.title }}</span>
          </td>
          <template v-if="module !== 'company'">
            <td>{{ row.company?.name }}</td>
            <td>{{ row.stage }}</td>
          </template>
          <td>{{ row.city }}</td>
          <td
            v-if="module !== 'company'"
            class="figures"
          >
            {{ row.phone?.startsWith('+') ? showPhone(row.phone) : row.phone }}
            <span
              v-if="row.optedOut"
              class="out small"
            >opted out</span>
          </td>
          <td>{{ row.owner.name }}</td>
          <td class="figures">
            {{ row.lastContactAt ? ago(row.lastContactAt, now) : '' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="list?.total === 0"
      class="empty"
    >
      <template v-if="typed">
        None of the {{ facts.many.toLowerCase() }} has “{{ typed }}”.
        <button
          type="button"
          class="plain-button"
          @click="words = ''"
        >
          Show all
        </button>
      </template>
      <template v-else>
        {{ facts.many }} stand here: who they are, where they stand, when you last spoke.
        <NuxtLink :to="`/records/${facts.slug}/new`">
          Make the first one
        </NuxtLink>
      </template>
    </p>
    <nav
      v-if="pages > 1"
      class="pages"
      aria-label="Pages"
    >
      <button
        type="button"
        class="plain-button"
        :disabled="page === 1"
        @click="page--"
      >
        Earlier
      </button>
      <span class="quiet figures">page {{ page }} of {{ pages }}</span>
      <button
        type="button"
        class="plain-button"
        :disabled="page >= pages"
        @click="page++"
      >
        Further
      </button>
    </nav>
  </div>
</template>

<style scoped>
.list { padding: 0.85rem 1.5rem 2rem; }
.head { display: flex; align-items: baseline; gap: 1rem; flex-wrap: wrap; }
.modules { margin-left: auto; display: flex; gap: 1.1rem; }
.modules a { color: var(--quiet); text-decoration: none; padding-bottom: 0.2rem; border-bottom: 2px solid transparent; }
.modules a[aria-current] { color: var(--mulberry); font-weight: 700; border-color: var(--mulberry); }
.tools { display: flex; align-items: center; gap: 0.6rem; padding: 0.7rem 0; }
.filter { width: 20rem; max-width: 60vw; border: 1px solid var(--field-rule); border-radius: 6px; background: var(--surface); padding: 0.35rem 0.65rem; }
.filter::placeholder { color: var(--quiet); opacity: 1; }
.new { margin-left: auto; font-weight: 700; text-decoration: none; }
.rows { width: 100%; border-collapse: collapse; }
.rows th { text-align: left; font-weight: 400; font-size: var(--size-small); color: var(--quiet); border-bottom: 1px solid var(--field-rule); padding: 0 0.6rem 0.3rem 0; }
.rows td { height: 36px; padding: 0 0.6rem 0 0; border-bottom: 1px solid var(--rule); white-space: nowrap; overflow: hidden; text-overflow: ellipsis; max-width: 17rem; }
.rows tbody tr:hover { background: var(--hover); }
.rows tbody tr:focus-within { background: var(--mulberry-ground); }
.sorter { border: 0; background: none; padding: 0; cursor: pointer; color: inherit; }
.sorter:hover { color: var(--ink); }
th[aria-sort] .sorter { color: var(--mulberry); font-weight: 700; }
.open { color: var(--ink); font-weight: 700; text-decoration: none; }
.title { margin-left: 0.5rem; }
.open:hover { color: var(--mulberry); }
.out { color: var(--brick); margin-left: 0.4rem; }
.shape span { display: block; height: 0.8rem; width: 60%; background: var(--hover); border-radius: 3px; }
.empty { padding: 1.5rem 0; color: var(--quiet); }
.pages { display: flex; align-items: center; gap: 0.75rem; padding-top: 0.75rem; }
@media (max-width: 700px) { .list { padding-inline: 0.75rem; overflow-x: auto; } .modules { margin-left: 0; } }
</style>
