<script setup lang="ts">
import { showRef } from '~~/core/message/ref'
import { showPhone } from '~~/core/phone/show'
import type { KeptDraft } from '~~/shared/texting'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useDrafts } from '~/stores/drafts'
import { useShelf } from '~/stores/shelf'
import { ago } from '~/words/time'

/** Everything that I have written and not sent, on whichever machine. */
const drafts = useDrafts()
const shelf = useShelf()
const now = useNow()
const { found: kept, problem, load } = useLoaded(() => drafts.load())

const nameOf = ({ name }: KeptDraft) => name?.startsWith('+') ? showPhone(name) : name ?? 'Somebody whom you may see no more'

function goOn({ key, recordId }: KeptDraft): void {
  if (recordId) void navigateTo(`/record/${recordId}`)
  else if (key.startsWith('conversation ')) shelf.openId = key.slice('conversation '.length)
}

function drop(draft: KeptDraft): void {
  drafts.drop(draft.key)
  kept.value = kept.value!.filter(one => one !== draft)
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Drafts</h1>
      <p class="quiet">
        What you have written and not sent. It waits here and where you wrote it.
      </p>
    </header>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      again="Load them again"
      @again="load"
    />
    <p
      v-else-if="!kept"
      class="quiet"
      role="status"
    >
      Loading your drafts…
    </p>
    <p
      v-else-if="kept.length === 0"
      class="quiet"
    >
      Nothing is begun. What you write on a record and leave there shows here.
    </p>
    <ul v-else>
      <li
        v-for="draft in kept"
        :key="draft.key"
        class="draft"
      >
        <p class="head">
          <strong>{{ nameOf(draft) }}</strong>
          <span class="small quiet figures">{{ draft.key.startsWith('note ') ? 'a note' : `Ref ${showRef(draft.ref)}` }}, {{ ago(draft.at, now) }}</span>
        </p>
        <p class="words">
          {{ draft.text }}
          <span
            v-if="draft.pictureIds.length > 0"
            class="quiet"
          >{{ draft.pictureIds.length === 1 ? 'and a picture' : `and ${draft.pictureIds.length} pictures` }}</span>
        </p>
        <p class="acts">
          <button
            v-if="draft.recordId || draft.key.startsWith('conversation ')"
            type="button"
            class="plain-button"
            :aria-label="`Go on with the draft for ${nameOf(draft)}`"
            @click="goOn(draft)"
          >
            Go on with it
          </button>
          <button
            type="button"
            class="plain-button calm"
            :aria-label="`Throw the draft for ${nameOf(draft)} away`"
            @click="drop(draft)"
          >
            Throw it away
          </button>
        </p>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; max-width: 56rem; }
.draft { border-top: 1px solid var(--rule); padding: var(--space-4) 0; display: grid; gap: var(--space-1); }
.head { display: flex; gap: var(--space-6); align-items: baseline; }
.words { font-size: var(--size-text); white-space: pre-wrap; overflow-wrap: anywhere; }
.acts { display: flex; gap: var(--space-7); }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); } }
</style>
