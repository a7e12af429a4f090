<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { hasNumbers, isPersonModule, MODULE_FACTS } from '~~/shared/modules'
import type { ComposerStart } from '~~/shared/composer'
import type { Stage } from '~~/shared/pipelines'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useLive } from '~/composables/live'
import { useNow } from '~/composables/now'
import { openRecord, type Opening } from '~/composables/opening'
import { usePresence } from '~/composables/presence'
import { useSeenHere } from '~/composables/seen-here'
import { useTimeline } from '~/composables/timeline'
import { useTrying } from '~/composables/trying'
import { useAhead } from '~/stores/ahead'
import { useCalls } from '~/stores/calls'
import { useShelf } from '~/stores/shelf'
import type RecordComposer from '~/components/composer/RecordComposer.vue'
import { ago, clock, placeOf } from '~/words/time'

definePageMeta({ key: route => route.fullPath })

const route = useRoute()
const recordId = String(route.params.id)
/** An entry that somebody has come for. */
const sought = typeof route.query.entry === 'string' ? route.query.entry : undefined
const now = useNow()
const shelf = useShelf()
const calls = useCalls()
const record = shallowRef<RecordDetail | null>(null)
const start = shallowRef<ComposerStart | null>(null)
const { problem, trying } = useTrying()
const editing = ref(false)
const making = ref(false)
const writing = ref(false)
const othersHere = usePresence({ of: 'record', id: recordId }, writing)
const ahead = useAhead().take(recordId)
const timeline = useTimeline(recordId, sought, ahead?.timeline)
const candidates = useTemplateRef<{ load: () => Promise<void> }>('candidates')
const { problem: notMoved, trying: tryingToMove } = useTrying()
const consent = shallowRef<{ phone: RecordPhone, agrees: boolean, covers: 'texts' | 'calls', proposalId: string | null } | null>(null)

const load = () => show(openRecord(recordId))

const show = (asked: Opening) => trying(async () => {
  record.value = await asked.record
  problem.value = ''
  start.value = await asked.start
})
void show(ahead ?? openRecord(recordId))
// the entry itself comes first, and several notices lead to one load
const loadSoon = useDebounceFn(load, 300)

useLive((notice) => {
  const aboutThis = (notice.kind === 'record' || notice.kind === 'entry' || notice.kind === 'task') && notice.recordId === recordId
  if (aboutThis) void loadSoon()
}, () => void load())

shelf.recordOnPage = recordId
useSeenHere(recordId, () => timeline.entries.value.find(({ message }) => message?.direction === 'in')?.id ?? null)
onBeforeUnmount(() => shelf.recordOnPage = null)
/** The number that is called when nobody has said which: the first that can be. */
const callable = computed(() => record.value?.phones.find(({ e164, mayBeCalled }) => e164 && mayBeCalled) ?? null)

const asked = (phone: RecordPhone) => ({ phoneId: phone.id, name: phone.person?.name ?? record.value!.name })
const call = (phone: RecordPhone) => void calls.dial(asked(phone))
function callByKey(): void {
  if (callable.value) calls.dialByKey(asked(callable.value))
  else if (record.value) calls.problem = whyNobody(record.value)
}

const whyNobody = ({ name, phones }: RecordDetail) =>
  phones.some(({ e164 }) => e164) ? `${name} is not to be called.` : `There is no number by which ${name} could be called.`

useKeys([
  { keys: 'x', shown: 'X', what: 'Change this record', act: () => editing.value = record.value?.mayEdit ?? false },
  { keys: 'd', shown: 'D', what: 'Call the first number', act: callByKey },
  { keys: 'k', shown: 'K', what: 'Make a task', act: () => making.value = record.value?.mayEdit ?? false },
])

