<script setup lang="ts">
import { MODULE_FACTS, PIPELINE_MODULES, type PipelineModule } from '~~/shared/modules'
import type { OwnPipeline } from '~~/shared/set-up'
import { api, ApiProblem } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useMe } from '~/stores/me'

definePageMeta({
  middleware: () => useMe().me?.role === 'admin' ? undefined : navigateTo('/'),
})

const module = ref<PipelineModule>('deal')
const pipelines = shallowRef<OwnPipeline[] | null>(null)
const problem = ref('')
/** A pipeline, a new one, or none. */
const editing = shallowRef<OwnPipeline | 'new' | null>(null)

async function trying(work: () => Promise<OwnPipeline[]>): Promise<void> {
  try {
    pipelines.value = await work()
    problem.value = ''
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error.message
  }
}
const load = () => trying(() => api<OwnPipeline[]>('/api/set-up/pipelines', { query: { module: module.value } }))
watch(module, () => {
  pipelines.value = null
  void load()
}, { immediate: true })

const remove = ({ id }: OwnPipeline) => trying(() => api<OwnPipeline[]>(`/api/set-up/pipelines/${id}`, { method: 'DELETE' }))
const holds = ({ records }: OwnPipeline) => `${records} ${records === 1 ? MODULE_FACTS[module.value].one.toLowerCase() : MODULE_FACTS[module.value].many.toLowerCase()}`

function saved(all: OwnPipeline[]): void {
  pipelines.value = all
  editing.value = null
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new pipeline', act: () => editing.value = 'new' }])
</script>

<template>
  <div class="page">
    <SetUpNav />
    <header class="head">
      <h1>Pipelines</h1>
      <p class="quiet">
        {{ module === 'deal' ? 'The stages through which deals go.' : 'The stages through which the candidates of a job go.' }}
      </p>
    </header>
    <nav
      class="modules"
      aria-label="Modules"
    >
      <button
        v-for="one in PIPELINE_MODULES"
        :key="one"
        type="button"
        class="module"
        :aria-pressed="one === module"
        @click="module = one"
      >
        {{ MODULE_FACTS[one].many }}
      </button>
      <button
        type="button"
        class="plain-button new"
        @click="editing = 'new'"
      >
        New pipeline <kbd>C</kbd>
      </button>
    </nav>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      :again="pipelines ? 'See the pipelines as they are' : 'Load them again'"
      @again="load"
    />
    <p
      v-if="!pipelines && !problem"
      class="quiet"
      role="status"
    >
      Loading the pipelines…
    </p>
    <ul
      v-else-if="pipelines"
      class="pipelines"
    >
      <li
        v-for="one in pipelines"
        :key="one.id"
        class="pipeline"
      >
        <h2>{{ one.name }}</h2>
        <ol class="stages">
          <li
            v-for="stage in one.stages"
            :key="stage.name"
            :class="{ over: stage.over }"
          >
            {{ stage.name }} <span class="figures quiet">{{ stage.count }}</span>
          </li>
        </ol>
        <p class="ways">
          <span class="quiet">{{ holds(one) }}</span>
          <button
            type="button"
            class="plain-button"
            :aria-label="`Change ${one.name}`"
            @click="editing = one"
          >
            Change
          </button>
          <button
            v-if="one.records === 0"
            type="button"
            class="plain-button calm"
            :aria-label="`Remove ${one.name}`"
            @click="remove(one)"
          >
            Remove
          </button>
        </p>
      </li>
    </ul>
    <PipelineEditor
      v-if="editing"
      :key="editing === 'new' ? 'new' : editing.id"
      :module="module"
      :pipeline="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </div>
</template>

<style scoped>
.page { padding: 0.85rem 1.5rem 2rem; display: grid; gap: 0.9rem; align-content: start; }
.head { display: flex; align-items: baseline; gap: 1rem; flex-wrap: wrap; }
.modules { display: flex; gap: 1.1rem; align-items: baseline; }
.module { border: 0; background: none; padding: 0 0 0.2rem; cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.module[aria-pressed='true'] { color: var(--mulberry); font-weight: 700; border-color: var(--mulberry); }
.new { margin-left: auto; }
.pipeline { display: grid; grid-template-columns: 11rem minmax(0, 1fr) auto; gap: 1rem; align-items: baseline; border-top: 1px solid var(--rule); padding: 0.7rem 0; }
.pipeline h2 { font-size: var(--size-text); }
.stages { display: flex; flex-wrap: wrap; gap: 0.3rem 0; }
.stages li + li::before { content: '→'; color: var(--quiet); padding: 0 0.6rem; }
.stages .over { color: var(--quiet); }
.ways { display: flex; gap: 0.9rem; align-items: baseline; white-space: nowrap; }
@media (max-width: 700px) { .page { padding-inline: 0.75rem; } .pipeline { grid-template-columns: minmax(0, 1fr); gap: 0.4rem; } }
</style>
