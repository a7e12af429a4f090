<script setup lang="ts">
import { useDebounceFn, watchDebounced } from '@vueuse/core'
import { GROUPS, type Group } from '~~/core/timeline/groups'
import type { LineChoice } from '~~/shared/composer'
import type { useTimeline } from '~/composables/timeline'
import { api } from '~/composables/api'
import { asQuery, narrows, WHOLE, type SieveForm } from '~/composables/sieve'
import { useTrying } from '~/composables/trying'

/** Narrows a timeline, goes to a day in it, and takes it out. */
const { timeline, recordId } = defineProps<{ timeline: ReturnType<typeof useTimeline>, recordId: string }>()
const asTable = defineModel<boolean>('asTable', { required: true })

const GROUP_WORDS: Record<Group, string> = { texts: 'Texts', calls: 'Calls', notes: 'Notes', tasks: 'Tasks', changes: 'Changes' }

const open = ref(false)
const form = ref<SieveForm>({ ...WHOLE })
const narrowed = computed(() => narrows(form.value))
const field = useId()
const apply = () => timeline.narrow({ ...form.value })
const applySoon = useDebounceFn(apply, 250)

function toggle(group: Group): void {
  form.value.groups = form.value.groups.includes(group) ? form.value.groups.filter(one => one !== group) : [...form.value.groups, group]
  apply()
}

function showAll(): void {
  form.value = { ...WHOLE }
  apply()
}

const { problem, trying } = useTrying()
const colleagues = shallowRef<{ id: string, name: string }[]>([])
const lines = shallowRef<LineChoice[]>([])
watch(open, () => trying(async () => {
  colleagues.value = await api<{ id: string, name: string }[]>('/api/colleagues')
  lines.value = await api<LineChoice[]>('/api/lines')
}), { once: true })

const file = (format: 'csv' | 'jsonl') =>
  `/api/records/${recordId}/timeline/export?${new URLSearchParams([
    ...Object.entries(asQuery(form.value)).flatMap(([key, value]) => [value].flat().map(one => [key, String(one)])),
    ['format', format],
  ])}`

const aim = ref('')
watchDebounced(aim, day => day && void timeline.goTo(day), { debounce: 250 })
</script>

<template>
  <form
    class="sieve"
    role="search"
    aria-label="Narrow the timeline"
    @submit.prevent="apply"
  >
    <div
      class="groups"
      role="group"
      aria-label="Kinds of entry"
    >
      <button
        type="button"
        class="group"
        :aria-pressed="!narrowed"
        @click="showAll"
      >
        All
      </button>
      <button
        v-for="group in GROUPS"
        :key="group"
        type="button"
        class="group"
        :aria-pressed="form.groups.includes(group)"
        @click="toggle(group)"
      >
        {{ GROUP_WORDS[group] }}
      </button>
    </div>
    <input
      v-model="form.words"
      type="search"
      class="words"
      aria-label="Find in this timeline"
      placeholder="Find in this timeline"
      autocomplete="off"
      @input="applySoon"
    >
    <button
      type="button"
      class="plain-button calm"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{ open ? 'Less' : 'By day, colleague, line' }}
    </button>
    <span class="ways">
      <button
        type="button"
        class="plain-button calm"
        :aria-pressed="asTable"
        @click="asTable = !asTable"
      >
        {{ asTable ? 'As a timeline' : 'Texts as a table' }}
      </button>
    </span>
    <div
      v-if="open"
      class="further"
    >
      <label class="field"><span class="field-label">From</span>
        <select
          v-model="form.from"
          class="plain-field"
          @change="apply"
        >
          <option value="">Either side</option>
          <option value="ours">Us</option>
          <option value="theirs">Them</option>
        </select>
      </label>
      <label class="field"><span class="field-label">Colleague</span>
        <select
          v-model="form.colleagueId"
          class="plain-field"
          @change="apply"
        >
          <option value="">Anybody</option>
          <option
            v-for="{ id, name } in colleagues"
            :key="id"
            :value="id"
          >{{ name }}</option>
        </select>
      </label>
      <label class="field"><span class="field-label">Line</span>
        <select
          v-model="form.lineId"
          class="plain-field"
          @change="apply"
        >
          <option value="">Any</option>
          <option
            v-for="{ id, name } in lines"
            :key="id"
            :value="id"
          >{{ name }}</option>
        </select>
      </label>
      <span class="field"><label
                            class="field-label"
                            :for="`${field}-since`"
                          >From day</label>
        <DayField
          :id="`${field}-since`"
          v-model="form.since"
          @update:model-value="applySoon"
        />
      </span>
      <span class="field"><label
                            class="field-label"
                            :for="`${field}-until`"
                          >To day</label>
        <DayField
          :id="`${field}-until`"
          v-model="form.until"
          @update:model-value="applySoon"
        />
      </span>
      <span class="field"><label
                            class="field-label"
                            :for="`${field}-aim`"
                          >Go to a day</label>
        <DayField
          :id="`${field}-aim`"
          v-model="aim"
        />
      </span>
      <p class="take-out">
        <NuxtLink
          :to="`/print/${recordId}`"
          target="_blank"
        >
          Print it
        </NuxtLink>
        <a
          :href="file('csv')"
          download
        >Export as CSV</a>
        <a
          :href="file('jsonl')"
          download
        >as JSON lines</a>
      </p>
      <p
        v-if="problem"
        class="field-error"
        role="alert"
      >
        {{ problem }}
      </p>
    </div>
  </form>
</template>

<style scoped>
.sieve { display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding-top: var(--space-3); }
.groups { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-5); }
.group { border: 0; background: none; padding: 0 0 var(--space-hair); cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.group:hover { color: var(--ink); }
.group[aria-pressed='true'] { color: var(--ink); font-weight: 700; border-color: var(--ink); }
.words { flex: 1 1 10rem; min-width: 8rem; border: 0; border-bottom: 1px solid var(--field-rule); background: none; padding: var(--space-hair) 0; }
.further { flex-basis: 100%; display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-6); align-items: end; padding-bottom: var(--space-3); }
.take-out { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); padding-bottom: var(--space-2); }
</style>
