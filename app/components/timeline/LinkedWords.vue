<script setup lang="ts">
import { linksIn, mayHaveLinks, type Piece } from '~/words/links'

/** Words of a text; the web addresses in them can be opened, in a page of their own that learns nothing of this one. */
const { words } = defineProps<{ words: string }>()

const pieces = shallowRef<Piece[]>([])
watch(() => words, async (wanted) => {
  pieces.value = [{ words: wanted, href: null }]
  if (!mayHaveLinks(wanted)) return
  const found = await linksIn(wanted).catch(() => null)
  if (found && wanted === words) pieces.value = found
}, { immediate: true })
</script>

<template>
  <template
    v-for="(piece, place) in pieces"
    :key="place"
  >
    <a
      v-if="piece.href"
      :href="piece.href"
      target="_blank"
      rel="noopener noreferrer"
    >{{ piece.words }}</a><template v-else>
      {{ piece.words }}
    </template>
  </template>
</template>
