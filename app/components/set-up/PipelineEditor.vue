<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { hasManyPipelines, HELD_FACTS, type Held } from '~~/shared/modules'
import type { OwnPipeline } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Making a pipeline, or changing its stages. What was typed stays when saving fails. */
const { holds, pipeline } = defineProps<{ holds: Held, pipeline: OwnPipeline | null }>()
const emit = defineEmits<{ saved: [pipelines: OwnPipeline[]], close: [] }>()

type Stage = OwnPipeline['stages'][number]

const id = pipeline?.id ?? uuid()
const name = ref(pipeline?.name ?? '')
const fresh = (): Stage => ({ id: uuid(), name: '', over: false, count: 0 })
const stages = ref<Stage[]>(pipeline?.stages.map(stage => ({ ...stage })) ?? [fresh(), fresh(), { ...fresh(), over: true }])
const header = pipeline
  ? hasManyPipelines(holds)
    ? `Change “${pipeline.name}”`
    : `Stages of ${HELD_FACTS[holds].many.toLowerCase()}`
  : 'A new pipeline'
const { errors, saving, save: saveWith } = useSaving('stages')
const form = useTemplateRef<HTMLFormElement>('form')

async function add(): Promise<void> {
  stages.value.push(fresh())
  await nextTick()
  form.value?.querySelector<HTMLInputElement>('.stage:last-child input')?.focus()
}

function move(place: number, by: number): void {
  const [moved] = stages.value.splice(place, 1)
  stages.value.splice(place + by, 0, moved!)
}

const save = () => saveWith(async () => {
  const body = {
    id,
    holds,
    name: name.value,
    stages: stages.value.map(({ id: stageId, name: called, over }) => ({ id: stageId, name: called, over })),
  }
  emit(
    'saved',
    await api<OwnPipeline[]>(pipeline ? `/api/set-up/pipelines/${id}` : '/api/set-up/pipelines', {
      method: pipeline ? 'PUT' : 'POST',
      body,
    }),
  )
})
const errorOf = (place: number) => errors.value[`stages[${place}].name`]
</script>

<template>
  <FormDialog
    :header="header"
    width="32rem"
    :written="{ name, stages }"
    @close="emit('close')"
  >
    <form
      ref="form"
      class="form"
      @submit.prevent="save"
    >
      <LabelledField
        v-if="hasManyPipelines(holds)"
        id="pipeline-name"
        v-slot="{ input }"
        label="Name"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="name"
          :placeholder="holds === 'deal' ? 'Renewals' : 'Riders'"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <fieldset class="stages">
        <legend>Stages, in the order in which they are gone through</legend>
        <ol>
          <li
            v-for="(stage, place) in stages"
            :key="stage.id"
            class="stage"
          >
            <LabelledField
              :id="`stage-${place}`"
              v-slot="{ input }"
              :label="`Stage ${place + 1}`"
              :error="errorOf(place)"
            >
              <InputText
                v-bind="input"
                v-model="stage.name"
                autocomplete="off"
              />
            </LabelledField>
            <label class="over"><input
              v-model="stage.over"
              type="checkbox"
            > closed</label>
            <span class="ways">
              <button
                type="button"
                class="move"
                :aria-label="`Stage ${place + 1} earlier`"
                :disabled="place === 0"
                @click="move(place, -1)"
              >↑</button>
              <button
                type="button"
                class="move"
                :aria-label="`Stage ${place + 1} later`"
                :disabled="place === stages.length - 1"
                @click="move(place, 1)"
              >↓</button>
              <button
                type="button"
                class="plain-button calm"
                :aria-label="`Remove stage ${place + 1}`"
                :disabled="stages.length <= 2"
                @click="stages.splice(place, 1)"
              >Remove</button>
            </span>
          </li>
        </ol>
        <p
          v-if="errors.stages"
          class="field-error"
          role="alert"
        >
          {{ errors.stages }}
        </p>
        <button
          type="button"
          class="plain-button"
          @click="add"
        >
          One more stage
        </button>
      </fieldset>
      <Button
        type="submit"
        :label="pipeline ? 'Save the pipeline' : 'Save the pipeline'"
        :loading="saving"
      />
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.stages { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-4); justify-items: start; }
.stages ol { display: grid; gap: var(--space-3); width: 100%; }
.stage { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: var(--space-5); align-items: end; }
.over { display: flex; gap: var(--space-2); align-items: center; padding-bottom: var(--space-3); }
.ways { display: flex; gap: var(--space-2); align-items: baseline; padding-bottom: var(--space-3); }
.move { border: 0; background: none; padding: 0 var(--space-1); cursor: pointer; color: var(--quiet); }
.move:hover:not(:disabled) { color: var(--accent); }
.move:disabled { opacity: 0.35; cursor: default; }
</style>
