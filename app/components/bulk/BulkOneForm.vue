<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { GAP } from '~~/core/template/fill'
import { measureText } from '~~/core/text/measure'
import type { BulkOne } from '~~/shared/bulk-texts'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'

/** What somebody in a bulk text gets alone: on which of their numbers, in which words. */
const { bulkId, recordId } = defineProps<{ bulkId: string, recordId: string }>()
const emit = defineEmits<{ kept: [], close: [] }>()

const path = `/api/bulk-texts/${bulkId}/people/${recordId}`
const { found: one, problem, load } = useLoaded<BulkOne>(path)
const { errors, saving, save } = useSaving('words')
const phoneId = ref<string | null>(null)
/** What was typed outlives a reload, until it is kept or left. */
const typed = useSessionStorage<string | null>(`plauder-bulk-one-${bulkId}-${recordId}`, null)
const words = computed({ get: () => typed.value ?? one.value?.words ?? '', set: text => typed.value = text })
const field = useTemplateRef<HTMLTextAreaElement>('field')
const usable = computed(() => one.value?.numbers.filter(({ takesTexts }) => takesTexts) ?? [])
const measure = computed(() => measureText(words.value, one.value?.languages ?? []))

watch(one, async (found) => {
  if (!found) return
  phoneId.value = found.phoneId ?? usable.value[0]?.phoneId ?? null
  await nextTick()
  field.value?.focus()
  const gap = words.value.indexOf(GAP)
  if (gap >= 0) field.value?.setSelectionRange(gap, gap + GAP.length)
})

const put = (own: { phoneId: string | null, words: string | null }) => save(async () => {
  await api(path, { method: 'PUT', body: own })
  typed.value = null
  emit('kept')
})
/** What is as with all the others stays so: it follows when they get something else. */
function keep(): Promise<boolean> {
  const { phoneId: number, ownPhone, words: common, ownWords } = one.value!
  const isCommon = words.value === common && !ownWords && !words.value.includes(GAP)
  return put({
    phoneId: phoneId.value === number && !ownPhone ? null : phoneId.value,
    words: isCommon ? null : words.value,
  })
}
function leave(): void {
  typed.value = null
  emit('close')
}
const asAll = () => put({ phoneId: null, words: null })
</script>

<template>
  <LoadProblem
    v-if="problem"
    :problem="problem"
    @again="load"
  />
  <form
    v-else-if="one"
    class="one"
    :aria-label="`What ${one.name} gets alone`"
    novalidate
    @submit.prevent="keep"
    @keydown.esc.stop.prevent="leave"
    @keydown.ctrl.enter.prevent.stop="keep"
  >
    <LabelledField
      id="bulk-one-words"
      v-slot="{ input }"
      :label="`What ${one.name} gets alone`"
      :error="errors.words"
    >
      <textarea
        v-bind="input"
        ref="field"
        v-model="words"
        class="plain-field"
        rows="4"
      />
      <TextRuler
        :text="words"
        :measure="measure"
        :languages="one.languages"
        :price="null"
        @swap="words = $event"
      />
    </LabelledField>
    <LabelledField
      id="bulk-one-number"
      v-slot="{ input }"
      label="On which number"
      :error="errors.phoneId"
    >
      <select
        v-bind="input"
        v-model="phoneId"
        class="plain-field"
        :disabled="usable.length < 2"
      >
        <option
          v-for="number in usable"
          :key="number.phoneId"
          :value="number.phoneId"
        >
          {{ number.label }} {{ number.number }}
        </option>
      </select>
      <p
        v-if="usable.length < 2"
        class="field-hint"
      >
        {{ usable.length === 0 ? 'No number of theirs takes texts. Write one on the record.' : 'They have no other number that takes texts.' }}
      </p>
    </LabelledField>
    <p class="acts">
      <Button
        type="submit"
        size="small"
        label="Keep it"
        :loading="saving"
        :disabled="usable.length === 0"
      />
      <button
        type="button"
        class="plain-button"
        :disabled="saving"
        @click="asAll"
      >
        The same as all the others
      </button>
      <button
        type="button"
        class="plain-button"
        @click="leave"
      >
        Leave it as it was
      </button>
    </p>
  </form>
  <p
    v-else
    class="quiet"
    role="status"
  >
    Opening what they get…
  </p>
</template>

<style scoped>
.one { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 20rem); gap: var(--space-4) var(--space-8); align-items: start; padding: var(--space-3) 0 var(--space-5); max-width: 60rem; }
textarea { resize: vertical; width: 100%; }
.acts { grid-column: 1 / -1; display: flex; gap: var(--space-6); align-items: center; flex-wrap: wrap; }
@media (max-width: 900px) { .one { grid-template-columns: minmax(0, 1fr); } }
</style>
