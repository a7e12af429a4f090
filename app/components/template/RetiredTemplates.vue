<script setup lang="ts">
import type { RetiredTemplate } from '~~/shared/template'

/** Templates that nobody is offered any more, and bringing one back. */
defineProps<{ retired: RetiredTemplate[] }>()
const emit = defineEmits<{ restore: [one: RetiredTemplate] }>()
</script>

<template>
  <section class="retired">
    <h2 class="small quiet">
      Retired
    </h2>
    <p
      v-if="retired.length === 0"
      class="quiet small"
    >
      None that you could bring back.
    </p>
    <ul>
      <li
        v-for="one in retired"
        :key="one.id"
      >
        {{ one.name }}
        <button
          type="button"
          class="plain-button small"
          :aria-label="`Bring ${one.name} back`"
          @click="emit('restore', one)"
        >
          Bring back
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.retired { padding-bottom: var(--space-4); }
h2 { font-family: var(--reading); font-weight: 400; padding-bottom: var(--space-hair); }
li { display: flex; justify-content: space-between; border-top: 1px solid var(--rule); padding: var(--space-2) var(--space-3) var(--space-2) 0; }
</style>
