<script setup lang="ts">
import type { CallDetail, TransferTo } from '~~/shared/calling'
import { useLoaded } from '~/composables/loaded'
import { useCalls } from '~/stores/calls'

/** To which colleague a call goes, at once or after a word. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const who = computed(() => call.record?.firstName ?? 'whoever is on the line')
const list = useTemplateRef<HTMLElement>('list')
const {
  found: all,
  problem,
  load,
} = useLoaded<TransferTo[]>(
  `/api/calls/${call.id}/transfer/colleagues`,
  () => void nextTick(() => list.value?.querySelector('button')?.focus()),
)
</script>

<template>
  <section aria-label="Transfer the call">
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!all"
      class="quiet"
      role="status"
    >
      Looking who answers this line…
    </p>
    <p
      v-else-if="all.length === 0"
      class="quiet"
    >
      Nobody else answers {{ call.line.name }}. Note what is wanted, and call {{ who }} back.
    </p>
    <ul
      v-else
      ref="list"
    >
      <li
        v-for="one in all"
        :key="one.id"
        class="row"
      >
        <span><strong>{{ one.name }}</strong> <span class="quiet">{{ one.title }}{{ one.busy ? ', on a call' : '' }}</span></span>
        <button
          type="button"
          class="plain-button"
          :disabled="one.busy !== null || calls.busy"
          :aria-label="`Have a word with ${one.name} first`"
          @click="calls.transfer(call, one.id, 'attended')"
        >
          A word first
        </button>
        <button
          type="button"
          class="plain-button"
          :disabled="one.busy !== null || calls.busy"
          :aria-label="`Hand it to ${one.name} straight`"
          @click="calls.transfer(call, one.id, 'blind')"
        >
          Straight
        </button>
      </li>
    </ul>
    <p class="quiet small">
      {{ who }} waits on hold meanwhile, and comes back to you if nobody takes it.
    </p>
  </section>
</template>

<style scoped>
.row { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: var(--space-6); align-items: baseline; border-top: 1px solid var(--rule); padding: var(--space-2) 0; }
.plain-button:disabled { color: var(--quiet); cursor: default; }
</style>
