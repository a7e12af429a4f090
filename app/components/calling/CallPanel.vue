<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { isOff, leftMessage, outcomeOf } from '~~/core/call/facts'
import { familyOf } from '~~/core/call/family'
import { showPhone } from '~~/core/phone/show'
import { isPersonModule, MODULE_FACTS } from '~~/shared/modules'
import type { CallDetail } from '~~/shared/calling'
import { useDispositions } from '~/composables/dispositions'
import { useKeys } from '~/composables/keys'
import { useSeconds } from '~/composables/now'
import { useCalls } from '~/stores/calls'
import { useRounds } from '~/stores/rounds'
import { sayCall, sayTransfer } from '~/words/calls'
import { ago, clock } from '~/words/time'

/** A call, opened over the page: notes while one talks, and the keys that say how it went. */
const { call } = defineProps<{ call: CallDetail }>()
const emit = defineEmits<{ close: [] }>()

/** What is made while one talks; the call stays on the shelf. */
const MAKES = ['deal', 'appointment', 'case'] as const
const withArticle = (word: string) => `${/^[aeiou]/.test(word) ? 'an' : 'a'} ${word}`
const calls = useCalls()
const rounds = useRounds()
const seconds = useSeconds()
const now = computed(() => seconds.value + calls.skew)
const panel = useTemplateRef<HTMLElement>('panel')
const before = document.activeElement
const notes = useTemplateRef<{ focus: () => void }>('notes')

const name = computed(() => call.record?.name ?? showPhone(call.remote))
const state = computed(() => calls.stateOf(call))
/** Whether I am off it: over, or a message is being left that was spoken before. */
const over = computed(() => isOff(state.value))
const talking = computed(() => state.value === 'talking' || state.value === 'held')
const outcome = computed(() => outcomeOf(call.facts) ?? (call.facts.answeredBy === 'machine' ? 'machine' : 'answered'))
const about = computed(() => {
  const { record } = call
  const there = call.zones[0]
  return [
    record ? MODULE_FACTS[record.module].one : 'On no record',
    record?.title,
    record?.company,
    record?.city,
    there && `${clock(now.value, there)} there`,
  ]
    .filter(Boolean)
    .join(', ')
})
const { all, chosen, choices, open, problem, busy, done, load, choose, say, press, takeBack, forget } = useDispositions(
  () => call,
  () => void calls.load(),
)
/** Only who is on the call, or was, says how it went. */
const mine = computed(() => call.mine)
const making = ref(false)
const made = ref(false)

/** What the keys would do can wait until it rings: first things first. */
const wantsKeys = computed(() => mine.value && state.value !== 'dialling')
onMounted(async () => {
  if (!over.value) notes.value?.focus()
  if (wantsKeys.value) await load()
  if (over.value) focusKeys()
})
watch(wantsKeys, now => now && load())
watch(over, async (now) => {
  if (!now || !mine.value) return
  // the keys that are there can be pressed at once; what each would do is worked out anew meanwhile
  focusKeys()
  const there = all.value !== null
  await load()
  if (!there) focusKeys()
})

const beside = useTemplateRef<HTMLElement>('beside')

/** What the mouse crosses is looked at; not while something is being said of another key. */
function look(id: string): void {
  if (!beside.value?.contains(document.activeElement)) choose(id)
}

/** Whoever is in the middle of a word when the other one hangs up goes on with it: their letters must press no key. */
const isWriting = () => {
  const at = document.activeElement
  return call.facts.end?.side !== 'us' && at instanceof HTMLElement && 'value' in at && at.value !== '' && panel.value?.contains(at)
}

function focusKeys(): void {
  if (isWriting()) return
  void nextTick(() => panel.value?.querySelector<HTMLElement>('.key')?.focus())
}

/** Back to where the cursor was, on a page that did not move. */
function close(): void {
  emit('close')
  if (before instanceof HTMLElement) before.focus()
}

