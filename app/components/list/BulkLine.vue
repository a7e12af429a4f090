<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import type { BulkChange, BulkKind, BulkPreview, BulkProgress } from '~~/shared/bulk'
import type { GroupHead } from '~~/shared/groups'
import type { Choice } from '~~/shared/list'
import { hasNumbers, hasStages, holdsPeople, MODULE_FACTS, type Module } from '~~/shared/modules'
import type { List } from '~/composables/list'
import type { ListSelection } from '~/composables/selection'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'

/** What can be done with the rows that are chosen, and how far the last change has come. */
const { module, list, selection } = defineProps<{ module: Module, list: List, selection: ListSelection }>()
const emit = defineEmits<{ call: [], text: [] }>()
const me = useMe()

const WAYS: { kind: BulkKind, label: string }[] = [
  { kind: 'owner', label: 'Give to a colleague' },
  ...(hasStages(module) ? [{ kind: 'stage' as const, label: 'Move to a stage' }] : []),
  { kind: 'add-tag', label: 'Add a tag' },
  { kind: 'remove-tag', label: 'Remove a tag' },
  ...(hasNumbers(module)
    ? [{ kind: 'add-group' as const, label: 'Put into a group' }, { kind: 'remove-group' as const, label: 'Take out of a group' }]
    : []),
]
const kind = ref<BulkKind | null>(null)
const value = ref<string | null>(null)
const preview = shallowRef<BulkPreview | null>(null)
const { problem: error, trying } = useTrying()
const progress = shallowRef<BulkProgress | null>(null)

const one = MODULE_FACTS[module].one.toLowerCase()
const several = MODULE_FACTS[module].many.toLowerCase()
/** From which column one chooses what they get. */
const COLUMN: Partial<Record<BulkKind, string>> = { 'owner': 'owner', 'stage': 'stage', 'add-tag': 'tags', 'remove-tag': 'tags' }
/** Those into which colleagues put people; null until they are there. */
const byHand = shallowRef<Choice[] | null>(null)
const isOfGroup = computed(() => kind.value === 'add-group' || kind.value === 'remove-group')
const choices = computed(() => isOfGroup.value
  ? byHand.value ?? []
  : list.columns.value.find(column => kind.value && column.key === COLUMN[kind.value])?.choices ?? [])
const total = computed(() => list.total.value ?? 0)

const change = computed<BulkChange | null>(() => {
  if (!kind.value || !value.value?.trim()) return null
  switch (kind.value) {
    case 'owner': return { kind: 'owner', ownerId: value.value }
    case 'stage': return { kind: 'stage', stageId: value.value }
    case 'add-group': case 'remove-group': return { kind: kind.value, groupId: value.value }
    default: return { kind: kind.value, tag: value.value.trim() }
  }
})

function begin(way: BulkKind): void {
  kind.value = way
  value.value = null
  preview.value = null
  error.value = ''
  if (isOfGroup.value) void loadGroups()
}

const loadGroups = () => asking(async () => {
  const all = await api<GroupHead[]>('/api/groups')
  byHand.value = all.filter(one => one.way === 'hand').map(({ id, name }) => ({ value: id, label: name }))
})

async function asking<T>(work: () => Promise<T>): Promise<T | null> {
  let answer: T | null = null
  await trying(async () => answer = await work())
  return answer
}

let asked = 0
watch(change, async () => {
  preview.value = null
  const turn = ++asked
  if (!change.value) return
  const counted = await asking(() =>
    api<BulkPreview>('/api/bulk-changes/preview', { method: 'POST', body: { selection: selection.selection.value, change: change.value } }),
  )
  if (turn === asked) preview.value = counted
})

async function go(): Promise<void> {
  const begun = await asking(() =>
    api<BulkProgress>('/api/bulk-changes', {
      method: 'POST',
      body: { id: uuid(), selection: selection.selection.value, change: change.value },
    }),
  )
  if (!begun) return
  kind.value = null
  selection.clear()
  progress.value = begun
  // a quick one is done before anybody has asked how far it is
  if (!underWay.value) await list.loadAgain()
}

async function turn(way: 'stop' | 'take-back'): Promise<void> {
  const next = await asking(() => api<BulkProgress>(`/api/bulk-changes/${progress.value!.id}/${way}`, { method: 'POST', body: {} }))
  if (next) progress.value = next
}

const underWay = computed(() => progress.value?.state === 'running' || progress.value?.state === 'taking-back')
useIntervalFn(async () => {
  if (!underWay.value) return
  const all = await api<BulkProgress[]>('/api/bulk-changes').catch(() => [])
  progress.value = all.find(({ id }) => id === progress.value?.id) ?? progress.value
  if (!underWay.value) await list.loadAgain()
}, 400)
// a change that was under way when the page was left is found again
onMounted(
  async () =>
    (progress.value
      = (await api<BulkProgress[]>('/api/bulk-changes').catch(() => [])).find(({ state }) => state === 'running' || state === 'taking-back')
        ?? null),
)
</script>

