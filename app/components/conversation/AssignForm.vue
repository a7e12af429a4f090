<script setup lang="ts">
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

/** Assigns a conversation to a colleague who answers its line, with a note that stands on the timeline. */
const { conversationId, assigneeId } = defineProps<{ conversationId: string, assigneeId: string | null }>()
const emit = defineEmits<{ done: [], close: [] }>()

const me = useMe()
const { found: all, problem: notLoaded, load } = useLoaded<{ id: string, name: string, title: string }[]>(`/api/conversations/${conversationId}/colleagues`)
const choices = computed(() => (all.value ?? []).filter(({ id }) => id !== assigneeId)
  .map(({ id, name, title }) => ({ id, label: id === me.me!.id ? 'Me' : `${name}, ${title}` })))
const { problem, busy, trying } = useTrying()
const colleagueId = ref<string | null>(null)
const why = ref('')
const formId = useId()

async function assign(id: string | null): Promise<void> {
  const body = { colleagueId: id, why: why.value }
  if (await trying(() => api(`/api/conversations/${conversationId}/assign`, { method: 'POST', body }))) emit('done')
}
const form = useTemplateRef<HTMLFormElement>('form')
watch(all, () => void nextTick(() => form.value?.querySelector<HTMLElement>('select')?.focus()))
</script>

<template>
  <form
    ref="form"
    class="assign"
    aria-label="Assign the conversation"
    @submit.prevent="colleagueId && assign(colleagueId)"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <LoadProblem
      v-if="notLoaded"
      :problem="notLoaded"
      again="Load them again"
      @again="load"
    />
    <label :for="`${formId}-to`">To</label>
    <select
      :id="`${formId}-to`"
      v-model="colleagueId"
      class="plain-field"
      required
    >
      <option
        v-for="{ id, label } in choices"
        :key="id"
        :value="id"
      >
        {{ label }}
      </option>
    </select>
    <label class="why">Note <input
      v-model="why"
      class="plain-field"
      maxlength="300"
      placeholder="knows these bikes better"
    ></label>
    <Button
      type="submit"
      size="small"
      label="Assign"
      :disabled="!colleagueId"
      :loading="busy"
    />
    <button
      v-if="assigneeId"
      type="button"
      class="plain-button"
      :disabled="busy"
      @click="assign(null)"
    >
      To nobody in particular
    </button>
    <button
      type="button"
      class="plain-button calm"
      @click="emit('close')"
    >
      Cancel
    </button>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </form>
</template>

<style scoped>
.assign { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-6); align-items: center; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
.assign label { display: inline-flex; gap: var(--space-3); align-items: center; }
.why { flex: 1; min-width: 14rem; }
.why input { flex: 1; }
.field-error { flex-basis: 100%; }
</style>