async function pressKey(id: string): Promise<void> {
  if (!over.value) return choose(id)
  choose(id)
  if (open.value.length > 0) return void nextTick(() => panel.value?.querySelector<HTMLElement>('[data-asked]')?.focus())
  // in a round the next person comes at once; the call stays on the shelf for a while, to be taken back
  if (inRound()) return void rounds.nextAfter(press(id).then(ok => (ok && emit('close'), ok)))
  if (!await press(id)) return
  await nextTick()
  panel.value?.querySelector<HTMLElement>('.result button')?.focus()
}

/** Whether the next person of a round follows: not while somebody else is talked to, after a call that was taken up again. */
const inRound = () => !!call.roundId && call.roundId === rounds.mine?.id && !calls.on

async function putAway(): Promise<void> {
  await calls.putAway(call)
  forget()
  if (!inRound()) return
  emit('close')
  await rounds.next()
}

async function back(): Promise<void> {
  await takeBack()
  focusKeys()
}

/** The disposition of a letter, once the call is over and nothing is said of it yet. */
const lettered = ({ code }: KeyboardEvent) =>
  over.value && !done.value ? all.value?.find(({ letter }) => letter === code.at(-1)!.toLowerCase()) : undefined
const byLetter = {
  what: 'Say how the call went',
  first: true,
  when: (event: KeyboardEvent) => lettered(event) !== undefined,
  act: (event: KeyboardEvent) => void pressKey(lettered(event)!.id),
}
useKeys([
  { ...byLetter, keys: '(Key[A-Z])', shown: 'its letter' },
  { ...byLetter, keys: 'Alt+(Key[A-Z])', shown: 'Alt and its letter', inFields: true },
  { keys: 'Escape', shown: 'Esc', what: 'Close the call', inFields: true, act: close },
])
onClickOutside(panel, close, { ignore: ['.strip', '.panel', '.p-dialog'] })
</script>

<template>
  <section
    ref="panel"
    class="call-panel"
    role="dialog"
    :aria-label="`Call with ${name}`"
  >
    <div class="main">
      <header class="who">
        <h2>{{ name }}</h2>
        <p class="quiet">
          {{ about }}
        </p>
        <strong
          class="figures state"
          role="status"
        >{{ call.transfer ? sayTransfer(call.transfer, call.record?.firstName ?? name) : sayCall(call.facts, call.direction, now) }}</strong>
        <NuxtLink
          v-if="call.record"
          class="open-record"
          :to="`/record/${call.record.id}`"
        >Open</NuxtLink>
        <NuxtLink
          v-else
          class="open-record"
          :to="{ path: '/records/leads/new', query: { phone: call.remote } }"
        >Make a record</NuxtLink>
      </header>
      <p
        v-if="call.lastSaid"
        class="said"
      >
        <span class="quiet small">{{ call.lastSaid.ours ? 'We, ' : `${call.record?.firstName ?? 'They'}, ` }}{{ ago(call.lastSaid.at, now) }}:</span> {{ call.lastSaid.words }}
      </p>
      <CallAlsoOf
        v-if="call.alsoOf.length > 0 && !call.disposition"
        :call="call"
      />
      <LazyRecordingPlayer
        v-if="call.recording"
        :recording="call.recording"
      />
      <LazyCallWays
        v-if="mine && talking && !call.transfer"
        :call="call"
      />
      <p
        v-for="(one, place) in call.othersNotes"
        :key="place"
        class="handed-notes"
      >
        <span class="quiet small">{{ one.firstName }} noted:</span> {{ one.words }}
      </p>
      <CallNotes
        v-if="mine"
        ref="notes"
        :call-id="call.id"
        :kept="call.notes"
        :hint="over && !done ? ', letters work here with Alt' : ''"
      />
      <LazyCallRating
        v-if="mine && over && call.facts.answeredBy === 'person'"
        :call-id="call.id"
        :rating="call.rating"
      />
      <p
        v-if="problem"
        class="notice failed"
        role="alert"
      >
        {{ problem }}
      </p>
      <DispositionResult
        v-if="done"
        :done="done"
        :busy="busy"
        @close="close"
        @back="back"
      />
      <p
        v-else-if="mine && !all && !problem"
        class="quiet"
        role="status"
      >
        Working out what each key would do…
      </p>
      <DispositionKeys
        v-else-if="mine && all && all.length > 0"
        :dispositions="all"
        :chosen-id="chosen?.id ?? null"
        :first="familyOf(outcome)"
        :left="leftMessage(call.facts) !== null"
        :ready="over"
        @look="look"
        @press="pressKey"
      />
      <p
        v-if="call.record && mine && isPersonModule(call.record.module)"
        class="make small quiet"
      >
        Make
        <NuxtLink
          v-for="module in MAKES"
          :key="module"
          :to="{ path: `/records/${MODULE_FACTS[module].slug}/new`, query: { from: call.record.id } }"
        >
          {{ withArticle(MODULE_FACTS[module].one.toLowerCase()) }}
        </NuxtLink>
        <button
          type="button"
          class="plain-button calm"
          @click="making = true"
        >
          a task
        </button>
        <span
          v-if="made"
          role="status"
        >The task is saved.</span>
      </p>
      <LazyTaskForm
        v-if="making && call.record"
        :record-id="call.record.id"
        @kept="making = false; made = true"
        @close="making = false"
      />
      <footer class="foot">
        <button
          v-if="over && !done"
          type="button"
          class="plain-button calm"
          @click="putAway"
        >
          Close without a disposition
        </button>
        <button
          type="button"
          class="plain-button calm back"
          @click="close"
        >
          <kbd>Esc</kbd> back to the page
        </button>
      </footer>
    </div>
    <aside
      v-if="chosen && call.record && !done"
      ref="beside"
      class="beside"
      :aria-label="`What “${chosen.name}” will do`"
    >
      <h3>What “{{ chosen.name }}” will do</h3>
      <EffectList
        :key="chosen.id"
        :disposition="chosen"
        :choices="choices"
        :record-id="call.record.id"
        @say="say"
        @enter="pressKey(chosen.id)"
      />
      <Button
        v-if="over"
        size="small"
        :label="chosen.name"
        :loading="busy"
        @click="pressKey(chosen.id)"
      />
    </aside>
  </section>
