<script setup lang="ts">
const { stages, stage } = defineProps<{ stages: string[], stage: string | null }>()
</script>

<template>
  <ol
    v-if="stages.length > 0"
    class="stages"
    aria-label="Stage"
  >
    <li
      v-for="one in stages"
      :key="one"
      :class="{ here: one === stage }"
      :aria-current="one === stage ? 'step' : undefined"
    >
      {{ one }}
    </li>
  </ol>
</template>

<style scoped>
.stages { display: flex; flex-wrap: wrap; font-size: var(--size-small); color: var(--quiet); }
.stages li + li::before { content: ''; display: inline-block; width: 1rem; height: 1px; background: var(--field-rule); margin: 0 0.2rem; vertical-align: middle; }
.here { color: var(--mulberry); font-weight: 700; }
</style>
