<script setup lang="ts">
import type { Whom } from '~~/shared/schemas/list'
import { useGathering } from '~/stores/gathering'
import { many } from '~/words/count'

/** While people are gathered for a bulk text: how many are in it, and the way to put these into it. */
const { whom, which } = defineProps<{ whom: Whom, /** Whom that is, as "the 12 chosen". */ which: string }>()
const gathering = useGathering()
const cameOf = computed(() => {
  if (!gathering.added) return ''
  const { added, again } = gathering.added
  return `${added.toLocaleString('en-US')} added${again > 0 ? `; ${again.toLocaleString('en-US')} ${again === 1 ? 'was' : 'were'} in it already, and ${again === 1 ? 'counts' : 'count'} once` : ''}.`
})
function back(): void {
  const { bulkId, besideId } = gathering.mine!
  gathering.end()
  void navigateTo(`/bulk/${besideId ?? bulkId}?step=what`)
}
</script>

<template>
  <section
    v-if="gathering.mine"
    class="line"
    aria-label="Gathering people"
  >
    <p>
      Gathering for <strong>{{ gathering.mine.name }}</strong>: <span class="figures">{{ many(gathering.mine.people, 'person', 'people') }}</span> so far.
      <span
        class="quiet"
        role="status"
      >{{ cameOf }}</span>
    </p>
    <p class="acts">
      <button
        type="button"
        class="plain-button strong"
        :disabled="gathering.busy"
        @click="gathering.add(whom)"
      >
        Add {{ which }}
      </button>
      <button
        type="button"
        class="plain-button"
        @click="back"
      >
        {{ gathering.mine.besideId ? 'Back to the first audience' : 'That is all, write it' }}
      </button>
      <button
        type="button"
        class="plain-button calm"
        @click="gathering.end()"
      >
        Gather no more
      </button>
    </p>
    <p
      v-if="gathering.problem"
      class="field-error"
      role="alert"
    >
      {{ gathering.problem }}
    </p>
  </section>
</template>

<style scoped>
.line { display: flex; align-items: baseline; flex-wrap: wrap; gap: var(--space-2) var(--space-8); border-left: 3px solid var(--waiting); background: var(--waiting-ground); padding: var(--space-3) var(--space-5); }
.acts { display: flex; gap: var(--space-7); flex-wrap: wrap; }
.strong { font-weight: 700; }
.calm { color: var(--quiet); }
</style>
