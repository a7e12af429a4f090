<script setup lang="ts">
import { PhPhone, PhPhoneCall, PhPhoneDisconnect, PhPhoneIncoming } from '@phosphor-icons/vue'
import { isOff, isOn } from '~~/core/call/facts'
import { showPhone } from '~~/core/phone/show'
import type { CallDetail } from '~~/shared/calling'
import { useSeconds } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { sayCall, sayTransfer } from '~/words/calls'
import { ago } from '~/words/time'

/** A call on the shelf: who, how it stands, and what can be done with it at once. */
const { call } = defineProps<{ call: CallDetail }>()
const calls = useCalls()
const seconds = useSeconds()
/** By the clock of the server, which counts. */
const now = computed(() => seconds.value + calls.skew)
const state = computed(() => calls.stateOf(call))
const rings = computed(() => calls.rings(call))
const talking = computed(() => state.value === 'talking' || state.value === 'held')
const off = computed(() => isOff(state.value))
const name = computed(() => call.record?.name ?? showPhone(call.remote))
const icon = computed(() =>
  rings.value ? PhPhoneIncoming : state.value === 'ended' ? PhPhoneDisconnect : state.value === 'talking' ? PhPhoneCall : PhPhone,
)
const how = computed(() => {
  if (call.transfer) return sayTransfer(call.transfer, name.value)
  if (state.value !== 'ended') return sayCall(call.facts, call.direction, now.value)
  if (call.disposition) return call.disposition.name
  return 'ended, waits for its disposition'
})
const muted = computed(() => isOn(call.facts, 'mute'))
const recorded = computed(() => isOn(call.facts, 'record'))
/** Of two that ring each has its own key. */
const key = computed(() => ['Alt A', 'Alt Shift A'][calls.ringing.indexOf(call)])
/** The colleagues are chosen from in the panel. */
async function handOn(): Promise<void> {
  calls.openId = call.id
  await nextTick()
  calls.way = 'transfer'
}
const toggle = () => calls.openId = calls.openId === call.id ? null : call.id
</script>

<template>
  <div
    class="call"
    :class="{ open: calls.openId === call.id, rings }"
  >
    <button
      type="button"
      class="who"
      :aria-expanded="calls.openId === call.id"
      @click="toggle"
    >
      <component
        :is="icon"
        size="18"
        aria-hidden="true"
      />
      <span class="what"><strong>{{ name }}</strong>&ensp;<span class="figures">{{ how }}{{ muted && state !== 'ended' ? ', muted' : '' }}</span><span
        v-if="rings && call.lastSaid"
        class="said small"
      >{{ call.lastSaid.ours ? 'We' : 'They' }}, {{ ago(call.lastSaid.at, now) }}: <bdi>{{ call.lastSaid.words }}</bdi></span></span>
    </button>
    <template v-if="rings">
      <button
        type="button"
        class="act take"
        @click="calls.answer(call)"
      >
        {{ call.transfer ? 'Take it' : 'Answer' }} <kbd v-if="key">{{ key }}</kbd>
      </button>
      <button
        v-if="call.transfer"
        type="button"
        class="act"
        @click="calls.stepTransfer(call, 'refuse')"
      >
        Not now
      </button>
      <template v-else>
        <button
          type="button"
          class="act"
          @click="calls.order(call, 'decline')"
        >
          Decline
        </button>
        <button
          type="button"
          class="act"
          @click="calls.declineWithText(call)"
        >
          Decline with a text
        </button>
      </template>
    </template>
    <template v-else-if="call.transfer && !off">
      <button
        v-if="call.transfer.toMe"
        type="button"
        class="act"
        @click="calls.stepTransfer(call, 'refuse')"
      >
        Not now
      </button>
      <template v-else>
        <button
          v-if="call.transfer.state === 'together'"
          type="button"
          class="act take"
          @click="calls.stepTransfer(call, 'give')"
        >
          Hand it to {{ call.transfer.to.firstName }}
        </button>
        <button
          type="button"
          class="act"
          @click="calls.stepTransfer(call, 'take-back')"
        >
          Back to {{ call.record?.firstName ?? 'the call' }}
        </button>
      </template>
    </template>
    <template v-else-if="call.mine && state !== 'ended'">
      <template v-if="talking">
        <button
          type="button"
          class="act"
          :aria-pressed="muted"
          @click="calls.order(call, muted ? 'unmute' : 'mute')"
        >
          {{ muted ? 'Unmute' : 'Mute' }}
        </button>
        <button
          type="button"
          class="act"
          :aria-pressed="state === 'held'"
          @click="calls.order(call, state === 'held' ? 'resume' : 'hold')"
        >
          {{ state === 'held' ? 'Go on' : 'Hold' }}
        </button>
        <button
          type="button"
          class="act"
          :aria-pressed="recorded"
          @click="calls.order(call, recorded ? 'stop-recording' : 'record')"
        >
          {{ recorded ? 'Stop recording' : 'Record' }}
        </button>
        <button
          type="button"
          class="act"
          @click="handOn"
        >
          Transfer
        </button>
      </template>
      <button
        type="button"
        class="act end"
        @click="calls.order(call, 'hang-up')"
      >
        End
      </button>
    </template>
    <button
      v-else-if="call.disposition"
      type="button"
      class="act"
      :aria-label="`Take “${call.disposition.name}” of ${name} back`"
      @click="calls.takeBack(call)"
    >
      Take back
    </button>
  </div>
</template>

<style scoped>
.call { display: flex; align-items: stretch; height: 41px; border-right: 1px solid var(--field-rule); border-top: 3px solid transparent; background: var(--calm-ground); color: var(--calm); white-space: nowrap; }
.call.open { border-top-color: var(--calm); background: var(--surface); }
.call.rings { background: var(--good-ground); color: var(--good); }
.who, .act { border: 0; background: none; cursor: pointer; color: inherit; }
.who { display: flex; align-items: center; gap: var(--space-3); padding: 0 var(--space-5) 0 var(--space-6); }
.what { min-width: 0; text-align: left; line-height: 1.2; }
.said { display: block; max-width: 22rem; overflow: hidden; text-overflow: ellipsis; color: var(--ink); }
.who strong { color: var(--ink); }
.act { padding: 0 var(--space-4); font-weight: 700; }
.act:last-child { padding-right: var(--space-6); }
.act:hover { background: var(--hover); }
.act[aria-pressed='true'] { color: var(--waiting); }
.end { color: var(--wrong); }
.take { color: var(--good); }
@media (max-width: 700px) { .call { flex: 1 1 100%; min-width: 0; border-right: 0; } .who { flex: 1; min-width: 0; overflow: hidden; } }
.who:focus-visible, .act:focus-visible { outline-offset: -3px; }
</style>
