<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { Module } from '~~/shared/modules'
import type { BoardCard, BoardStage } from '~~/shared/pipelines'
import type { Selection } from '~~/shared/schemas/list'
import type { ShownBoard } from '~/composables/board'

/** A pipeline, and beside it whoever is peeked at or texted. */
const { shown } = defineProps<{ shown: ShownBoard }>()
const peeked = shallowRef<{ id: string, texting: boolean } | null>(null)
const peek = (card: BoardCard, texting: boolean) =>
  (peeked.value = peeked.value?.id === card.id && !texting ? null : { id: card.id, texting })

/** Of whom a round is being made: those of a stage that are shown, or the people on them. */
const whose = computed<Module>(() => {
  const holds = shown.board.value!.pipeline.holds
  return holds === 'applicant' ? 'candidate' : holds
})
const calling = shallowRef<Selection | null>(null)
const call = ({ cards }: BoardStage) => calling.value = {
  list: { module: whose.value, words: '', where: '', sort: 'last-contact', direction: 'down' },
  ids: cards.map(({ id }) => id),
  importId: null,
}
</script>

<template>
  <div :class="{ beside: peeked }">
    <PipelineBoard
      :shown="shown"
      :peeked="peeked?.id"
      @peek="peek"
      @call="call"
    />
    <LazyRoundForm
      v-if="calling"
      :whom="{ selection: calling, groupId: null }"
      :called="MODULE_FACTS[calling.list.module].many"
      @close="calling = null"
    />
    <PeekSheet
      v-if="peeked"
      :key="`${peeked.id} ${peeked.texting}`"
      class="peek"
      :record-id="peeked.id"
      :texting="peeked.texting"
      @close="peeked = null"
    />
  </div>
</template>

<style scoped>
.beside { display: grid; grid-template-columns: minmax(0, 1fr) 22rem; gap: var(--space-7); align-items: start; }
.peek { position: sticky; top: 1rem; max-height: calc(100vh - 7rem); overflow-y: auto; }
@media (max-width: 900px) { .beside { grid-template-columns: minmax(0, 1fr); } }
</style>
