<script setup lang="ts">
import { hasNumbers, holdsPeople, MODULE_FACTS, moduleOfSlug } from '~~/shared/modules'
import type { RecordRow } from '~~/shared/record'
import type { Selection } from '~~/shared/schemas/list'
import { useKeys } from '~/composables/keys'
import { useList } from '~/composables/list'
import { listAddress, readListAddress } from '~/composables/list-address'
import { rememberList } from '~/composables/walk-through'
import { useSelection } from '~/composables/selection'
import { useTextMany } from '~/composables/text-many'
import { useCalls } from '~/stores/calls'
import { useGathering } from '~/stores/gathering'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'

definePageMeta({ key: route => String(route.params.module), validate: route => moduleOfSlug(String(route.params.module)) !== undefined })

const route = useRoute()
const router = useRouter()
const module = moduleOfSlug(String(route.params.module))!
const facts = MODULE_FACTS[module]
const [one, several] = [facts.one.toLowerCase(), facts.many.toLowerCase()]

const list = useList(module, readListAddress(module, route.query))
// the list is in its address: reloading and coming back find it as it was
const address = computed(() => listAddress(module, list.state.value))
watch(address, query => void router.replace({ query }))
watch(() => route.query, (query) => {
  const said = readListAddress(module, query)
  if (route.path === `/records/${facts.slug}` && JSON.stringify(listAddress(module, said)) !== JSON.stringify(address.value)) void list.become(said)
})
// from a record of it one goes on to the next
watch([list.list, () => list.total.value], ([page, total]) => {
  if (page)
    rememberList({
      address: router.resolve({ path: `/records/${facts.slug}`, query: address.value }).fullPath,
      question: list.question.value,
      page: page.page,
      size: page.size,
      ids: page.rows.map(({ id }) => id),
      total,
    })
})
const selection = useSelection(list)
const { total, words, typed, conditions, columns, shown, page, pages, problem } = list
const found = computed(() => list.list.value)
const asksForSome = computed(() => typed.value !== '' || conditions.value.of.length > 0)

const filter = useTemplateRef<HTMLInputElement>('filter')
const table = useTemplateRef<{ walk: (event: KeyboardEvent) => void, focused: () => RecordRow | null }>('table')
const picker = useTemplateRef<{ toggle: (event: Event) => void }>('picker')
const taker = useTemplateRef<{ toggle: (event: Event) => void }>('taker')
const FILES = [
  { format: 'csv', label: 'As a table, with these columns (CSV)' },
  ...(hasNumbers(module) ? [{ format: 'vcf', label: 'As contacts, with their numbers (vCard)' }] : []),
]
const fileAddress = (format: string) =>
  `/api/records/export?${new URLSearchParams({ ...list.question.value, columns: shown.value.join(','), format }).toString()}`
const me = useMe()
const peeked = ref<string | null>(null)

function peek(row: RecordRow | null): void {
  if (row) peeked.value = row.id
}

const calls = useCalls()
function call(row: RecordRow): void {
  if (row.phoneToCall) void calls.dial({ phoneId: row.phoneToCall, name: row.name })
}
function callByKey(row: RecordRow | null): void {
  if (row?.phoneToCall) calls.dialByKey({ phoneId: row.phoneToCall, name: row.name })
  else if (row) calls.problem = `${row.name} has no number that may be called.`
}

