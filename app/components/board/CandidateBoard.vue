<script setup lang="ts">
import type { BoardCard } from '~~/shared/pipelines'
import { useBoard } from '~/composables/board'

/** The candidates of a job in its pipeline, on the job's own page. */
const { jobId } = defineProps<{ jobId: string }>()
const shown = useBoard(() => ({ url: `/api/records/${jobId}/board`, query: {} }), card => `/api/records/${jobId}/people/${card.id}/stage`)
const peeked = shallowRef<{ id: string, texting: boolean } | null>(null)
const peek = (card: BoardCard, texting: boolean) => peeked.value = peeked.value?.id === card.id && !texting ? null : { id: card.id, texting }
defineExpose({ load: shown.load })
</script>

<template>
  <div
    class="candidates"
    :class="{ beside: peeked }"
  >
    <PipelineBoard
      :shown="shown"
      :peeked="peeked?.id"
      @peek="peek"
    />
    <PeekSheet
      v-if="peeked"
      :key="`${peeked.id} ${peeked.texting}`"
      :record-id="peeked.id"
      :texting="peeked.texting"
      @close="peeked = null"
    />
  </div>
</template>

<style scoped>
.beside { display: grid; grid-template-columns: minmax(0, 1fr) 22rem; gap: 1.25rem; align-items: start; }
@media (max-width: 900px) { .beside { grid-template-columns: minmax(0, 1fr); } }
</style>
