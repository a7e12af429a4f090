<script setup lang="ts">
/** The twelve keys of a telephone: with * and # for tones, or with + and one that takes back for a number. */
const { of } = defineProps<{ of: 'tones' | 'number' }>()
defineEmits<{ press: [key: string] }>()
const keys = computed(() => ['1', '2', '3', '4', '5', '6', '7', '8', '9', ...of === 'tones' ? ['*', '0', '#'] : ['+', '0', '←']])
const HEARD: Record<string, string> = { '*': 'star', '#': 'hash', '+': 'plus', '←': 'Take the last one back' }
</script>

<template>
  <div class="keys">
    <button
      v-for="key in keys"
      :key="key"
      type="button"
      :aria-label="HEARD[key]"
      @click="$emit('press', key)"
    >
      {{ key }}
    </button>
  </div>
</template>

<style scoped>
.keys { display: grid; grid-template-columns: repeat(3, 2.75rem); border: solid var(--rule); border-width: 1px 0 0 1px; width: max-content; }
.keys button { height: 2.25rem; border: solid var(--rule); border-width: 0 1px 1px 0; background: var(--surface); cursor: pointer; font-family: var(--heading); font-weight: 700; }
.keys button:hover { background: var(--hover); }
.keys button:focus-visible { outline-offset: -3px; }
</style>
