<script setup lang="ts">
import { BULK_STANDINGS } from '~~/core/bulk/states'
import type { BulkPeople, BulkPersonRow, BulkTextDetail } from '~~/shared/bulk-texts'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { STATE_WORDS } from '~~/core/message/words'
import { ANSWERED_WORDS, CHANGED_ALONE, LEFT_OUT_WORDS, STANDING_WORDS, THOSE_WORDS, type Those } from '~/words/bulk'
import { many } from '~/words/count'

/** The people of a bulk text: what each gets or got, or why nothing, and what can be done about it. */
const { bulk, changes, few = false } = defineProps<{
  bulk: BulkTextDetail
  /** Grows when something happened to them. */
  changes: number
  /** They are a handful: nothing is done with several of them. */
  few?: boolean
}>()
const which = defineModel<Those>('which', { required: true })
const emit = defineEmits<{ changed: [] }>()

/** One may lie over another. */
const headed = useId()
const page = ref(1)
const { found: people, problem, load, trying } = useLoaded(() =>
  api<BulkPeople>(`/api/bulk-texts/${bulk.id}/people`, { query: { ...which.value, page: page.value } }))
watch(which, () => page.value = 1)
watch([which, page, () => changes], load)
const total = computed(() => {
  const { standing, reason, lately, answered } = which.value
  if (answered) return answered === 'yes' ? bulk.answered : bulk.counts.texted - bulk.answered
  if (reason) return bulk.leftOut.filter(one => one.reason === reason).reduce((sum, one) => sum + one.people, 0)
  if (lately) return bulk.lately
  return standing ? bulk.counts[standing] : Object.values(bulk.counts).reduce((sum, count) => sum + count, 0)
})
const pages = computed(() => Math.max(1, Math.ceil(total.value / (people.value?.size ?? 1))))
interface Kind { those: Those, label: string }
const kinds = computed<Kind[]>(() => [
  { those: {}, label: 'all' },
  ...BULK_STANDINGS.filter(one => bulk.counts[one] > 0)
    .map(standing => ({ those: { standing }, label: `${STANDING_WORDS[standing]} ${bulk.counts[standing].toLocaleString('en-US')}` })),
  ...bulk.counts.texted > 0
    ? (['yes', 'no'] as const).map(answered => ({
        those: { answered },
        label: `${ANSWERED_WORDS[answered].kind} ${(answered === 'yes' ? bulk.answered : bulk.counts.texted - bulk.answered).toLocaleString('en-US')}`,
      }))
    : [],
])
const isShown = ({ those }: Kind) => JSON.stringify(those) === JSON.stringify(which.value)
const title = computed(() => {
  const { standing, reason, lately, answered } = which.value
  if (answered) return ANSWERED_WORDS[answered].those
  if (reason) return `Those who ${LEFT_OUT_WORDS[reason].many}`
  if (lately) return 'Those who were texted lately'
  if (few && !standing) return 'Each with their text'
  return standing ? THOSE_WORDS[standing] : 'Everybody in it'
})

async function take(row: BulkPersonRow, out: boolean): Promise<void> {
  if (!await trying(() => api(`/api/bulk-texts/${bulk.id}/take-out`, { method: 'POST', body: { recordId: row.recordId, out } }))) return
  emit('changed')
  await load()
}
/** They have answered by mail, say, and are not to be asked again. */
async function answeredElsewhere(row: BulkPersonRow, answered: boolean): Promise<void> {
  if (!await trying(() => api(`/api/bulk-texts/${bulk.id}/people/${row.recordId}/answered`, { method: 'PUT', body: { answered } }))) return
  emit('changed')
  await load()
}
/** Whom one is changing, of those who are shown. */
const changing = ref<string | null>(null)
const list = useTemplateRef<HTMLElement>('list')
watch([which, page], () => changing.value = null)
const mayChange = (row: BulkPersonRow) => bulk.state === 'checked'
  && (row.standing === 'ready' || (row.standing === 'left-out' && !!row.reason && CHANGED_ALONE.includes(row.reason)))
async function changed(): Promise<void> {
  const { recordId } = people.value!.rows.find(row => row.recordId === changing.value)!
  changing.value = null
  emit('changed')
  await load()
  await nextTick()
  // whoever can be texted now is not among those who are left out any more
  ;(document.getElementById(`change-${recordId}`) ?? list.value?.querySelector<HTMLElement>('.end button'))?.focus()
}
const isOver = computed(() => bulk.state === 'done')
function why(row: BulkPersonRow): string {
  if (row.standing === 'refused') return row.detail ?? ''
  if (row.standing === 'texted')
    return [row.state && STATE_WORDS[row.state as keyof typeof STATE_WORDS], row.answeredAt && (row.answerNoted ? 'has answered, in another way' : 'has answered')].filter(Boolean).join(', ')
  return row.reason ? [LEFT_OUT_WORDS[row.reason].one, row.detail].filter(Boolean).join(': ') : ''
}
</script>

