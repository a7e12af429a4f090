<script setup lang="ts">
import { PhHandFist } from '@phosphor-icons/vue'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { useKnocks } from '~/stores/knocks'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { ACT_WORDS, KNOCK_WORDS, knocker, sayKnock } from '~/words/knocks'

/** For so long it is said who was quicker. */
const SAID_MS = 60_000

/** The last thing that knocks, with what can be done about it, at the end of the shelf; the others are a press away. */
const knocks = useKnocks()
const me = useMe()
const now = useNow()
const newest = computed(() => knocks.newest)
const quicker = computed(() => knocks.all.find(({ state, takenBy, endedAt }) =>
  state === 'taken' && takenBy!.id !== me.me?.id && endedAt! > now.value - SAID_MS))

useKeys([{
  keys: 'Alt+k',
  shown: 'Alt K',
  what: 'Take what knocks',
  act: () => knocks.newest && void knocks.take(knocks.newest),
  inFields: true,
}])
</script>

<template>
  <div
    v-if="knocks.all.length > 0"
    class="knocks"
    :class="{ open: knocks.isOpen }"
  >
    <button
      type="button"
      class="what"
      :class="{ unseen: newest && !newest.seen }"
      :aria-expanded="knocks.isOpen"
      @click="knocks.isOpen = !knocks.isOpen"
    >
      <PhHandFist
        size="18"
        aria-hidden="true"
      />
      <span class="said">
        <template v-if="newest"><strong>{{ many(knocks.open.length, 'knock', 'knocks') }}</strong>&ensp;<bdi>{{ knocker(newest) }}</bdi> <bdi>{{ sayKnock(newest, now) }}</bdi></template>
        <template v-else-if="quicker">{{ quicker.takenBy!.firstName }} took <bdi>{{ knocker(quicker) }}</bdi></template>
        <span
          v-else
          class="quiet"
        >No knocks</span>
      </span>
    </button>
    <p
      class="heard-only"
      role="status"
    >
      <!-- as it was when it came: said once, not anew with every minute -->
      {{ newest && !newest.seen ? `${knocker(newest)} ${sayKnock(newest, newest.at)}` : '' }}
    </p>
    <button
      v-if="newest"
      type="button"
      class="act"
      :aria-label="`${ACT_WORDS[KNOCK_WORDS[newest.kind].act]} ${knocker(newest)}`"
      :disabled="knocks.busy"
      @click="knocks.take(newest)"
    >
      {{ ACT_WORDS[KNOCK_WORDS[newest.kind].act] }} <kbd>Alt K</kbd>
    </button>
    <p
      v-if="knocks.problem && !knocks.isOpen"
      class="problem"
      role="alert"
    >
      {{ knocks.problem }}
      <button
        type="button"
        class="plain-button"
        @click="knocks.problem = ''"
      >
        OK
      </button>
    </p>
    <LazyKnockPanel
      v-if="knocks.isOpen"
      @close="knocks.isOpen = false"
    />
  </div>
</template>

<style scoped>
.knocks { margin-left: auto; display: flex; align-items: stretch; min-width: min(14rem, 100%); flex: 0 1 30rem; justify-content: flex-end; border-left: 1px solid var(--field-rule); border-top: 3px solid transparent; }
.knocks.open { background: var(--surface); border-top-color: var(--accent); }
.what { display: flex; align-items: center; gap: var(--space-3); min-width: 0; padding: 0 var(--space-4); border: 0; background: none; cursor: pointer; text-align: left; }
.what:hover { background: var(--hover); }
.what:focus-visible { outline-offset: -3px; }
.what > svg { flex: none; }
.said { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.unseen .said { font-weight: 700; }
.act { border: 0; background: none; color: var(--accent); font-weight: 700; padding: 0 var(--space-4); white-space: nowrap; cursor: pointer; }
.act:hover { background: var(--hover); }
.problem { position: absolute; top: 100%; right: 1.5rem; max-width: min(40rem, 100vw - 3rem); z-index: 16; background: var(--wrong-ground); border-left: 3px solid var(--wrong); padding: var(--space-3) var(--space-5); display: flex; gap: var(--space-6); }
@media (max-width: 700px) { .knocks { flex: 1 1 100%; border-left: 0; border-top-width: 1px; border-top-color: var(--field-rule); min-height: 41px; } .what { flex: 1; } kbd { display: none; } }
</style>
