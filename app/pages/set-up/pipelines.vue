<script setup lang="ts">
import { hasManyPipelines, HELD, HELD_FACTS, MODULE_FACTS, type Held } from '~~/shared/modules'
import type { OwnPipeline } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { many } from '~/words/count'

definePageMeta({ middleware: () => onlyWith('pipeline.edit') })

const holds = ref<Held>('deal')
const {
  list: pipelines,
  problem,
  trying,
  load,
} = useSetUpList<OwnPipeline>(() => ({ path: '/api/set-up/pipelines', query: { holds: holds.value } }))
/** A pipeline, a new one, or none. */
const editing = shallowRef<OwnPipeline | 'new' | null>(null)

const remove = ({ id }: OwnPipeline) => trying(() => api<OwnPipeline[]>(`/api/set-up/pipelines/${id}`, { method: 'DELETE' }))
/** Deals first, then the candidates of jobs: firms have several pipelines of these. */
const CHOICE = [...HELD].sort((a, b) => Number(hasManyPipelines(b)) - Number(hasManyPipelines(a)))
const severalCanBe = computed(() => hasManyPipelines(holds.value))
const hint = computed(() =>
  holds.value === 'applicant'
    ? 'The stages through which the candidates of a job go.'
    : `The stages through which ${HELD_FACTS[holds.value].many.toLowerCase()} go. Renaming one moves nobody.`,
)
const inIt = ({ records }: OwnPipeline) => many(records, ...namesOf(holds.value))
const namesOf = (held: Held): [string, string] => {
  const { one, many: several } = held === 'applicant' ? MODULE_FACTS.job : HELD_FACTS[held]
  return [one.toLowerCase(), several.toLowerCase()]
}
watch(holds, () => editing.value = null)

function saved(all: OwnPipeline[]): void {
  pipelines.value = all
  editing.value = null
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new pipeline', act: () => {
  if (severalCanBe.value) editing.value = 'new'
} }])
</script>

<template>
  <SetUpRoom
    title="Pipelines"
    :hint="hint"
    what="the pipelines"
    :loaded="pipelines !== null"
    :problem="problem"
    @again="load"
  >
    <template #choice>
      <ModuleChoice
        v-model="holds"
        :modules="CHOICE"
        :makes="severalCanBe ? 'New pipeline' : ''"
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
            :key="stage.id"
            :class="{ over: stage.over }"
          >
            {{ stage.name }} <span class="figures quiet">{{ stage.count }}</span>
          </li>
        </ol>
        <p class="ways">
          <span class="quiet">{{ inIt(one) }}</span>
          <button
            type="button"
            class="plain-button"
            :aria-label="`Change ${one.name}`"
            @click="editing = one"
          >
            Change
          </button>
          <button
            v-if="severalCanBe && one.records === 0"
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
      :holds="holds"
      :pipeline="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </SetUpRoom>
</template>

<style scoped>
.pipeline { display: grid; grid-template-columns: 11rem minmax(0, 1fr) auto; gap: var(--space-6); align-items: baseline; border-top: 1px solid var(--rule); padding: var(--space-4) 0; }
.pipeline h2 { font-size: var(--size-text); }
.stages { display: flex; flex-wrap: wrap; gap: var(--space-2) 0; }
.stages li + li::before { content: '→'; color: var(--quiet); padding: 0 var(--space-4); }
.stages .over { color: var(--quiet); }
.ways { display: flex; gap: var(--space-5); align-items: baseline; white-space: nowrap; }
@media (max-width: 700px) { .pipeline { grid-template-columns: minmax(0, 1fr); gap: var(--space-2); } }
</style>
