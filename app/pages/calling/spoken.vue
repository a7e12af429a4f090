<script setup lang="ts">
import type { SpokenMessage } from '~~/shared/calling'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useSetUpList } from '~/composables/set-up-list'

const { list: all, problem, trying, load } = useSetUpList<SpokenMessage>(() => ({ path: '/api/spoken' }))
/** One, a new one, or none. */
const editing = shallowRef<SpokenMessage | 'new' | null>(null)

function saved(now: SpokenMessage[]): void {
  all.value = now
  editing.value = null
}
const retire = ({ id }: SpokenMessage) => trying(() => api<SpokenMessage[]>(`/api/spoken/${id}`, { method: 'DELETE' }))

useKeys([{ keys: 'c', shown: 'C', what: 'Record a new message', act: () => editing.value = 'new' }])
</script>

<template>
  <div class="page">
    <CallingNav />
    <header class="head">
      <h1>Recorded messages</h1>
      <p class="quiet">
        Said once, and left on the mailboxes of those who are not there, while you go on.
      </p>
      <button
        type="button"
        class="plain-button make"
        @click="editing = 'new'"
      >
        Record a message <kbd>C</kbd>
      </button>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!all && !problem"
      class="quiet"
      role="status"
    >
      Loading the spoken messages…
    </p>
    <p
      v-else-if="all?.length === 0"
      class="quiet"
    >
      There are none yet. A good first one says who you are, why you called, and that a text follows.
    </p>
    <ul v-else-if="all">
      <li
        v-for="one in all"
        :key="one.id"
        class="one"
      >
        <span>
          <strong>{{ one.name }}</strong>
          <span class="quiet small block">{{ one.team ? `${one.team.name}, spoken by ${one.owner.firstName}` : `${one.owner.firstName} alone` }}</span>
        </span>
        <p class="words">
          {{ one.words }}
        </p>
        <PlayButton
          :src="`/api/spoken/${one.id}/sound`"
          :what="one.name"
          :ms="one.ms"
        />
        <span class="ways">
          <template v-if="one.mayEdit">
            <button
              type="button"
              class="plain-button"
              :aria-label="`Change ${one.name}`"
              @click="editing = one"
            >Change</button>
            <button
              type="button"
              class="plain-button calm"
              :aria-label="`Remove ${one.name}`"
              @click="retire(one)"
            >Remove</button>
          </template>
        </span>
      </li>
    </ul>
    <LazySpokenEditor
      v-if="editing"
      :key="editing === 'new' ? 'new' : editing.id"
      :spoken="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-6); align-content: start; max-width: 72rem; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
.make { margin-left: auto; }
.one { display: grid; grid-template-columns: 14rem minmax(0, 1fr) 4.5rem 10rem; gap: var(--space-7); align-items: baseline; border-top: 1px solid var(--rule); padding: var(--space-4) 0; }
.block { display: block; }
.words { border-left: 3px solid var(--calm); padding-left: var(--space-5); }
.ways { display: flex; gap: var(--space-6); justify-content: flex-end; }
@media (max-width: 900px) { .page { padding-inline: var(--space-5); } .one { grid-template-columns: minmax(0, 1fr); gap: var(--space-2); } .ways { justify-content: flex-start; } }
</style>
