<script setup lang="ts">
import { MAY_BE_LET_GO, type HoldReason } from '~~/core/message/hold'
import { explain, STATE_WORDS } from '~~/core/message/words'
import { sayMoney } from '~~/core/numbers/money'
import { showRef } from '~~/core/message/ref'
import { showPhone } from '~~/core/phone/show'
import type { MessageState } from '~~/core/message/states'
import type { TimelineEntry } from '~~/shared/timeline'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { sayMoment } from '~/words/moments'
import { clock, clockToSecond } from '~/words/time'

/** A text as a slip of paper: ours begins at a rule, theirs is set in on a ground. */
const { entry, person, compact = false } = defineProps<{ entry: TimelineEntry, person: string, compact?: boolean }>()
const emit = defineEmits<{ changed: [], again: [text: string] }>()

const me = useMe()
const now = useNow()
const { problem, trying } = useTrying()
const zone = computed(() => me.me!.zone)
const message = computed(() => entry.message!)
const showsHistory = ref(false)
const ours = computed(() => message.value.direction === 'out')
const why = computed(() => ours.value ? explain(message.value.state as MessageState, message.value.code) : null)
const failed = computed(() => ['failed', 'undelivered', 'held', 'not-known', 'unreported'].includes(message.value.state))
const mine = computed(() => message.value.authorId === me.me?.id)
const held = computed(() => message.value.state === 'held' && MAY_BE_LET_GO.includes(message.value.code as HoldReason))
const recallable = computed(
  () => mine.value && (message.value.state === 'held' || (message.value.state === 'waiting' && message.value.leavesAt > now.value)),
)

const state = computed(() => {
  if (message.value.state === 'waiting' && message.value.later) return `Leaves at ${sayMoment(message.value.later)}`
  const words = STATE_WORDS[message.value.state as MessageState]
  const at = message.value.settledAt ?? message.value.handedAt
  return at && message.value.state !== 'taken-back' ? `${words} ${clock(at, zone.value)}` : words
})
/** What happened to it, each with its time to the second. */
const history = computed(() => {
  const { madeAt, acceptedAt, handedAt, settledAt, state } = message.value
  const steps = [
    { what: 'written', at: madeAt },
    { what: 'handed to the carrier', at: handedAt },
    { what: 'taken by the carrier', at: acceptedAt },
    { what: STATE_WORDS[state as MessageState]?.toLowerCase() ?? '', at: settledAt },
  ]
  return steps.flatMap(({ what, at }) => at === null ? [] : [`${what} ${clockToSecond(at, zone.value)}`]).join(', ')
})
const ORIGIN_WORDS = {
  'automatic': 'sent by Plauder itself', 'disposition': 'set off by a disposition', 'bulk': 'in a bulk text', 'bulk-answer': 'one answer to several', 'by-hand': null,
} as const
const foot = computed(() => {
  const { name, origin, template, parts, pictures, costMicros, currency } = message.value
  return [
    name ? `“${name}”` : null,
    origin && ORIGIN_WORDS[origin],
    template ? `Template ${template.name} (v${template.version})` : null,
    ours.value ? pictures.length > 0 ? 'Picture message' : (parts === 1 ? '1 part' : `${parts} parts`) : null,
    costMicros !== null && currency ? sayMoney({ micros: costMicros, currency }) : null,
    message.value.ref ? `Ref ${showRef(message.value.ref)}` : null,
    entry.via ? `with ${entry.via.name}` : null,
  ].filter(Boolean).join('. ')
})

async function act(path: string, body: object = {}): Promise<void> {
  if (await trying(() => api(path, { method: 'POST', body }))) emit('changed')
}
</script>

