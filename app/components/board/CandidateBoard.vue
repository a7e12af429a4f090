<script setup lang="ts">
import { useBoard } from '~/composables/board'

/** The candidates of a job in its pipeline, on the job's own page. */
const { jobId } = defineProps<{ jobId: string }>()
const shown = useBoard(() => ({ url: `/api/records/${jobId}/board`, query: {} }), card => `/api/records/${jobId}/people/${card.id}/stage`)
defineExpose({ load: shown.load })
</script>

<template>
  <BoardBeside :shown="shown" />
</template>
