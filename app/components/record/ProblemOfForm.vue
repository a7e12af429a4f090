<script setup lang="ts">
import type { ApiProblem } from '~/composables/api'

/** Why a form was not taken; where somebody else was quicker, what stands there now beside what was typed. */
const { problem } = defineProps<{ problem: ApiProblem }>()
const differences = computed(() => (problem.details.differences ?? []) as { label: string, theirs: string | null, mine: string | null }[])
</script>

<template>
  <div
    class="notice failed"
    role="alert"
  >
    <p>{{ problem.message }}</p>
    <table
      v-if="differences.length > 0"
      class="differences"
    >
      <thead>
        <tr><th>Field</th><th>There now</th><th>Yours</th></tr>
      </thead>
      <tbody>
        <tr
          v-for="{ label, theirs, mine } in differences"
          :key="label"
        >
          <td>{{ label }}</td><td>{{ theirs ?? 'empty' }}</td><td>{{ mine ?? 'empty' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.differences { margin-top: var(--space-3); border-collapse: collapse; }
.differences th, .differences td { text-align: left; padding: var(--space-hair) var(--space-6) var(--space-hair) 0; font-weight: 400; }
.differences th { color: var(--quiet); font-size: var(--size-small); }
</style>