</template>

<style scoped>
.call-panel {
  position: absolute; top: 100%; left: 0; width: min(64rem, 100vw - 84px); max-height: calc(100vh - 110px); overflow-y: auto; background: var(--paper);
  border: 1px solid var(--ink); border-top: 0; border-radius: 0 0 8px 8px; display: grid; grid-template-columns: minmax(0, 1fr) 19rem; animation: open-down var(--move);
}
@keyframes open-down { from { opacity: 0; transform: translateY(-6px); } }
.main { grid-column: 1; padding: var(--space-5) var(--space-6); display: grid; gap: var(--space-4); align-content: start; }
.main:last-child { grid-column: 1 / -1; }
.beside { padding: var(--space-5) var(--space-6); border-left: 1px solid var(--rule); display: grid; gap: var(--space-2); align-content: start; justify-items: start; }
.beside > ul { width: 100%; }
.beside h3 { font-size: var(--size-small); }
.who { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); align-items: baseline; background: var(--calm-ground); border-left: 4px solid var(--calm); padding: var(--space-3) var(--space-5); }
.who h2 { font-size: var(--size-large); }
.who p { flex: 1; }
.state { color: var(--calm); }
.open-record { font-weight: 700; text-decoration: none; }
.said { border-left: 3px solid var(--good); padding-left: var(--space-5); overflow: hidden; display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; }
.handed-notes { border-left: 3px solid var(--waiting); padding-left: var(--space-5); white-space: pre-wrap; }
.make { display: flex; gap: var(--space-5); }
.foot { display: flex; gap: var(--space-7); align-items: center; }
.back { margin-left: auto; }
@media (max-width: 900px) { .call-panel { grid-template-columns: minmax(0, 1fr); width: min(100vw, 40rem); } .beside { border-left: 0; border-top: 1px solid var(--rule); } }
@media (max-width: 700px) { .call-panel { width: 100vw; } }
</style>
