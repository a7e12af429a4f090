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
.differences { margin-top: 0.5rem; border-collapse: collapse; }
.differences th, .differences td { text-align: left; padding: 0.15rem 1rem 0.15rem 0; font-weight: 400; }
.differences th { color: var(--quiet); font-size: var(--size-small); }
</style>
