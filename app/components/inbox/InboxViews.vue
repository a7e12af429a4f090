<script setup lang="ts">
import type { InboxAsked, InboxView } from '~~/shared/inbox'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Views of the inbox that were saved, mine and my team's, and the way to save this one. */
const { asked } = defineProps<{ asked: InboxAsked }>()
const emit = defineEmits<{ show: [asked: InboxAsked] }>()

const ALL: InboxAsked = { show: '', line: null, module: '', words: '' }
const views = shallowRef<InboxView[]>([])
const naming = ref(false)
const { problem, trying } = useTrying()
const missing = ref(false)
/** Without them the inbox is there all the same. */
async function load(): Promise<void> {
  try {
    views.value = await api<InboxView[]>('/api/inbox/views')
    missing.value = false
  }
  catch {
    missing.value = true
  }
}
void load()

/** The same filters in another order are the same view. */
const said = ({ show, line, module, words }: InboxAsked) => JSON.stringify([show.split(',').sort().join(), line, module, words])
const chosen = computed(() => views.value.find(view => said(view.asked) === said(asked)) ?? null)
const isAll = computed(() => said(asked) === said(ALL))

const save = (view: Pick<InboxView, 'id' | 'name' | 'shared'>) => trying(async () => {
  views.value = await api<InboxView[]>('/api/inbox/views', { method: 'PUT', body: { ...view, asked } })
  naming.value = false
})
const remove = ({ id }: InboxView) => trying(async () => {
  views.value = await api<InboxView[]>(`/api/inbox/views/${id}`, { method: 'DELETE' })
  emit('show', ALL)
})
function askForName(): void {
  problem.value = ''
  naming.value = true
}
</script>

<template>
  <nav
    class="views"
    aria-label="Saved views"
  >
    <button
      type="button"
      class="view"
      :aria-pressed="isAll"
      @click="emit('show', ALL)"
    >
      All
    </button>
    <button
      v-for="view in views"
      :key="view.id"
      type="button"
      class="view"
      :aria-pressed="view === chosen"
      :title="view.shared ? `Saved by ${view.owner}, for the team` : 'Saved by you, for yourself'"
      @click="emit('show', view.asked)"
    >
      {{ view.name }}
    </button>
    <button
      v-if="missing"
      type="button"
      class="plain-button"
      @click="load"
    >
      The saved views could not be loaded. Try again
    </button>
    <button
      v-if="!chosen && !isAll"
      type="button"
      class="plain-button"
      @click="askForName"
    >
      Save this view
    </button>
    <button
      v-else-if="chosen?.mayEdit"
      type="button"
      class="plain-button calm"
      @click="remove(chosen)"
    >
      Delete “{{ chosen.name }}”
    </button>
    <span
      v-if="problem && !naming"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
    <LazySaveView
      v-if="naming"
      header="Save this view of the inbox"
      example="Failed on the Portland line"
      :problem="problem"
      @save="save"
      @close="naming = false"
    />
  </nav>
</template>

<style scoped>
.views { display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-1) var(--space-5); padding: 0 var(--space-6) var(--space-3); }
.view { border: 0; background: none; padding: 0 0 var(--space-hair); cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.view:hover { color: var(--ink); }
.view[aria-pressed='true'] { color: var(--ink); font-weight: 700; border-color: var(--ink); }
</style>
