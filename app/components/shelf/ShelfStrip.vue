<script setup lang="ts">
import type { Menu } from '#components'
import { showPhone } from '~~/core/phone/show'
import type { ShelfItem } from '~~/shared/shelf'
import { useNow } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useKnocks } from '~/stores/knocks'
import { useRounds } from '~/stores/rounds'
import { useShelf } from '~/stores/shelf'
import { sayWaits } from '~/words/inbox'

/** How many have room at a glance: those who wait longest, and the one who wrote last. */
const ROOM = 4
/** Beside what knocks. */
const ROOM_BESIDE = 2

const shelf = useShelf()
const calls = useCalls()
const rounds = useRounds()
const knocks = useKnocks()
/** What stands in the way of calling, or of going on with a round. */
const problem = computed(() => (calls.dialling ? '' : calls.problem) || rounds.problem)
function good(): void {
  calls.problem = ''
  rounds.problem = ''
}
const now = useNow()
const room = computed(() => knocks.newest ? ROOM_BESIDE : ROOM)
const shown = computed(() =>
  shelf.shown.length <= room.value ? shelf.shown : [...shelf.shown.slice(0, room.value - 1), shelf.shown.at(-1)!])
const others = computed(() => shelf.shown.filter(item => !shown.value.includes(item)))
/** Those that are on or ring first, then the last that is over, and the last that is done with: it can still be taken back. */
const callsShown = computed(() => {
  const now = [...calls.live, ...calls.ringing]
  const lastDone = calls.calls.find(({ disposition }) => disposition)
  const lastOver = calls.calls.find(call => !call.disposition && calls.stateOf(call) === 'ended')
  const then = calls.calls.filter(
    call =>
      !now.includes(call)
      && (call === lastDone || call === lastOver || call.id === calls.openId || (!call.disposition && calls.stateOf(call) !== 'ended')),
  )
  return [...now, ...then]
})
const otherCalls = computed(() => calls.calls.filter(call => !call.disposition && !callsShown.value.includes(call)))
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu')
const menuItems = computed(() => [
  ...otherCalls.value.map(call => ({
    label: `${nameOf(call)}, the call waits for its disposition`,
    command: () => (calls.openId = call.id),
  })),
  ...others.value.map(item => ({
    label: `${nameOf(item)}, ${sayWaits(item, now.value)}`,
    command: () => (shelf.openId = item.conversationId),
  })),
])
const nameOf = (item: Pick<ShelfItem, 'record' | 'remote'>) => item.record?.name ?? showPhone(item.remote)

function toggle(id: string): void {
  shelf.openId = shelf.openId === id ? null : id
}
</script>

<template>
  <section
    class="strip"
    aria-label="Shelf"
  >
    <LazyRoundItem
      v-if="rounds.mine"
      :round="rounds.mine"
    />
    <DialSoon
      v-if="calls.soon"
      :name="calls.soon.asked.name"
    />
    <LazyCallItem
      v-for="call in callsShown"
      :key="call.id"
      :call="call"
    />
    <p
      v-if="shelf.failed"
      class="none"
    >
      The shelf could not be loaded. <button
        type="button"
        class="plain-button"
        @click="shelf.load()"
      >
        Try again
      </button>
    </p>
    <p
      v-else-if="shown.length === 0 && calls.calls.length === 0 && !rounds.mine && !calls.soon"
      class="none quiet"
    >
      Who writes to you waits here, until you answer.
    </p>
    <ul
      v-else-if="shown.length > 0"
      class="items"
      aria-live="polite"
    >
      <li
        v-for="item in shown"
        :key="item.conversationId"
      >
        <button
          type="button"
          class="item"
          :class="{ open: shelf.openId === item.conversationId }"
          :aria-expanded="shelf.openId === item.conversationId"
          @click="toggle(item.conversationId)"
        >
          <span
            class="ring"
            aria-hidden="true"
          />
          <span class="who"><strong>{{ nameOf(item) }}</strong>&ensp;<span class="waits">{{ sayWaits(item, now) }}</span></span>
        </button>
      </li>
    </ul>
    <template v-if="menuItems.length > 0">
      <button
        type="button"
        class="item more"
        aria-haspopup="menu"
        @click="menu?.toggle($event)"
      >
        and {{ menuItems.length }} more
      </button>
      <Menu
        ref="menu"
        :model="menuItems"
        popup
      />
    </template>
    <KnockItem />
    <LazyCallPanel
      v-if="calls.opened"
      :key="calls.opened.id"
      :call="calls.opened"
      @close="calls.openId = null"
    />
    <p
      v-if="problem"
      class="call-problem"
      role="alert"
    >
      {{ problem }}
      <button
        type="button"
        class="plain-button"
        @click="good"
      >
        OK
      </button>
    </p>
    <LazyConversationPanel
      v-if="shelf.openId"
      :key="shelf.openId"
      :conversation-id="shelf.openId"
      :position="Math.max(0, shown.findIndex(item => item.conversationId === shelf.openId))"
      @close="shelf.openId = null"
    />
  </section>
</template>

<style scoped>
.strip { position: relative; z-index: 15; display: flex; align-items: stretch; min-height: 42px; background: var(--strip); border-bottom: 1px solid var(--field-rule); }
.items { display: flex; min-width: 0; overflow-x: auto; }
.items li { min-width: 9rem; }
.items .item { width: 100%; }
.items .who { overflow: hidden; text-overflow: ellipsis; }
.none { padding: var(--space-4) var(--space-8); }
.item { display: flex; align-items: center; gap: var(--space-3); height: 41px; padding: 0 var(--space-6); border: 0; border-right: 1px solid var(--field-rule); background: none; cursor: pointer; white-space: nowrap; border-top: 3px solid transparent; }
.item:hover { background: var(--hover); }
.item.open { background: var(--surface); border-top-color: var(--accent); }
.item:focus-visible { outline-offset: -3px; }
.ring { flex: none; width: 10px; height: 10px; border-radius: 50%; border: 2.5px solid var(--accent); }
.waits { color: var(--waiting); }
.call-problem { position: absolute; top: 100%; right: 1.5rem; max-width: min(40rem, 100vw - 3rem); z-index: 16; background: var(--wrong-ground); border-left: 3px solid var(--wrong); padding: var(--space-3) var(--space-5); display: flex; gap: var(--space-6); }
.more { color: var(--quiet); border-right: 0; }
@media (max-width: 700px) { .strip { flex-wrap: wrap; } .none { padding: var(--space-4) var(--space-5); } }
</style>
