<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { ImportProgress } from '~~/shared/import'
import { hasNumbers, type Module } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useImportsUnderWay } from '~/composables/import'
import { useNow } from '~/composables/now'
import { useTextMany } from '~/composables/text-many'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { sayCounts, STATE_WORDS } from '~/words/imports'
import { ago } from '~/words/time'

/** Files that I have brought in: how far each has come, stopping, taking back, and what was refused. */
const { module, newest = null } = defineProps<{ module: Module, newest?: ImportProgress | null }>()

const me = useMe()
const now = useNow()
const all = ref<ImportProgress[]>([])
const { problem, trying } = useTrying()

const load = () => trying(async () => all.value = await api<ImportProgress[]>('/api/imports', { query: { module } }))
watch(() => newest?.id, load, { immediate: true })
useImportsUnderWay(all)

const turn = (one: ImportProgress, way: 'stop' | 'take-back') => trying(async () => {
  const next = await api<ImportProgress>(`/api/imports/${one.id}/${way}`, { method: 'POST', body: {} })
  all.value = all.value.map(other => other.id === next.id ? next : other)
})

/** The file of which it is asked whether it is really to be taken back. */
const asking = ref<string | null>(null)
async function takeBack(one: ImportProgress): Promise<void> {
  asking.value = null
  await turn(one, 'take-back')
}

/** A file whose people are to be called, one after the other. */
const calling = shallowRef<ImportProgress | null>(null)
const broughtBy = ({ id }: ImportProgress) => ({
  list: { module, sort: 'name', direction: 'up' as const, words: '', where: '' },
  ids: null,
  importId: id,
})
const selection = computed(() => calling.value && broughtBy(calling.value))
const { problem: notTexted, busy, textMany } = useTextMany()
const canBeCalled = ({ state, made, joined, leftOut }: ImportProgress) =>
  hasNumbers(module) && (state === 'done' || state === 'stopped') && made + joined + leftOut > 0

const moving = ({ state }: ImportProgress) => state === 'running' || state === 'taking-back'
</script>

<template>
  <section v-if="all.length > 0 || problem">
    <h2>Imported files</h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="notTexted"
      class="notice failed"
      role="alert"
    >
      {{ notTexted }}
    </p>
    <ul class="files">
      <li
        v-for="one in all"
        :key="one.id"
      >
        <p class="head">
          <strong>{{ one.fileName }}</strong>
          <span class="quiet small">{{ STATE_WORDS[one.state] }}, {{ ago(one.madeAt, now) }}</span>
          <span class="acts">
            <a
              v-if="one.refused > 0"
              :href="`/api/imports/${one.id}/refused`"
              download
            >Refused rows, as a file</a>
            <button
              v-if="canBeCalled(one)"
              type="button"
              class="plain-button"
              @click="calling = one"
            >
              Call them in a round
            </button>
            <button
              v-if="canBeCalled(one) && me.may('bulk.work')"
              type="button"
              class="plain-button"
              :disabled="busy"
              @click="textMany(one.fileName, { selection: broughtBy(one) })"
            >
              Text them
            </button>
            <button
              v-if="one.state === 'running'"
              type="button"
              class="plain-button"
              @click="turn(one, 'stop')"
            >
              Stop
            </button>
            <button
              v-if="(one.state === 'done' || one.state === 'stopped') && asking !== one.id"
              type="button"
              class="plain-button calm"
              @click="asking = one.id"
            >
              Take it all back
            </button>
          </span>
        </p>
        <p
          v-if="asking === one.id"
          class="ask"
          role="alert"
        >
          What it made goes, and what it added to others; whatever somebody has worked with since stays.
          <button
            type="button"
            class="plain-button"
            @click="takeBack(one)"
          >
            Yes, take it back
          </button>
          <button
            type="button"
            class="plain-button calm"
            @click="asking = null"
          >
            Keep it
          </button>
        </p>
        <progress
          v-if="moving(one)"
          :value="one.done"
          :max="one.total"
          :aria-label="one.fileName"
        />
        <p
          class="quiet small figures"
          :role="moving(one) ? 'status' : undefined"
        >
          <template v-if="moving(one)">
            {{ one.done.toLocaleString('en-US') }} of {{ one.total.toLocaleString('en-US') }}.
          </template>
          {{ sayCounts(one) }}
        </p>
      </li>
    </ul>
    <LazyRoundForm
      v-if="selection"
      :key="selection.importId"
      :whom="{ selection, groupId: null }"
      :called="MODULE_FACTS[selection.list.module].many"
      @close="calling = null"
    />
  </section>
</template>

<style scoped>
h2 { padding-bottom: var(--space-2); }
.files li { border-top: 1px solid var(--rule); padding: var(--space-3) 0; display: grid; gap: var(--space-1); }
.head { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-4); align-items: baseline; }
.ask { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); align-items: baseline; color: var(--wrong); }
.acts { margin-left: auto; display: flex; gap: var(--space-7); }
progress { width: 100%; height: 0.5rem; accent-color: var(--accent); }
</style>
