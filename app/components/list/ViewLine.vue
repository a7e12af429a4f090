<script setup lang="ts">
import { firstLook } from '~~/shared/columns'
import type { View } from '~~/shared/list'
import { hasNumbers, MODULE_FACTS, type Module } from '~~/shared/modules'
import { NO_CONDITIONS } from '~~/core/conditions/conditions'
import type { List } from '~/composables/list'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Lists that were kept, mine and my team's, and the way to keep this one. */
const { module, list } = defineProps<{ module: Module, list: List }>()

const views = shallowRef<View[]>([])
const chosenId = ref<string | null>(null)
const naming = ref(false)
const { problem: error, trying } = useTrying()

const chosen = computed(() => views.value.find(view => view.id === chosenId.value) ?? null)
const ALL = { ...firstLook(module), conditions: NO_CONDITIONS }
const asShown = computed(() => JSON.stringify([list.shown.value, list.conditions.value, list.sort.value, list.direction.value]))
const sayView = ({ columns, conditions, sort, direction }: typeof ALL) => JSON.stringify([columns, conditions, sort, direction])
const saved = computed(() => sayView(chosen.value ?? ALL))
onMounted(async () => {
  views.value = await api<View[]>('/api/views', { query: { module } }).catch(() => [])
  // a list that comes back by its address may be a kept one
  chosenId.value ??= views.value.find(view => sayView(view) === asShown.value)?.id ?? null
})
const altered = computed(() => asShown.value !== saved.value)

function show(view: View | null): void {
  chosenId.value = view?.id ?? null
  list.show(view ?? ALL)
}

function askForName(): void {
  error.value = ''
  naming.value = true
}

const save = (view: Pick<View, 'id' | 'name' | 'shared'>) => trying(async () => {
  views.value = await api<View[]>('/api/views', {
    method: 'PUT',
    body: {
      ...view,
      module,
      columns: list.shown.value,
      where: list.question.value.where,
      sort: list.sort.value,
      direction: list.direction.value,
    },
  })
  chosenId.value = view.id
  naming.value = false
})

const remove = ({ id }: View) => trying(async () => {
  await api(`/api/views/${id}`, { method: 'DELETE' })
  views.value = views.value.filter(view => view.id !== id)
  show(null)
})
</script>

<template>
  <div class="line">
    <nav
      class="views"
      aria-label="Saved lists"
    >
      <button
        type="button"
        class="view"
        :aria-pressed="!chosen"
        @click="show(null)"
      >
        All
      </button>
      <button
        v-for="view in views"
        :key="view.id"
        type="button"
        class="view"
        :aria-pressed="view.id === chosenId"
        :title="view.shared ? `Saved by ${view.owner}, for the team` : 'Saved by you, for yourself'"
        @click="show(view)"
      >
        {{ view.name }}
      </button>
    </nav>
    <span
      v-if="altered"
      class="ways"
    >
      <button
        v-if="chosen?.mayEdit"
        type="button"
        class="plain-button"
        @click="save(chosen)"
      >
        Save to “{{ chosen.name }}”
      </button>
      <button
        type="button"
        class="plain-button"
        @click="askForName"
      >
        Save this list
      </button>
      <NuxtLink
        v-if="hasNumbers(module) && list.conditions.value.of.length > 0"
        :to="{ path: '/groups', query: { make: '', module, where: list.question.value.where } }"
        :prefetch="false"
      >
        Make it a group
      </NuxtLink>
    </span>
    <button
      v-else-if="chosen?.mayEdit"
      type="button"
      class="plain-button calm"
      @click="remove(chosen)"
    >
      Delete “{{ chosen.name }}”
    </button>
    <span
      v-if="error && !naming"
      class="field-error"
      role="alert"
    >{{ error }}</span>
    <LazySaveView
      v-if="naming"
      :header="`Save this list of ${MODULE_FACTS[module].many.toLowerCase()}`"
      example="Gone quiet"
      :problem="error"
      @save="save"
      @close="naming = false"
    />
  </div>
</template>

<style scoped>
.line { display: flex; align-items: baseline; gap: var(--space-2) var(--space-7); flex-wrap: wrap; }
.views { display: flex; gap: var(--space-1) var(--space-5); flex-wrap: wrap; }
.view { border: 0; background: none; padding: 0 0 var(--space-hair); cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.view:hover { color: var(--ink); }
.view[aria-pressed='true'] { color: var(--ink); font-weight: 700; border-color: var(--ink); }
.ways { display: flex; gap: var(--space-6); }
.ways a { font-weight: 700; text-decoration: none; }
.ways a:hover { text-decoration: underline; }
</style>