<template>
  <section
    v-if="selection.count.value > 0 || progress"
    class="line"
    aria-label="Changing many"
  >
    <template v-if="selection.count.value > 0">
      <p>
        <strong class="figures">{{ many(selection.count.value, one, several) }} chosen</strong>
        <button
          v-if="!selection.everything.value && selection.wholePage.value && total > selection.count.value"
          type="button"
          class="plain-button next"
          @click="selection.chooseEverything"
        >
          Choose all {{ total.toLocaleString('en-US') }}
        </button>
        <button
          type="button"
          class="plain-button calm next"
          @click="selection.clear"
        >
          Choose none
        </button>
      </p>
      <p class="ways">
        <button
          v-if="hasNumbers(module) || holdsPeople(module)"
          type="button"
          class="plain-button"
          @click="emit('call')"
        >
          Call {{ holdsPeople(module) ? 'the people on them' : 'them' }} in a round
        </button>
        <button
          v-if="(hasNumbers(module) || holdsPeople(module)) && me.may('bulk.work')"
          type="button"
          class="plain-button"
          @click="emit('text')"
        >
          Text {{ holdsPeople(module) ? 'the people on them' : 'them' }}
        </button>
        <button
          v-for="way in WAYS"
          :key="way.kind"
          type="button"
          class="plain-button"
          :aria-expanded="kind === way.kind"
          @click="begin(way.kind)"
        >
          {{ way.label }}
        </button>
      </p>
      <form
        v-if="kind"
        class="form"
        @submit.prevent="go"
      >
        <label
          id="bulk-label"
          for="bulk-value"
          class="heard-only"
        >{{ WAYS.find(way => way.kind === kind)?.label }}</label>
        <InputText
          v-if="kind === 'add-tag'"
          id="bulk-value"
          v-model="value"
          placeholder="bakery"
          list="bulk-tags"
          autocomplete="off"
          autofocus
        />
        <datalist id="bulk-tags">
          <option
            v-for="choice in choices"
            :key="choice.value"
            :value="choice.value"
          />
        </datalist>
        <Select
          v-if="kind !== 'add-tag'"
          v-model="value"
          input-id="bulk-value"
          :options="choices"
          option-value="value"
          option-label="label"
          aria-labelledby="bulk-label"
          placeholder="Choose"
          autofocus
        />
        <span
          v-if="isOfGroup && byHand?.length === 0"
          class="quiet"
        >There is no group by hand yet. <NuxtLink to="/groups?make">Make one</NuxtLink></span>
        <Button
          type="submit"
          :label="preview ? `Change ${many(preview.changes, one, several)}` : 'Change them'"
          :disabled="!preview || preview.changes === 0"
        />
        <span
          class="quiet"
          role="status"
        >
          {{ preview && preview.alreadySo > 0 ? `${preview.alreadySo.toLocaleString('en-US')} ${preview.alreadySo === 1 ? 'is' : 'are'} so already. ` : '' }}{{ preview && preview.notAllowed > 0 ? `${preview.notAllowed.toLocaleString('en-US')} you may not change.` : '' }}
        </span>
        <button
          type="button"
          class="plain-button calm"
          @click="kind = null"
        >
          Cancel
        </button>
      </form>
    </template>
    <p
      v-else-if="progress"
      role="status"
    >
      <template v-if="underWay">
        <strong class="figures">{{ progress.done.toLocaleString('en-US') }} of {{ progress.total.toLocaleString('en-US') }}</strong> {{ progress.state === 'running' ? 'changed' : 'taken back' }}
        <progress
          :value="progress.done"
          :max="progress.total"
          aria-label="How far it has come"
        />
        <button
          v-if="progress.state === 'running'"
          type="button"
          class="plain-button"
          @click="turn('stop')"
        >
          Stop here
        </button>
      </template>
      <template v-else>
        {{ progress.state === 'taken-back' ? `${many(progress.changed, one, several)} as before.` : `${many(progress.changed, one, several)} changed${progress.state === 'stopped' ? ', then stopped' : ''}.` }}
        <button
          v-if="progress.state !== 'taken-back' && progress.changed > 0"
          type="button"
          class="plain-button next"
          @click="turn('take-back')"
        >
          Take it back
        </button>
        <button
          type="button"
          class="plain-button calm next"
          @click="progress = null"
        >
          Good
        </button>
      </template>
    </p>
    <p
      v-if="error"
      class="field-error"
      role="alert"
    >
      {{ error }}
    </p>
  </section>
</template>

<style scoped>
.line { display: flex; align-items: center; flex-wrap: wrap; gap: var(--space-3) var(--space-8); background: var(--accent-ground); border-left: 3px solid var(--accent); padding: var(--space-3) var(--space-5); margin-bottom: var(--space-4); }
.ways { display: flex; gap: var(--space-7); }
.form { display: flex; align-items: center; gap: var(--space-5); flex-wrap: wrap; flex-basis: 100%; }
.next { margin-left: var(--space-5); }
progress { accent-color: var(--accent); vertical-align: middle; margin: 0 var(--space-4); }
</style>
