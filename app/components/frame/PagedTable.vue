<script setup lang="ts">
/** A long table by pages, with what stands in its place while it loads, where it could not be, and where it is empty. Its rows are the slot. */
const { problem, loading, found, none, heads, pages, fixed = false } = defineProps<{
  problem: string
  /** What is said while it is loading. */
  loading: string
  /** How many rows this page has; null until it is there. */
  found: number | null
  /** What is said of none. */
  none: string
  /** What each column is, for whoever does not see them side by side. */
  heads: string[]
  pages: number
  /** Its columns are as wide as its `col`s say. */
  fixed?: boolean
}>()
const page = defineModel<number>({ required: true })
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <LoadProblem
    v-if="problem"
    :problem="problem"
    again="Load them again"
    @again="emit('again')"
  />
  <p
    v-else-if="found === null"
    class="quiet"
    role="status"
  >
    {{ loading }}
  </p>
  <p
    v-else-if="found === 0"
    class="quiet"
  >
    {{ none }}
  </p>
  <table
    v-else
    :class="{ fixed }"
  >
    <slot name="cols" />
    <thead class="heard-only">
      <tr>
        <th
          v-for="head in heads"
          :key="head"
          scope="col"
        >
          {{ head }}
        </th>
      </tr>
    </thead>
    <tbody><slot /></tbody>
  </table>
  <PageTurner
    v-model="page"
    :pages="pages"
  />
</template>

<style scoped>
table { width: 100%; border-collapse: collapse; }
.fixed { table-layout: fixed; }
</style>
