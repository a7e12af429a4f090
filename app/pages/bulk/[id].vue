<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { MODULE_FACTS } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useBulk } from '~/composables/bulk'
import { useGathering } from '~/stores/gathering'
import { sayRepeated, type Those } from '~/words/bulk'
import { many } from '~/words/count'

/** One bulk text, from what it says to what became of it. */
definePageMeta({ key: route => route.path })
const route = useRoute()
const id = String(route.params.id)
const { bulk, problem, changes, load, act, trying } = useBulk(id)

const begun = computed(() => bulk.value !== null && !['draft', 'checking', 'checked'].includes(bulk.value.state))
/** What was checked is shown; what has not been is written first, unless somebody asks for the other. */
const step = computed<'what' | 'check' | 'send'>(() => {
  if (begun.value) return 'send'
  if (route.query.step === 'what' || bulk.value?.state === 'draft') return 'what'
  return 'check'
})
const go = (to: 'what' | 'check') => navigateTo({ query: { step: to } })
const STEPS = [{ step: 'what', name: 'What it says' }, { step: 'check', name: 'Check and plan' }, { step: 'send', name: 'Send' }] as const

const which = ref<Those>({})
const seeing = ref(false)
const list = useTemplateRef<HTMLElement>('list')
async function see(asked: Those): Promise<void> {
  which.value = asked
  seeing.value = true
  await nextTick()
  list.value?.scrollIntoView({ block: 'start', behavior: 'smooth' })
}
const busy = ref(false)
async function doing(path: string, body: object): Promise<void> {
  busy.value = true
  await act(path, body)
  busy.value = false
}
const whom = computed(() => {
  if (!bulk.value) return ''
  const { people, modules } = bulk.value
  const { one, many: several } = modules.length === 1 ? MODULE_FACTS[modules[0]!] : { one: 'person', many: 'people' }
  return many(people, one.toLowerCase(), several.toLowerCase())
})
const gathering = useGathering()
function gather(): void {
  const { name, people, modules } = bulk.value!
  gathering.begin({ bulkId: id, name, people })
  void navigateTo(`/records/${MODULE_FACTS[modules[0]!].slug}`)
}
async function repeat(): Promise<void> {
  const newId = uuid()
  busy.value = true
  if (await trying(() => api(`/api/bulk-texts/${id}/repeat`, { method: 'POST', body: { id: newId } }))) await navigateTo(`/bulk/${newId}`)
  busy.value = false
}
const removing = ref(false)
async function remove(): Promise<void> {
  busy.value = true
  if (await trying(() => api(`/api/bulk-texts/${id}`, { method: 'DELETE' }))) {
    if (gathering.mine?.bulkId === id) gathering.end()
    await navigateTo('/bulk')
  }
  busy.value = false
}
async function started(): Promise<void> {
  which.value = {}
  await load()
}
async function written(): Promise<void> {
  await load()
  await go('check')
}
</script>

<template>
  <div class="page">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!bulk && !problem"
      class="quiet"
      role="status"
    >
      Opening the bulk text…
    </p>
    <template v-if="bulk">
      <header class="head">
        <h1>{{ bulk.name }}</h1>
        <p class="quiet">
          to {{ whom }}.{{ begun ? '' : ' Not sent yet.' }}
          <template v-if="bulk.answersTo">
            It answers those who wrote to <NuxtLink :to="`/bulk/${bulk.answersTo.id}`">{{ bulk.answersTo.name }}</NuxtLink>.
          </template>
          <button
            v-if="!begun && !bulk.answersTo"
            type="button"
            class="plain-button"
            @click="gather"
          >
            Gather more people
          </button>
          <template v-if="bulk.repeats && !begun">
            {{ sayRepeated(bulk.repeats) }}
          </template>
          <button
            v-if="!begun && !removing"
            type="button"
            class="plain-button calm"
            @click="removing = true"
          >
            Remove
          </button>
          <button
            v-if="bulk.mayRepeat && (bulk.state === 'done' || bulk.state === 'stopped')"
            type="button"
            class="plain-button"
            :disabled="busy"
            @click="repeat"
          >
            Repeat it
          </button>
        </p>
        <BulkAudiences
          v-if="!bulk.answersTo && (!begun || bulk.audiences.length > 0)"
          :bulk="bulk"
        />
        <ol class="steps">
          <li
            v-for="one in STEPS"
            :key="one.step"
            :aria-current="one.step === step ? 'step' : undefined"
          >
            {{ one.name }}
          </li>
        </ol>
      </header>
      <RemoveQuestion
        v-if="removing && !begun"
        :busy="busy"
        @remove="remove"
        @keep="removing = false"
      >
        Remove “{{ bulk.name }}”, with what is written and checked in it? Its people stay as they are.
      </RemoveQuestion>
      <BulkWriting
        v-if="step === 'what'"
        :bulk="bulk"
        @written="written"
      />
      <template v-else-if="step === 'check'">
        <p
          v-if="bulk.state === 'checking'"
          class="checking"
          role="status"
        >
          <span class="figures">{{ bulk.checked.toLocaleString('en-US') }} of {{ bulk.people.toLocaleString('en-US') }}</span> checked
          <progress
            :value="bulk.checked"
            :max="bulk.people"
            aria-label="How far the check has come"
          />
          <button
            type="button"
            class="plain-button"
            @click="go('what')"
          >
            Change what it says
          </button>
        </p>
        <div
          v-else
          class="columns"
        >
          <BulkChecked
            :bulk="bulk"
            :busy="busy"
            @see="see"
            @take-out-lately="doing('take-out', { lately: true, out: true })"
            @write="go('what')"
          />
          <BulkPlanned
            :bulk="bulk"
            :changes="changes"
            @started="started"
            @changed="load"
          />
        </div>
      </template>
      <BulkUnderWay
        v-else
        :bulk="bulk"
        :busy="busy"
        @turn="doing('turn', { step: $event })"
        @changed="load"
      />
      <BulkAsked
        v-if="begun && bulk.answered > 0"
        :bulk="bulk"
        :changes="changes"
      />
      <BulkResults
        v-if="begun"
        :bulk="bulk"
        :changes="changes"
      />
      <div ref="list">
        <BulkPeopleList
          v-if="step === 'send' || (step === 'check' && seeing)"
          v-model:which="which"
          :bulk="bulk"
          :changes="changes"
          @changed="load"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; min-width: 0; }
.head .plain-button + .plain-button { margin-left: var(--space-5); }
.head { display: flex; align-items: baseline; gap: var(--space-3) var(--space-6); flex-wrap: wrap; }
.steps { display: flex; gap: var(--space-5); margin-left: auto; padding: 0; list-style: none; font-size: var(--size-small); color: var(--quiet); }
.steps [aria-current] { color: var(--accent); font-weight: 700; }
.columns { display: grid; grid-template-columns: 22rem minmax(0, 1fr); gap: var(--space-9); align-items: start; }
.columns > * + * { border-left: 1px solid var(--rule); padding-left: var(--space-7); min-width: 0; }
progress { accent-color: var(--accent); vertical-align: middle; margin: 0 var(--space-4); width: 20rem; max-width: 60vw; }
@media (max-width: 1000px) { .columns { grid-template-columns: minmax(0, 1fr); } .columns > * + * { border-left: 0; padding-left: 0; } .page { padding-inline: var(--space-5); } .steps { margin-left: 0; } }
</style>
