<script setup lang="ts">
import { toPieces } from '~~/core/template/pieces'
import { sayField } from '~/words/template'

/** A template as it reads, its fields as pills. */
const { source } = defineProps<{ source: string }>()
const pieces = computed(() => toPieces(source))
</script>

<template>
  <span class="template-words"><template
    v-for="(piece, place) in pieces"
    :key="place"
  ><span
    v-if="piece.kind !== 'words'"
    class="pill"
    :class="{ code: piece.kind === 'liquid' }"
  >{{ piece.kind === 'field' ? sayField(piece.path) : piece.source }}</span><template v-else>{{ piece.words }}</template></template></span>
</template>

<style scoped>
.template-words { white-space: pre-wrap; overflow-wrap: anywhere; }
.pill { background: var(--accent-ground); color: var(--accent); border-radius: var(--round-small); padding: var(--space-hair) var(--space-2); white-space: nowrap; }
.code { background: var(--hover); color: var(--quiet); font-size: var(--size-small); }
</style>
