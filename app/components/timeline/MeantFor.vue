<script setup lang="ts">
import type { RecordDetail } from '~~/shared/record'
import type { TimelineEntry } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** Several people have the number that a text or a call is with: who else, and saying which of them it is from, or for. */
const { entry, record } = defineProps<{ entry: TimelineEntry, record: RecordDetail }>()
const emit = defineEmits<{ changed: [] }>()
const { problem, trying } = useTrying()

const remote = computed(() => entry.message?.remote ?? entry.call?.remote)
const others = computed(() => record.sharing.filter(({ e164, id }) => e164 === remote.value && id !== entry.meantFor?.id))
const hasIt = computed(() => record.phones.some(phone => phone.e164 === remote.value && phone.person === null))
const choices = computed(() => [...entry.meantFor && hasIt.value ? [{ id: record.id, name: record.name }] : [], ...others.value])
const isTheirs = computed(() => entry.kind === 'text-in' || entry.kind === 'call-in')
const names = computed(() => new Intl.ListFormat('en').format(others.value.map(({ name }) => name)))

async function say(recordId: string): Promise<void> {
  if (await trying(() => api(`/api/entries/${entry.id}/meant`, { method: 'POST', body: { recordId } }))) emit('changed')
}
</script>

<template>
  <p
    v-if="choices.length > 0 && record.mayEdit"
    class="meant small"
  >
    <span v-if="entry.meantFor">{{ isTheirs ? 'From' : 'For' }} <NuxtLink
      v-if="entry.meantFor.id"
      :to="`/record/${entry.meantFor.id}`"
    >{{ entry.meantFor.name }}</NuxtLink><template v-else>{{ entry.meantFor.name }}</template>, who has the same number.</span>
    <span v-else>{{ names }} {{ others.length === 1 ? 'has' : 'have' }} this number too.</span>
    <button
      v-for="one in choices"
      :key="one.id"
      type="button"
      class="plain-button"
      @click="say(one.id)"
    >
      It is {{ isTheirs ? 'from' : 'for' }} {{ one.name }}
    </button>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </p>
</template>

<style scoped>
.meant { display: flex; flex-wrap: wrap; align-items: baseline; gap: var(--space-1) var(--space-6); color: var(--waiting); }
</style>