<template>
  <li
    class="slip"
    :class="[ours ? 'ours' : 'theirs', { compact, back: message.state === 'taken-back' }]"
  >
    <time
      class="time figures quiet"
      :datetime="new Date(entry.at).toISOString()"
    >{{ clock(entry.at, zone) }}</time>
    <div class="paper">
      <p class="head quiet">
        <template v-if="ours">
          <strong>{{ entry.colleague?.firstName ?? 'Plauder' }}</strong> to {{ showPhone(message.remote, true) }}<template v-if="!compact">, from {{ message.line.name }}{{ message.meantLine ? `, as the carrier of ${message.meantLine} could not be reached` : '' }}</template>.
          <strong
            class="state"
            :class="{ failed, good: message.state === 'delivered' }"
          >{{ state }}</strong>
        </template>
        <template v-else>
          <strong><bdi>{{ person }}</bdi></strong> to {{ message.line.name }}<template v-if="!compact">, from {{ showPhone(message.remote, true) }}</template>
        </template>
      </p>
      <p
        v-if="message.pictures.length > 0"
        class="pictures"
      >
        <a
          v-for="(picture, place) in message.pictures"
          :key="picture.id"
          :href="`/api/pictures/${picture.id}`"
          target="_blank"
        ><img
          :src="`/api/pictures/${picture.id}`"
          :width="picture.width"
          :height="picture.height"
          :alt="`Picture ${place + 1} of this text`"
          loading="lazy"
        ></a>
      </p>
      <p
        v-if="message.picturesToCome > 0"
        class="quiet small"
      >
        {{ message.picturesToCome === 1 ? 'A picture is' : `${message.picturesToCome} pictures are` }} being fetched…
      </p>
      <p
        class="words"
        dir="auto"
      >
        <LinkedWords :words="entry.words ?? ''" />
      </p>
      <p
        v-if="why"
        class="why"
      >
        {{ why.why }} {{ why.then }}
      </p>
      <p
        v-if="recallable || held || (why?.retry && mine)"
        class="acts"
      >
        <button
          v-if="recallable"
          type="button"
          class="plain-button"
          @click="act(`/api/texts/${message.id}/take-back`)"
        >
          Take it back
        </button>
        <button
          v-if="held && mine"
          type="button"
          class="plain-button"
          @click="act(`/api/texts/${message.id}/let-go`)"
        >
          Send it now anyway
        </button>
        <button
          v-if="why?.retry && mine && !held && !compact"
          type="button"
          class="plain-button"
          @click="emit('again', entry.words ?? '')"
        >
          Write it again
        </button>
      </p>
      <div
        v-if="message.proposal && message.proposal.decision === null"
        class="proposal"
      >
        <p>This reads like a wish to get no more texts.</p>
        <slot name="proposal" />
        <button
          type="button"
          class="plain-button calm"
          @click="act(`/api/proposals/${message.proposal.id}/dismiss`)"
        >
          No, it is not
        </button>
      </div>
      <p
        v-if="problem"
        class="field-error"
        role="alert"
      >
        {{ problem }}
      </p>
      <p
        v-if="!compact && foot && ours"
        class="foot small quiet"
      >
        {{ foot }}.
        <button
          type="button"
          class="plain-button calm"
          :aria-expanded="showsHistory"
          @click="showsHistory = !showsHistory"
        >
          Times
        </button>
        <template v-if="showsHistory">
          {{ history }}
        </template>
      </p>
      <slot name="more" />
    </div>
  </li>
</template>

<style scoped>
.slip { display: grid; grid-template-columns: var(--gutter) minmax(0, 1fr); }
.time { padding-top: var(--space-1); }
.paper { position: relative; border-left: 3px solid var(--accent); padding: var(--space-hair) var(--space-5) var(--space-hair) var(--space-5); }
.theirs .paper { border-left-color: var(--good); background: var(--good-ground); margin-left: var(--space-9); padding: var(--space-2) var(--space-5) var(--space-3) var(--space-5); }
.compact.theirs .paper { margin-left: var(--space-6); }
.head strong { color: var(--ink); }
.theirs .head strong { color: var(--good); }
.state.good { color: var(--good); }
.state.failed { color: var(--wrong); }
.words { font-size: var(--size-text); white-space: pre-wrap; overflow-wrap: anywhere; }
.pictures { display: flex; flex-wrap: wrap; gap: var(--space-3); padding: var(--space-1) 0; }
.pictures img { display: block; width: auto; height: auto; max-height: 150px; max-width: min(100%, 260px); border-radius: var(--round-small); }
.back .words { color: var(--quiet); text-decoration: line-through; }
.why { color: var(--wrong); }
.acts, .proposal { display: flex; flex-wrap: wrap; gap: var(--space-6); align-items: baseline; margin-top: var(--space-hair); }
.proposal { color: var(--waiting); }
</style>
