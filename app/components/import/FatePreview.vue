<script setup lang="ts">
import { showPhone } from '~~/core/phone/show'
import type { ShownImport } from '~/composables/import'
import type { FateKind, Foreseen, ForeseenRow, RowChoice } from '~/workers/import-file'
import { FATE_WORDS, sayRow } from '~/words/imports'

/** What will become of each row, before anything does. */
const { shown } = defineProps<{ shown: ShownImport }>()
const { opened, foreseen, judged, undecided } = shown

const PAGE = 50
const kind = ref<RowChoice | null>(null)
const rows = shallowRef<ForeseenRow[]>([])
const kinds = computed(() => (Object.keys(FATE_WORDS) as FateKind[]).filter(one => (foreseen.value?.counts[one] ?? 0) > 0))
const countOf = (one: RowChoice | null, now: Foreseen) => one === null ? opened.value?.total ?? 0 : one === 'partly' ? now.partly : now.counts[one]
const of = computed(() => foreseen.value ? countOf(kind.value, foreseen.value) : 0)

async function load(more = false): Promise<void> {
  if (!foreseen.value) return
  const next = await shown.rowsOf(kind.value, more ? rows.value.length : 0, PAGE)
  rows.value = more ? [...rows.value, ...next] : next
}
watch(foreseen, (now) => {
  if (now && countOf(kind.value, now) === 0) kind.value = null
})
watch([foreseen, kind], () => void load(), { immediate: true })

const about = (row: ForeseenRow) => row.about.map(one => one.startsWith('+') ? showPhone(one) : one).join(', ')
</script>

<template>
  <section aria-label="What becomes of each row">
    <p
      v-if="undecided.length > 0"
      class="waiting"
    >
      Say first which day is meant {{ undecided.length === 1 ? `in “${undecided[0]!.heading}”` : 'in each column of days' }}.
    </p>
    <p
      v-else-if="!foreseen"
      class="quiet"
      role="status"
    >
      Looking at row {{ judged.toLocaleString('en-US') }} of {{ opened?.total.toLocaleString('en-US') }}…
    </p>
    <template v-else>
      <p
        class="kinds"
        role="group"
        aria-label="Which rows"
      >
        <button
          type="button"
          class="plain-button calm"
          :aria-pressed="kind === null"
          @click="kind = null"
        >
          All {{ opened?.total.toLocaleString('en-US') }}
        </button>
        <button
          v-for="one in kinds"
          :key="one"
          type="button"
          class="plain-button calm"
          :class="one"
          :aria-pressed="kind === one"
          @click="kind = one"
        >
          {{ FATE_WORDS[one] }} {{ foreseen.counts[one].toLocaleString('en-US') }}
        </button>
        <button
          v-if="foreseen.partly > 0"
          type="button"
          class="plain-button calm left-out"
          :aria-pressed="kind === 'partly'"
          @click="kind = 'partly'"
        >
          With a cell that goes into a note {{ foreseen.partly.toLocaleString('en-US') }}
        </button>
        <span
          v-if="foreseen.companies > 0"
          class="quiet"
        >and {{ foreseen.companies === 1 ? 'a company' : `${foreseen.companies.toLocaleString('en-US')} companies` }} to go with them</span>
      </p>
      <table class="rows">
        <colgroup><col class="number"><col class="name"><col><col class="fate"></colgroup>
        <thead class="heard-only">
          <tr><th>Row</th><th>Name</th><th>What is known</th><th>What becomes of it</th></tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.number"
          >
            <td class="quiet figures">
              {{ row.number }}
            </td>
            <td><strong>{{ row.name || '—' }}</strong></td>
            <td class="quiet figures">
              {{ about(row) }}
            </td>
            <td :class="row.fate.kind">
              {{ sayRow(row) }}
            </td>
          </tr>
        </tbody>
      </table>
      <button
        v-if="rows.length < of"
        type="button"
        class="plain-button more"
        @click="load(true)"
      >
        {{ (of - rows.length).toLocaleString('en-US') }} more
      </button>
    </template>
  </section>
</template>

<style scoped>
.kinds { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); padding-bottom: var(--space-2); }
[aria-pressed='true'] { color: var(--accent); font-weight: 700; }
.rows { width: 100%; border-collapse: collapse; table-layout: fixed; }
.rows td { border-top: 1px solid var(--rule); padding: var(--space-2) var(--space-4) var(--space-2) 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.number { width: 3.5rem; }
.name { width: 20%; }
.fate { width: 36%; }
.rows td:nth-child(4) { white-space: normal; }
.joined { color: var(--good); }
.refused { color: var(--wrong); }
.left-out, .there-already, .waiting { color: var(--waiting); }
.more { padding-top: var(--space-3); }
</style>
