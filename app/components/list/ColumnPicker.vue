<script setup lang="ts">
import type { ListColumn } from '~~/shared/list'

/** Which columns a list shows, in which order. The name always stands first: it is the way to the record. */
const { columns } = defineProps<{ columns: ListColumn[] }>()
const shown = defineModel<string[]>({ required: true })

const inOrder = computed(() => [
  ...shown.value.flatMap(key => columns.find(column => column.key === key) ?? []),
  ...columns.filter(column => !shown.value.includes(column.key)),
])

function toggle(key: string): void {
  shown.value = shown.value.includes(key) ? shown.value.filter(one => one !== key) : [...shown.value, key]
}

function move(key: string, by: number): void {
  const next = shown.value.filter(one => one !== key)
  const place = shown.value.indexOf(key) + by
  // nothing goes before the name
  next.splice(Math.max(1, place), 0, key)
  shown.value = next
}
</script>

<template>
  <ol
    class="columns"
    aria-label="Columns of this list"
  >
    <li
      v-for="column in inOrder"
      :key="column.key"
    >
      <label class="column">
        <input
          type="checkbox"
          :checked="shown.includes(column.key)"
          :disabled="column.key === 'name'"
          @change="toggle(column.key)"
        >
        {{ column.label }}
      </label>
      <span
        v-if="shown.includes(column.key) && column.key !== 'name'"
        class="moves"
      >
        <button
          type="button"
          class="move"
          :disabled="shown.indexOf(column.key) === 1"
          :aria-label="`${column.label} further to the left`"
          @click="move(column.key, -1)"
        >↑</button>
        <button
          type="button"
          class="move"
          :disabled="shown.indexOf(column.key) === shown.length - 1"
          :aria-label="`${column.label} further to the right`"
          @click="move(column.key, 1)"
        >↓</button>
      </span>
    </li>
  </ol>
</template>

<style scoped>
.columns { width: 16rem; max-height: 22rem; overflow-y: auto; }
.columns li { display: flex; justify-content: space-between; padding: var(--space-hair) 0; }
.column { display: flex; gap: var(--space-3); align-items: baseline; }
.column input { accent-color: var(--accent); }
.move { border: 0; background: none; padding: 0 var(--space-2); cursor: pointer; color: var(--quiet); }
.move:hover:not(:disabled) { color: var(--accent); }
.move:disabled { opacity: 0.35; cursor: default; }
</style>
