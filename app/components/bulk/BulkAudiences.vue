<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { MODULE_FACTS } from '~~/shared/modules'
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import { useGathering } from '~/stores/gathering'
import { BULK_WORDS } from '~/words/bulk'

/** The audiences of one occasion, each with its own wording, and the way to one more. */
const { bulk } = defineProps<{ bulk: BulkTextDetail }>()
const gathering = useGathering()

function another(): void {
  gathering.begin({ bulkId: uuid(), name: `${bulk.occasion || bulk.name}: another audience`, people: 0, besideId: bulk.id })
  void navigateTo(`/records/${MODULE_FACTS[bulk.modules[0]!].slug}`)
}
</script>

<template>
  <nav
    class="audiences"
    :class="{ several: bulk.audiences.length > 0 }"
    aria-label="Audiences"
  >
    <NuxtLink
      v-for="one in bulk.audiences"
      :key="one.id"
      :to="`/bulk/${one.id}`"
      :aria-current="one.id === bulk.id ? 'page' : undefined"
    >
      {{ one.name }} <span class="quiet small">{{ BULK_WORDS[one.state] }}</span>
    </NuxtLink>
    <button
      type="button"
      class="plain-button"
      title="The same occasion in other words, for other people; whoever is in both gets one text."
      @click="another"
    >
      Another audience
    </button>
  </nav>
</template>

<style scoped>
.audiences { display: flex; align-items: baseline; gap: var(--space-2) var(--space-7); flex-wrap: wrap; }
.several { width: 100%; order: 1; }
[aria-current] { font-weight: 700; color: var(--ink); text-decoration: none; }
</style>
