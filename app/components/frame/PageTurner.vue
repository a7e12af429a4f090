<script setup lang="ts">
/** Earlier and further pages of a long list; nothing where there is one page. */
const { pages } = defineProps<{ pages: number }>()
const page = defineModel<number>({ required: true })
</script>

<template>
  <nav
    v-if="pages > 1"
    class="pages"
    aria-label="Pages"
  >
    <button
      type="button"
      class="plain-button"
      :disabled="page === 1"
      @click="page--"
    >
      Earlier
    </button>
    <span class="quiet figures">page {{ page.toLocaleString('en-US') }} of {{ pages.toLocaleString('en-US') }}</span>
    <button
      type="button"
      class="plain-button"
      :disabled="page >= pages"
      @click="page++"
    >
      Further
    </button>
  </nav>
</template>

<style scoped>
.pages { display: flex; align-items: center; gap: var(--space-5); padding-top: var(--space-5); }
</style>