/** Who is chosen, or else everybody in the list. */
const meant = (): Selection => selection.count.value > 0 ? selection.selection.value : { list: list.question.value, ids: null, importId: null }
/** Of whom a call round is being made. */
const calling = shallowRef<Selection | null>(null)
function callThem(): void {
  if (hasNumbers(module) && found.value?.rows.length) calling.value = meant()
}
const { problem: textProblem, busy: texting, textMany } = useTextMany()
/** So few, chosen one by one, are texted over the list itself; more need a plan, on a page. */
const HANDFUL = 20
const handful = shallowRef<{ selection: Selection, people: number } | null>(null)
function textThem(): void {
  const people = selection.count.value
  if (people > 0 && people <= HANDFUL && !selection.everything.value) handful.value = { selection: meant(), people }
  else if (found.value?.rows.length) void textMany(facts.many, { selection: meant(), groupId: null })
}
const gathering = useGathering()
const whichGathered = computed(() => selection.count.value > 0
  ? `the ${selection.count.value.toLocaleString('en-US')} chosen`
  : `all ${(total.value ?? 0).toLocaleString('en-US')} of this list`)

useKeys([
  { keys: 'f', shown: 'F', what: 'Filter this list', act: () => filter.value?.focus() },
  { keys: 'c', shown: 'C', what: `Make a new ${one}`, act: () => void navigateTo(`/records/${facts.slug}/new`) },
  { keys: 'p', shown: 'P', what: 'Peek at the row you are on', act: () => {
    const row = table.value?.focused()
    if (peeked.value && (!row || row.id === peeked.value)) peeked.value = null
    else peek(row ?? found.value?.rows[0] ?? null)
  } },
  { keys: 'd', shown: 'D', what: 'Call the row you are on', act: () => callByKey(table.value?.focused() ?? null) },
  { keys: 'r m', shown: 'R M', what: 'Call them in a round: who is chosen, or all of the list', act: callThem },
  ...(me.may('bulk.work') ? [{ keys: 'r t', shown: 'R T', what: 'Text them: who is chosen, or all of the list', act: textThem }] : []),
  { keys: 'x', shown: 'X', what: 'Choose the row you are on', act: () => {
    const row = table.value?.focused()
    if (row) selection.toggle(row)
  } },
])
</script>

