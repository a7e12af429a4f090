<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import type { AskedTheSame, BulkAsked, BulkTextDetail, WhoAsks } from '~~/shared/bulk-texts'
import type { BulkWording } from '~/composables/bulk-wording'
import { useKeys } from '~/composables/keys'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useTextMany } from '~/composables/text-many'
import { sayAsked } from '~/words/asked'
import { many } from '~/words/count'

/** What those ask who have answered a bulk text and wait: whoever asks the same is answered in one go, and the others can be told too. */
const { bulk, changes } = defineProps<{ bulk: BulkTextDetail, /** Grows when something happened to it. */ changes: number }>()

const OFTEN_MS = 3_000
const { found: asked, problem, load } = useLoaded<BulkAsked>(`/api/bulk-texts/${bulk.id}/asked`)
const loadSoon = useThrottleFn(load, OFTEN_MS, true)
watch(() => changes, loadSoon)
// whoever writes once more, or is answered by a colleague
useLive(notice => void (notice.kind === 'conversation' && loadSoon()), () => void loadSoon())

interface Shown { key: string, title: string, people: WhoAsks[], same: AskedTheSame | null }
const gathered = computed<Shown[]>(() => asked.value
  ? [
      ...asked.value.same.map(same => ({ key: `${same.topic} ${same.word}`, title: sayAsked(same), people: same.people, same })),
      { key: 'alone', title: 'Something else', people: asked.value.alone, same: null },
      { key: 'other', title: 'No question', people: asked.value.other, same: null },
    ].filter(({ people }) => people.length > 0)
  : [])
const waiting = computed(() => new Set(gathered.value.flatMap(({ people }) => people.map(one => one.conversationId))).size)
/** Of each as many as tell what it is about; the others at a press. */
const FEW = 3
const whole = ref(new Set<string>())
const shownOf = ({ key, people }: Shown) => whole.value.has(key) ? people : people.slice(0, FEW)
/** What else somebody asks who is answered: the answer should not leave that out. */
const alsoAsks = ({ conversationId }: WhoAsks, { same }: Shown) =>
  asked.value!.same.filter(one => one !== same && one.people.some(other => other.conversationId === conversationId)).map(sayAsked)

const answering = shallowRef<{ title: string, recordIds: string[], draft: string } | null>(null)
const answer = ({ title, key, people }: Shown) =>
  answering.value = { title, recordIds: [...new Set(people.map(({ recordId }) => recordId))], draft: `answer-${bulk.id}-${key}` }
/** What was answered last, to be told to those who have not asked. */
const told = shallowRef<BulkWording | null>(null)
async function closed(): Promise<void> {
  answering.value = null
  await load()
}
const unanswered = computed(() => bulk.counts.texted - bulk.answered)
const { problem: notTexted, busy, textMany } = useTextMany()
const tellOthers = () => textMany(`${bulk.name}: to know`, { ofBulk: { bulkId: bulk.id, answered: 'no' } }, told.value)

useKeys([{
  keys: 'a', shown: 'A', what: 'Answer what most of them ask', when: () => !answering.value && !!gathered.value[0]?.same, act: () => answer(gathered.value[0]!),
}])
</script>

<template>
  <section
    v-if="problem || gathered.length > 0 || told"
    aria-labelledby="bulk-asked"
  >
    <h2 id="bulk-asked">
      What they ask
    </h2>
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="asked"
      class="quiet"
    >
      {{ waiting === 0 ? 'Nobody waits for an answer.' : `${many(waiting, 'person has answered and waits', 'people have answered and wait')}${asked.more ? '; these are those who have waited longest' : ''}.` }}
    </p>
    <p
      v-if="told && unanswered > 0"
      class="notice"
    >
      It is on its way. {{ many(unanswered, 'person has', 'people have') }} not written: would it help them too?
      <button
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="tellOthers"
      >
        Write it to them
      </button>
      <button
        type="button"
        class="plain-button calm"
        @click="told = null"
      >
        No
      </button>
      <span
        v-if="notTexted"
        class="field-error"
        role="alert"
      >{{ notTexted }}</span>
    </p>
    <article
      v-for="(one, place) in gathered"
      :key="one.key"
      :aria-label="one.title"
    >
      <h3>{{ one.title }} <span class="figures quiet">{{ one.people.length.toLocaleString('en-US') }}</span></h3>
      <p
        v-if="one.same"
        class="acts"
      >
        <Button
          size="small"
          :severity="place === 0 ? undefined : 'secondary'"
          :label="`Answer ${one.people.length === 2 ? 'both' : `these ${one.people.length.toLocaleString('en-US')}`}`"
          @click="answer(one)"
        />
        <kbd v-if="place === 0">A</kbd>
      </p>
      <ul>
        <li
          v-for="person in shownOf(one)"
          :key="person.conversationId"
        >
          <NuxtLink :to="`/record/${person.recordId}`">
            <bdi>{{ person.name }}</bdi>
          </NuxtLink>
          <span class="words"><bdi>{{ person.words || 'has called' }}</bdi></span>
          <span
            v-if="alsoAsks(person, one).length > 0 && one.same"
            class="quiet small"
          >asks too: {{ alsoAsks(person, one).join(', ').toLowerCase() }}</span>
        </li>
      </ul>
      <button
        v-if="one.people.length > FEW && !whole.has(one.key)"
        type="button"
        class="plain-button"
        @click="whole = new Set([...whole, one.key])"
      >
        and {{ (one.people.length - FEW).toLocaleString('en-US') }} more
      </button>
    </article>
    <LazyHandfulText
      v-if="answering"
      :whom="{ whoAsk: { bulkId: bulk.id, recordIds: answering.recordIds } }"
      :title="`Answer ${many(answering.recordIds.length, 'person', 'people')}: ${answering.title.toLowerCase()}`"
      :modules="bulk.modules"
      :called="`${bulk.name}: ${answering.title.toLowerCase()}`.slice(0, 60)"
      :draft="answering.draft"
      @sent="told = $event"
      @close="closed"
    />
  </section>
</template>

<style scoped>
section { display: grid; gap: var(--space-4); max-width: 60rem; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
h2, h3 { font-size: var(--size-text); }
article { display: grid; grid-template-columns: 12rem minmax(0, 1fr) auto; gap: var(--space-1) var(--space-6); align-items: start; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
article h3 { grid-area: 1 / 1; }
article ul { grid-area: 1 / 2; padding: 0; margin: 0; list-style: none; display: grid; gap: var(--space-2); min-width: 0; }
article .acts { grid-area: 1 / 3; display: flex; align-items: center; gap: var(--space-3); }
article > .plain-button { grid-column: 2; justify-self: start; }
li { display: grid; grid-template-columns: 11rem minmax(0, 1fr); gap: 0 var(--space-5); overflow-wrap: anywhere; }
li .small { grid-column: 2; }
.words { white-space: pre-line; min-width: 0; }
@media (max-width: 700px) { article { grid-template-columns: minmax(0, 1fr); } article > * { grid-area: auto !important; } li { grid-template-columns: minmax(0, 1fr); } li .small { grid-column: 1; } }
</style>
