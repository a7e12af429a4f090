<script setup lang="ts">
import { MODULE_FACTS, PIPELINE_MODULES, type PipelineModule } from '~~/shared/modules'
import type { OwnPipeline } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { adminsOnly, useSetUpList } from '~/composables/set-up-list'

definePageMeta({ middleware: adminsOnly })

const module = ref<PipelineModule>('deal')
const { list: pipelines, problem, trying, load } = useSetUpList<OwnPipeline>(() => ({ path: '/api/set-up/pipelines', query: { module: module.value } }))
/** A pipeline, a new one, or none. */
const editing = shallowRef<OwnPipeline | 'new' | null>(null)

const remove = ({ id }: OwnPipeline) => trying(() => api<OwnPipeline[]>(`/api/set-up/pipelines/${id}`, { method: 'DELETE' }))
const holds = ({ records }: OwnPipeline) => `${records} ${records === 1 ? MODULE_FACTS[module.value].one.toLowerCase() : MODULE_FACTS[module.value].many.toLowerCase()}`

function saved(all: OwnPipeline[]): void {
  pipelines.value = all
  editing.value = null
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new pipeline', act: () => editing.value = 'new' }])
</script>

<template>
  <SetUpRoom
    title="Pipelines"
    :hint="module === 'deal' ? 'The stages through which deals go.' : 'The stages through which the candidates of a job go.'"
    what="the pipelines"
    :loaded="pipelines !== null"
    :problem="problem"
    @again="load"
  >
    <template #choice>
      <ModuleChoice
        v-model="module"
        :modules="PIPELINE_MODULES"
        makes="New pipeline"
        @make="editing = 'new'"
      />
    </template>
    <ul class="pipelines">
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
  </SetUpRoom>
</template>

<style scoped>
.pipeline { display: grid; grid-template-columns: 11rem minmax(0, 1fr) auto; gap: 1rem; align-items: baseline; border-top: 1px solid var(--rule); padding: 0.7rem 0; }
.pipeline h2 { font-size: var(--size-text); }
.stages { display: flex; flex-wrap: wrap; gap: 0.3rem 0; }
.stages li + li::before { content: '→'; color: var(--quiet); padding: 0 0.6rem; }
.stages .over { color: var(--quiet); }
.ways { display: flex; gap: 0.9rem; align-items: baseline; white-space: nowrap; }
@media (max-width: 700px) { .pipeline { grid-template-columns: minmax(0, 1fr); gap: 0.4rem; } }
</style>
