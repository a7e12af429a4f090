<script setup lang="ts">
import { DATED_MODULES, isPersonModule, MATTER_MODULES, MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { calendarDay, timeOfDay } from '~/words/time'

/** What hangs on this record: the deals, jobs and cases it is on, and what has a day. New ones are made from here. */
const { record } = defineProps<{ record: RecordDetail }>()

const most = 8
const open = computed(() => record.related.filter(({ over }) => !over))
const over = computed(() => record.related.filter(one => one.over))
const showingOver = ref(false)
const shown = computed(() => showingOver.value ? [...open.value, ...over.value] : open.value.slice(0, most))
const hidden = computed(() => record.related.length - shown.value.length)

const about = ({ day, time, standing, stage }: RecordDetail['related'][number]) =>
  [day && calendarDay(day), time && timeOfDay(time), standing ?? stage].filter(Boolean).join(', ')

const title = computed(() => isPersonModule(record.module) || record.module === 'company' ? 'Deals, jobs and dates' : 'Dates')

/** A new one knows whom and what it is for. */
const newModules = computed(() =>
  record.module === 'candidate'
    ? (['job', ...DATED_MODULES.slice(0, 1)] as const)
    : isPersonModule(record.module) || record.module === 'company'
      ? [...MATTER_MODULES.filter(module => module !== 'job'), ...DATED_MODULES]
      : DATED_MODULES,
)
const menu = useTemplateRef<{ toggle: (event: Event) => void }>('menu')
const items = computed(() => newModules.value.map(module => ({
  label: `New ${MODULE_FACTS[module].one.toLowerCase()}`,
  command: () => void navigateTo({ path: `/records/${MODULE_FACTS[module].slug}/new`, query: { from: record.id } }),
})))
</script>

<template>
  <section>
    <h2>{{ title }}</h2>
    <ul class="related">
      <li
        v-for="one in shown"
        :key="one.id"
        :class="{ over: one.over }"
      >
        <span class="quiet small kind">{{ MODULE_FACTS[one.module].one }}</span>
        <span>
          <NuxtLink :to="`/record/${one.id}`">{{ one.name }}</NuxtLink>
          <span class="quiet small about figures">{{ about(one) }}</span>
        </span>
      </li>
    </ul>
    <p
      v-if="record.related.length === 0"
      class="quiet small"
    >
      No deal, appointment or other thing yet.
    </p>
    <p class="acts">
      <button
        v-if="hidden > 0"
        type="button"
        class="plain-button calm"
        @click="showingOver = true"
      >
        {{ hidden }} more
      </button>
      <button
        type="button"
        class="plain-button"
        aria-haspopup="menu"
        @click="menu?.toggle($event)"
      >
        Make one
      </button>
    </p>
    <Menu
      ref="menu"
      :model="items"
      popup
    />
  </section>
</template>

<style scoped>
h2 { padding-bottom: var(--space-2); }
.related li { display: grid; grid-template-columns: 6rem minmax(0, 1fr); gap: var(--space-3); border-top: 1px solid var(--rule); padding: var(--space-2) 0; align-items: baseline; }
.related .over a { color: var(--quiet); }
.about { margin-left: var(--space-2); }
.acts { display: flex; gap: var(--space-6); padding-top: var(--space-1); }
</style>