<template>
  <div class="list">
    <header class="head">
      <h1>{{ facts.many }}</h1>
      <p
        class="quiet figures"
        role="status"
      >
        {{ total === null ? '' : many(total, one, several) }}
      </p>
      <ModuleNav
        class="modules"
        :module="module"
      />
    </header>
    <div class="kept">
      <ViewLine
        :module="module"
        :list="list"
      />
      <span class="right">
        <NuxtLink
          v-if="module === 'deal'"
          to="/pipelines"
        >
          As pipelines
        </NuxtLink>
        <button
          type="button"
          class="plain-button calm"
          @click="picker?.toggle($event)"
        >
          Columns
        </button>
        <button
          v-if="hasNumbers(module)"
          type="button"
          class="plain-button calm"
          :disabled="!found?.rows.length"
          @click="callThem"
        >
          Call in a round
        </button>
        <button
          v-if="hasNumbers(module) && me.may('bulk.work')"
          type="button"
          class="plain-button calm"
          :disabled="texting || !found?.rows.length"
          @click="textThem"
        >
          Text in bulk
        </button>
        <NuxtLink
          v-if="me.may('record.import')"
          :to="`/records/${facts.slug}/import`"
          :prefetch="false"
          class="calm"
        >
          Import
        </NuxtLink>
        <button
          v-if="me.may('record.export')"
          type="button"
          class="plain-button calm"
          @click="taker?.toggle($event)"
        >
          Export
        </button>
        <NuxtLink
          :to="`/records/${facts.slug}/new`"
          class="new"
        >
          New {{ one }} <kbd>C</kbd>
        </NuxtLink>
      </span>
      <Popover ref="taker">
        <ul class="files">
          <li
            v-for="{ format, label } in FILES"
            :key="format"
          >
            <a
              :href="fileAddress(format)"
              download
            >{{ label }}</a>
          </li>
          <li class="quiet small">
            {{ me.me?.rights['record.export'] === 'own' ? `Those of these ${several} that are yours.` : `All of these ${several} that you may export.` }} It is noted who exported what.
          </li>
        </ul>
      </Popover>
      <Popover ref="picker">
        <ColumnPicker
          v-model="shown"
          :columns="columns"
        />
      </Popover>
    </div>
    <div class="tools">
      <label
        for="filter"
        class="heard-only"
      >Filter this list</label>
      <input
        id="filter"
        ref="filter"
        v-model="words"
        class="plain-field filter"
        type="search"
        placeholder="Name, company, city, stage or number"
        @keydown="table?.walk($event)"
      >
      <kbd
        class="key"
        aria-hidden="true"
      >F</kbd>
      <ConditionSentence
        :conditions="conditions"
        :columns="columns"
        @change="conditions = $event"
      />
    </div>
    <BulkLine
      :module="module"
      :list="list"
      :selection="selection"
      @call="callThem"
      @text="textThem"
    />
    <p
      v-if="textProblem"
      class="notice failed"
      role="alert"
    >
      {{ textProblem }}
    </p>
    <LazyGatherLine
      v-if="gathering.mine && total && (hasNumbers(module) || holdsPeople(module))"
      :whom="{ selection: meant(), groupId: null }"
      :which="whichGathered"
    />
    <LazyRoundForm
      v-if="calling"
      :whom="{ selection: calling, groupId: null }"
      :called="facts.many"
      @close="calling = null"
    />
    <LazyHandfulText
      v-if="handful && hasNumbers(module)"
      :whom="{ selection: handful.selection }"
      :title="`Text ${many(handful.people, 'person', 'people')}`"
      :modules="[module]"
      :called="facts.many"
      :draft="module"
      @close="handful = null"
    />
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="list.loadAgain"
    />
    <div :class="{ beside: peeked }">
      <div class="sheet">
        <RecordTable
          ref="table"
          :list="list"
          :selection="selection"
          :peeked="peeked"
          @peek="peek"
          @call="call"
        />
        <p
          v-if="found?.rows.length === 0 && page === 1"
          class="empty"
        >
          <template v-if="asksForSome">
            None of the {{ several }} {{ typed ? `has “${typed}”` : 'is so' }}.
            <button
              type="button"
              class="plain-button"
              @click="list.showAll"
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
        <PageTurner
          v-model="page"
          :pages="pages"
        />
      </div>
      <PeekSheet
        v-if="peeked"
        class="peek"
        :record-id="peeked"
        @close="peeked = null"
      />
    </div>
  </div>
</template>

<style scoped>
.list { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; grid-template-columns: minmax(0, 1fr); gap: var(--space-3); }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.modules { margin-left: auto; }
.kept { display: flex; align-items: baseline; flex-wrap: wrap; gap: var(--space-2) var(--space-7); }
.tools { display: flex; align-items: baseline; flex-wrap: wrap; gap: var(--space-2) var(--space-3); padding: var(--space-1) 0 var(--space-2); }
.filter { width: 18rem; max-width: 60vw; padding: var(--space-2) var(--space-4); }
.filter::placeholder { color: var(--quiet); opacity: 1; }
.key { margin-right: var(--space-3); }
.right { margin-left: auto; display: flex; gap: var(--space-7); align-items: baseline; flex-wrap: wrap; }
.calm { color: var(--quiet); text-decoration: none; }
.calm:hover { color: var(--ink); text-decoration: underline; }
.new { font-weight: 700; text-decoration: none; }
.files { display: grid; gap: var(--space-4); width: 18rem; }
.sheet { min-width: 0; }
.beside { display: grid; grid-template-columns: minmax(0, 1fr) 21rem; gap: var(--space-7); align-items: start; }
.peek { position: sticky; top: 1rem; max-height: calc(100vh - 7rem); overflow-y: auto; }
.empty { padding: var(--space-8) 0; color: var(--quiet); }
@media (max-width: 700px) {
  .list { padding-inline: var(--space-5); }
  .modules { margin-left: 0; }
  .beside { grid-template-columns: minmax(0, 1fr); }
}
</style>