const heard = computed(() => [...record.value?.phones ?? []].sort((a, b) => (b.lastHeardAt ?? 0) - (a.lastHeardAt ?? 0))[0])
const heardAt = computed(() => heard.value?.lastHeardAt ?? 0)
const there = computed(() => {
  const rules = record.value?.zones[0]
  return rules ? `It is ${clock(now.value, rules)} in ${record.value!.city ?? placeOf(rules.name)}.` : ''
})
const welcome = computed(() =>
  heardAt.value > now.value - 3_600_000
    ? ` ${heard.value!.person?.firstName ?? record.value!.firstName ?? record.value!.name} was in touch ${ago(heardAt.value, now.value)}, so an answer is welcome.`
    : '',
)

const asTable = ref(false)
async function goTo(day: string): Promise<void> {
  asTable.value = false
  await timeline.goTo(day)
}

const composer = useTemplateRef<InstanceType<typeof RecordComposer>>('composer')
const again = (words: string) => composer.value?.writeAgain(words)
/** A number that was chosen before the composer was there. */
const chosenNumber = ref<string | null>(null)
watch([composer, chosenNumber], ([there, phoneId]) => {
  if (!there || !phoneId) return
  chosenNumber.value = null
  void nextTick(() => there.textTo(phoneId))
})

function optOut(e164: string, proposalId: string): void {
  const phone = record.value?.phones.find(one => one.e164 === e164)
  if (phone) consent.value = { phone, agrees: false, covers: 'texts', proposalId }
}

async function consentDone(): Promise<void> {
  consent.value = null
  await Promise.all([load(), timeline.load()])
}

async function peopleChanged(): Promise<void> {
  await Promise.all([load(), candidates.value?.load()])
}

async function move({ id: stageId }: Stage): Promise<void> {
  await tryingToMove(() =>
    api(`/api/records/${recordId}/stage`, { method: 'PUT', body: { stageId, from: record.value!.stage?.id ?? null } }),
  )
  await load()
}

async function saved(detail: RecordDetail): Promise<void> {
  record.value = detail
  editing.value = false
  await load()
}
</script>

<template>
  <div
    v-if="problem && !record"
    class="gone"
  >
    <h1>Not here</h1>
    <p>{{ problem }}</p>
    <NuxtLink to="/records/leads">To the lists</NuxtLink>
  </div>
  <div
    v-else-if="!record"
    class="gone quiet"
    role="status"
  >
    Opening the record…
  </div>
  <div
    v-else
    class="record"
  >
    <header class="who">
      <h1><bdi>{{ record.name }}</bdi></h1>
      <p class="quiet where">
        {{ MODULE_FACTS[record.module].one }}<template v-if="record.title">, {{ record.title }}</template><template v-if="record.company">
          of <NuxtLink :to="`/record/${record.company.id}`">{{ record.company.name }}</NuxtLink>
        </template><template v-if="record.city">, {{ record.city }}</template>.
        <template v-if="record.lastContactAt">
          Last contact {{ ago(record.lastContactAt, now) }}.
        </template>
      </p>
      <WalkLine :record-id="recordId" />
      <StageLine
        :stages="record.stages"
        :stage="record.stage"
        :may-move="record.mayEdit"
        @move="move"
      />
    </header>
    <LazyCandidateBoard
      v-if="record.module === 'job' && record.people.length > 0"
      ref="candidates"
      class="candidates"
      :job-id="recordId"
    />
    <div class="sheet">
      <p
        v-if="notMoved"
        class="notice failed"
        role="alert"
      >
        {{ notMoved }}
      </p>
      <template v-if="record.module !== 'job' && (record.phones.length > 0 || isPersonModule(record.module))">
        <RecordComposer
          v-if="start"
          ref="composer"
          :record="record"
          :start="start"
          @sent="timeline.refresh"
          @writing="writing = $event"
        />
        <div
          v-else
          class="composer-to-come"
          aria-hidden="true"
        />
        <p
          class="small quiet hour"
          aria-live="polite"
        >
          {{ there }}{{ welcome }} <strong v-if="othersHere">{{ othersHere }}</strong>
        </p>
        <RequestLine
          v-if="record.mayEdit && record.zones[0]"
          :record-id="recordId"
          :entries="timeline.entries.value"
          :zone="record.zones[0]"
          :person="record.firstName ?? record.name"
          @changed="timeline.refresh($event)"
        />
      </template>
      <RhythmStrip
        :record-id="recordId"
        :changes="timeline.entries.value.length"
        @go="goTo"
      />
      <NoteBox
        v-if="record.mayEdit"
        :record-id="recordId"
      />
      <SieveLine
        v-model:as-table="asTable"
        :timeline="timeline"
        :record-id="recordId"
      />
      <LazyMessageTable
        v-if="asTable"
        :record-id="recordId"
        :person="record.firstName ?? record.name"
        :sieve="timeline.sieve.value"
      />
      <TimelineSheet
        v-else
        :timeline="timeline"
        :record="record"
        :sought="sought"
        @again="again"
        @opt-out="optOut"
      />
    </div>
    <aside
      class="margin"
      aria-label="About this record"
    >
      <ComesNext
        v-model:making="making"
        :record="record"
        @changed="load"
        @entry="timeline.refresh"
        @taken-back="composer?.change($event)"
      />
      <PeopleOn
        :record="record"
        @changed="peopleChanged"
      />
      <section v-if="record.module !== 'job' && (record.phones.length > 0 || hasNumbers(record.module))">
        <h2>Numbers</h2>
        <NumberList
          :record="record"
          @consent="(phone, agrees, covers) => consent = { phone, agrees, covers, proposalId: null }"
          @call="call"
          @text="chosenNumber = $event.id"
        />
      </section>
      <section>
        <h2>Where it stands</h2>
        <FactList
          :record="record"
          @text="chosenNumber = $event.id"
          @call="call"
          @changed="load"
        />
        <button
          v-if="record.mayEdit"
          type="button"
          class="plain-button change"
          @click="editing = true"
        >
          Change this record <kbd>X</kbd>
        </button>
      </section>
      <RelatedList :record="record" />
    </aside>
    <LazyChangeRecord
      v-if="editing"
      :record="record"
      @saved="saved"
      @close="editing = false"
    />
    <LazyConsentDialog
      v-if="consent"
      v-bind="consent"
      @done="consentDone"
      @close="consent = null"
    />
  </div>
