<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { isMatterModule, MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import type { TimelineEntry } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** What can be done with a text on the timeline: a note on it, a name for it, and showing it on a deal, a job or a case. */
const { entry, record } = defineProps<{ entry: TimelineEntry, record: RecordDetail }>()
const emit = defineEmits<{ 'taken-off': [] }>()

const matters = computed(() => record.related.filter(({ module }) => isMatterModule(module)))
const noting = ref(false)
const words = ref('')
const said = ref('')
const { problem, trying } = useTrying()
const field = useTemplateRef<HTMLInputElement>('field')
let id = uuid()

async function begin(): Promise<void> {
  noting.value = true
  await nextTick()
  field.value?.focus()
}

async function note(): Promise<void> {
  said.value = ''
  if (!(await trying(() => api(`/api/records/${record.id}/notes`, { method: 'POST', body: { id, words: words.value, about: entry.id } }))))
    return
  id = uuid()
  words.value = ''
  noting.value = false
}

const naming = ref(false)
const name = ref('')
const nameField = useTemplateRef<HTMLInputElement>('nameField')

async function beginNaming(): Promise<void> {
  name.value = entry.message?.name ?? entry.message?.template?.name ?? ''
  naming.value = true
  await nextTick()
  nameField.value?.select()
}

async function giveName(): Promise<void> {
  if (await trying(() => api(`/api/entries/${entry.id}/name`, { method: 'PUT', body: { name: name.value } }))) naming.value = false
}

/** What was shown somewhere a moment ago, to be taken back. */
const shown = shallowRef<{ id: string, whole: boolean } | null>(null)

async function takeOff(recordId: string, whole: boolean): Promise<void> {
  if (!(await trying(() => api(`/api/entries/${entry.id}/places/${recordId}`, { method: 'DELETE', query: { whole } })))) return
  said.value = 'It shows there no more.'
  shown.value = null
  emit('taken-off')
}

async function show(event: Event): Promise<void> {
  const choice = event.target as HTMLSelectElement
  const [id, extent] = choice.value.split(' ')
  const matter = matters.value.find(one => one.id === id)
  choice.value = said.value = ''
  const whole = extent === 'whole'
  if (!matter || !(await trying(() => api(`/api/entries/${entry.id}/places`, { method: 'POST', body: { recordId: matter.id, whole } }))))
    return
  shown.value = { id: matter.id, whole }
  said.value = whole ? `The whole conversation shows on ${matter.name} now.` : `It shows on ${matter.name} now.`
}
</script>

<template>
  <div
    class="more small"
    :class="{ open: noting || naming || said || problem }"
  >
    <button
      v-if="record.mayEdit && !noting"
      type="button"
      class="plain-button calm"
      @click="begin"
    >
      Note on it
    </button>
    <form
      v-else-if="noting"
      class="note"
      @submit.prevent="note"
      @keydown.esc.stop="noting = false"
    >
      <label
        class="heard-only"
        :for="`note-on-${entry.id}`"
      >Note on this text</label>
      <input
        :id="`note-on-${entry.id}`"
        ref="field"
        v-model="words"
        class="words"
        placeholder="A note for colleagues on this text"
        autocomplete="off"
      >
      <button
        type="submit"
        class="plain-button"
      >
        Note it
      </button>
    </form>
    <button
      v-if="record.mayEdit && entry.message && !naming"
      type="button"
      class="plain-button calm"
      @click="beginNaming"
    >
      Name it
    </button>
    <form
      v-else-if="naming"
      class="note"
      @submit.prevent="giveName"
      @keydown.esc.stop="naming = false"
    >
      <label
        class="heard-only"
        :for="`name-of-${entry.id}`"
      >Name of this text</label>
      <input
        :id="`name-of-${entry.id}`"
        ref="nameField"
        v-model="name"
        class="words"
        placeholder="A name by which it is found again"
        maxlength="80"
        autocomplete="off"
      >
      <button
        type="submit"
        class="plain-button"
      >
        Name it
      </button>
    </form>
    <button
      v-if="entry.byHand && record.mayEdit"
      type="button"
      class="plain-button calm"
      @click="takeOff(record.id, false)"
    >
      Remove it here
    </button>
    <select
      v-if="matters.length > 0"
      class="matters"
      aria-label="Show it on"
      @change="show"
    >
      <option value="">
        Show it on…
      </option>
      <optgroup
        v-for="one in matters"
        :key="one.id"
        :label="`${MODULE_FACTS[one.module].one}: ${one.name}`"
      >
        <option :value="one.id">
          This text
        </option>
        <option
          v-if="entry.message"
          :value="`${one.id} whole`"
        >
          The whole conversation so far
        </option>
      </optgroup>
    </select>
    <span
      v-if="said"
      role="status"
    >{{ said }} <button
      v-if="shown"
      type="button"
      class="plain-button"
      @click="takeOff(shown.id, shown.whole)"
    >Undo</button></span>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </div>
</template>

<style scoped>
.more { position: absolute; top: 0.1rem; right: 0.6rem; display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-1) var(--space-6); opacity: 0; background: var(--paper); padding-left: var(--space-4); }
:global(.theirs .more) { background: var(--good-ground); }
.more.open { position: static; padding-left: 0; }
.more.open, .more:focus-within, :global(.slip:hover .more) { opacity: 1; }
.note { display: inline-flex; gap: var(--space-4); align-items: baseline; }
.words { border: 0; border-bottom: 1px solid var(--field-rule); background: none; width: 20rem; max-width: 60vw; padding: var(--space-hair) 0; }
.matters { border: 0; background: none; color: var(--quiet); max-width: 10rem; }
@media (hover: none) { .more { opacity: 1; position: static; padding-left: 0; } }
</style>