<template>
  <section
    ref="list"
    class="people"
    :aria-labelledby="headed"
  >
    <div class="top">
      <h2 :id="headed">
        {{ title }}
      </h2>
      <p class="kinds">
        <button
          v-for="one in kinds"
          :key="one.label"
          type="button"
          class="plain-button"
          :class="{ chosen: isShown(one) }"
          :aria-pressed="isShown(one)"
          @click="which = one.those"
        >
          {{ one.label }}
        </button>
      </p>
    </div>
    <BulkThose
      v-if="!few && people && people.rows.length > 0"
      :bulk="bulk"
      :those="which"
      :title="title"
    />
    <PagedTable
      v-model="page"
      :problem="problem"
      loading="Loading the people…"
      :found="people?.rows.length ?? null"
      none="Nobody."
      :heads="['Who', 'Where they stand', 'What they get', 'What can be done']"
      :pages="pages"
      fixed
      @again="load"
    >
      <template #cols>
        <colgroup>
          <col class="who"><col class="stands"><col><col class="acts">
        </colgroup>
      </template>
      <template
        v-for="row in people?.rows"
        :key="row.recordId"
      >
        <tr>
          <td>
            <NuxtLink :to="`/record/${row.recordId}`">
              <strong>{{ row.name }}</strong>
            </NuxtLink>
            <span class="quiet small block">{{ [row.company, row.city].filter(Boolean).join(', ') }}</span>
          </td>
          <td>
            <span :class="row.standing">{{ STANDING_WORDS[row.standing] }}</span>
            <span class="quiet small block">{{ why(row) }}</span>
          </td>
          <td>
            <span
              v-if="row.asked"
              class="quiet block asked"
            >“<bdi>{{ row.asked }}</bdi>”</span>
            <span class="words">{{ row.words }}</span>
            <span class="quiet small block figures">{{ [row.number, row.line, row.parts && many(row.parts, 'part', 'parts'), row.own && 'changed for them alone'].filter(Boolean).join(', ') }}</span>
          </td>
          <td class="end">
            <button
              v-if="mayChange(row)"
              :id="`change-${row.recordId}`"
              type="button"
              class="plain-button"
              :aria-label="`Change what ${row.name} gets`"
              :aria-expanded="changing === row.recordId"
              @click="changing = changing === row.recordId ? null : row.recordId"
            >
              Change
            </button>
            <button
              v-if="!isOver && (row.standing === 'ready' || row.standing === 'left-out')"
              type="button"
              class="plain-button calm"
              :aria-label="`Take ${row.name} out`"
              @click="take(row, true)"
            >
              Take out
            </button>
            <button
              v-if="!isOver && row.standing === 'taken-out'"
              type="button"
              class="plain-button calm"
              :aria-label="`Put ${row.name} back`"
              @click="take(row, false)"
            >
              Put back
            </button>
            <button
              v-if="row.standing === 'texted' && !few && (!row.answeredAt || row.answerNoted)"
              type="button"
              class="plain-button calm"
              :aria-label="row.answerNoted ? `${row.name} has not answered` : `${row.name} has answered in another way`"
              :title="row.answerNoted ? undefined : 'By mail or at the counter: they count as answered, and get no other text to those who have not'"
              @click="answeredElsewhere(row, !row.answerNoted)"
            >
              {{ row.answerNoted ? 'Not answered' : 'Has answered' }}
            </button>
          </td>
        </tr>
        <tr v-if="changing === row.recordId">
          <td
            colspan="4"
            class="changing"
          >
            <BulkOneForm
              :bulk-id="bulk.id"
              :record-id="row.recordId"
              @kept="changed"
              @close="changing = null"
            />
          </td>
        </tr>
      </template>
    </PagedTable>
  </section>
</template>

<style scoped>
.people { min-width: 0; }
.top { display: flex; align-items: baseline; gap: var(--space-8); flex-wrap: wrap; padding-bottom: var(--space-2); }
h2 { font-size: var(--size-text); }
.kinds { display: flex; gap: var(--space-6); flex-wrap: wrap; }
.kinds .chosen { font-weight: 700; color: var(--ink); }
td { border-top: 1px solid var(--rule); padding: var(--space-3) var(--space-5) var(--space-3) 0; vertical-align: baseline; overflow-wrap: anywhere; }
.who { width: 14rem; }
.stands { width: 14rem; }
.acts { width: 8.5rem; }
.end { text-align: right; padding-right: 0; }
.end .plain-button + .plain-button { margin-left: var(--space-4); }
.changing { border-top: 0; padding-top: 0; }
.block { display: block; }
.words { white-space: pre-wrap; }
.refused { color: var(--wrong); font-weight: 700; }
@media (max-width: 900px) { :deep(table), :deep(tbody), tr, td { display: block; } tr { border-top: 1px solid var(--rule); padding: var(--space-3) 0; } td { border: 0; padding: 0; } .end { text-align: left; } }
</style>