</template>

<style scoped>
/* as high as the composer will be: nothing below it moves when it comes */
.composer-to-come { height: 218px; background: var(--surface); border: 1px solid var(--field-rule); border-radius: var(--round-large); }
.record { display: grid; grid-template-columns: minmax(0, 1fr) 356px; grid-template-rows: auto auto 1fr; min-height: 100%; }
.who { grid-column: 1 / -1; display: flex; align-items: baseline; gap: var(--space-5); padding: var(--space-5) var(--space-8) var(--space-4); }
.who h1 { overflow-wrap: anywhere; max-width: 60%; }
.where { flex: 1; }
.where a { color: inherit; }
.candidates { grid-column: 1 / -1; padding: 0 var(--space-8) var(--space-7); min-width: 0; }
.sheet { grid-row: 3; padding: 0 var(--space-8) var(--space-10); display: grid; grid-template-columns: minmax(0, 1fr); gap: var(--space-3); align-content: start; min-width: 0; }
.hour { padding-left: var(--space-hair); }
.margin { grid-row: 3; border-left: 1px solid var(--field-rule); padding: 0 var(--space-8) var(--space-9); display: grid; gap: var(--space-7); align-content: start; }
.margin h2 { padding-bottom: var(--space-2); }
.change { margin-top: var(--space-4); }
.gone { padding: var(--space-9) var(--space-8); display: grid; gap: var(--space-3); justify-items: start; }
@media (max-width: 1000px) {
  .record { grid-template-columns: minmax(0, 1fr); grid-template-rows: none; }
  .sheet, .margin { grid-row: auto; }
  .who { flex-wrap: wrap; padding-inline: var(--space-5); }
  .who h1 { max-width: 100%; }
  .candidates, .sheet, .margin { padding-inline: var(--space-5); }
  .margin { grid-row: 3; border-left: 0; border-top: 1px solid var(--rule); padding-top: var(--space-6); }
}
</style>
