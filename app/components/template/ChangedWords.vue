<script setup lang="ts">
import type { Change } from '~~/core/text/changes'

/** A wording with what was put in and what was taken out. */
const { changes } = defineProps<{ changes: Change[] }>()
</script>

<template>
  <template
    v-for="(change, i) in changes"
    :key="i"
  >
    <ins v-if="change.kind === 'in'">{{ change.words }}</ins><del v-else-if="change.kind === 'out'">{{ change.words }}</del><template v-else>{{ change.words }}</template>
  </template>
</template>

<style scoped>
ins { background: var(--good-ground); color: var(--good); text-decoration: underline; }
del { color: var(--wrong); text-decoration: line-through; }
</style>
