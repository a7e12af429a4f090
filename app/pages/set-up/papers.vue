<script setup lang="ts">
import type { PapersFront } from '~~/shared/papers'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { onlyWith } from '~/composables/set-up-list'
import { alikeWords } from '~/words/papers'

definePageMeta({ middleware: () => onlyWith('carrier.edit') })

const { found: front, problem, load } = useLoaded<PapersFront>('/api/set-up/papers')
// a carrier has said something of them
useLive(({ kind }) => {
  if (kind === 'papers') void load()
}, () => void load())
</script>

<template>
  <SetUpRoom
    title="Papers"
    hint="What carriers ask before they let your texts through. Written once, handed in to each; meanwhile all else goes on."
    what="the papers"
    :loaded="front !== null"
    :problem="problem"
    @again="load"
  >
    <template v-if="front">
      <PapersHalves
        :front="front"
        @changed="front = $event"
      />
      <PapersWritten
        :front="front"
        @changed="front = $event"
      />
      <section v-if="front.drifting.length > 0">
        <h2>Templates unlike any sample</h2>
        <p class="quiet small">
          A carrier that sees such a text may stop it and ask. Hand in a sample of its kind, or word it closer to one.
        </p>
        <ul>
          <li
            v-for="one in front.drifting"
            :key="one.id"
            class="drift"
          >
            <NuxtLink :to="`/templates?id=${one.id}`">{{ one.name }}</NuxtLink>
            <span class="quiet small">nearest, {{ alikeWords(one.likeness) }}: “{{ one.nearest }}”</span>
          </li>
        </ul>
      </section>
    </template>
  </SetUpRoom>
</template>

<style scoped>
section { max-width: 68rem; }
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.drift { display: grid; grid-template-columns: minmax(0, 16rem) minmax(0, 1fr); gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; }
@media (max-width: 700px) { .drift { grid-template-columns: minmax(0, 1fr); } }
</style>
