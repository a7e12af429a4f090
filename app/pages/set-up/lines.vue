<script setup lang="ts">
import { NATIONAL_LANGUAGES, type NationalLanguage } from '~~/core/text/national'
import { AWAY_MINUTES } from '~~/core/lines/stand-in'
import { showPhone } from '~~/core/phone/show'
import type { SetUpCarrier } from '~~/shared/carriers'
import { lineFormOf, type SetUpLine } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useLive } from '~/composables/live'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { sayLine } from '~/words/lines'
import { TABLE_WORDS } from '~/words/tables'
import { timeOfDay } from '~/words/time'

definePageMeta({ middleware: () => onlyWith('line.edit') })

const { list: lines, problem, trying, load } = useSetUpList<SetUpLine>(() => ({ path: '/api/set-up/lines' }))

// a colleague has changed one, or its carrier has told something
useLive(({ kind }) => {
  if (kind === 'lines') void load()
}, () => void load())

const zone = computed(() => useMe().me!.zone)

/** Those that have ended stand last. */
const shown = computed(() => lines.value && [...lines.value].sort((a, b) => Number(a.state === 'ended') - Number(b.state === 'ended')))

/** Without them a line is shown and changed all the same, but for its carrier. */
const carriers = shallowRef<SetUpCarrier[]>([])
void api<SetUpCarrier[]>('/api/set-up/carriers').then(found => carriers.value = found, () => {})

/** The line whose ringing is being changed. */
const editing = shallowRef<SetUpLine | null>(null)
const adding = ref(false)

function saved(all: SetUpLine[]): void {
  lines.value = all
  editing.value = null
  adding.value = false
}

/** How a line rings, in a few words. */
const ringing = ({ records, ownerFirst, ringOrder, takeOrder, greeting, busyGreeting, ringSeconds, hours, textsAMinute, textsADay }: SetUpLine) =>
  [
    ownerFirst ? 'rings with the caller’s own colleague first' : null,
    ringOrder.length > 0 ? `rings with ${many(ringOrder.length, 'colleague', 'colleagues')} in turn` : null,
    takeOrder.length > 0 ? `what nobody has goes to ${many(takeOrder.length, 'colleague', 'colleagues')} in turn` : null,
    greeting === null
      ? 'takes no messages'
      : `takes a message after ${ringSeconds} s${hours ? `, outside of ${timeOfDay(hours.opens)} to ${timeOfDay(hours.closes)} at once` : ''}${busyGreeting ? ', while all talk at once' : ''}`,
    records ? 'calls are recorded' : null,
    `${many(textsAMinute, 'bulk text', 'bulk texts')} a minute${textsADay ? `, ${textsADay.toLocaleString('en-US')} a day` : ''}`,
  ]
    .filter(Boolean)
    .join(', ')

/** Over which carrier its texts go, where there is a choice. */
const over = ({ carrier }: SetUpLine) =>
  carriers.value.length > 1
    ? `texts over ${carriers.value.find(({ name }) => name === carrier)?.title ?? 'a carrier that is not there'}`
    : null
const standsIn = ({ standInId }: SetUpLine) => lines.value?.find(({ id }) => id === standInId)?.name ?? null
const isAway = ({ carrier }: SetUpLine) => carriers.value.some(({ name, state }) => name === carrier && state?.is === 'away')

function turn(line: SetUpLine, language: NationalLanguage): Promise<unknown> {
  const languages = NATIONAL_LANGUAGES.filter(one => (one === language) !== line.languages.includes(one))
  return trying(() => api<SetUpLine[]>(`/api/set-up/lines/${line.id}`, { method: 'PUT', body: { ...lineFormOf(line), languages } }))
}
</script>

<template>
  <SetUpRoom
    title="Lines"
    hint="The numbers that you text and call from."
    what="the lines"
    :loaded="lines !== null"
    :problem="problem"
    @again="load"
  >
    <p v-if="carriers.length > 0">
      <Button
        label="Add a line"
        @click="adding = true"
      />
    </p>
    <p v-if="lines?.length === 0">
      There are none yet, so nobody can text or call. <NuxtLink
        v-if="carriers.length === 0"
        to="/set-up/carriers"
      >Connect a carrier first</NuxtLink>
    </p>
    <ul>
      <li
        v-for="line in shown"
        :key="line.id"
        class="line"
      >
        <div>
          <h2>{{ line.name }}</h2>
          <p class="figures">
            {{ showPhone(line.e164, true) }}
          </p>
          <p class="quiet">
            {{ [line.colleague ? `answered by ${line.colleague}` : line.team ? `answered by ${line.team}` : 'answered by nobody', line.private ? 'private' : null, over(line)].filter(Boolean).join(', ') }}
          </p>
        </div>
        <div class="stands">
          <p :class="{ silent: line.state !== 'active' }">
            {{ sayLine(line, zone) }}
          </p>
          <LinePorting
            v-if="line.porting"
            :line="line"
            @saved="saved"
          />
          <p
            v-if="isAway(line)"
            class="away"
          >
            Its carrier cannot be reached; {{ standsIn(line) ? `after ${AWAY_MINUTES} minutes its texts leave over ${standsIn(line)}` : 'texts wait' }}. <NuxtLink to="/set-up/carriers">Look why</NuxtLink>
          </p>
          <p
            v-if="line.state !== 'ended'"
            class="quiet"
          >
            {{ ringing(line) }}
          </p>
          <p class="acts">
            <button
              v-if="line.state !== 'ended'"
              type="button"
              class="plain-button"
              :aria-label="`Change how ${line.name} rings`"
              @click="editing = line"
            >
              Change how it rings
            </button>
            <LineSteps
              :line="line"
              @stepped="saved"
            />
          </p>
        </div>
        <fieldset
          v-if="line.state !== 'ended'"
          class="letters"
        >
          <legend>
            <span class="heard-only">{{ line.name }}: </span>Its carrier knows the letters of these too
          </legend>
          <label
            v-for="language in NATIONAL_LANGUAGES"
            :key="language"
          >
            <input
              type="checkbox"
              :checked="line.languages.includes(language)"
              @change="turn(line, language)"
            >
            {{ TABLE_WORDS[language] }}
          </label>
        </fieldset>
      </li>
    </ul>
    <p class="quiet small">
      With a language’s letters a part of a text holds 149 to 155 characters, where it would hold 67 to 70. Ask the carrier before you switch one on: where it does not know them, they arrive wrong.
    </p>
    <LazyLineMaker
      v-if="adding"
      :carriers="carriers"
      @saved="saved"
      @close="adding = false"
    />
    <LazyLineEditor
      v-if="editing"
      :carriers="carriers"
      :line="editing"
      :lines="lines ?? []"
      @saved="saved"
      @close="editing = null"
    />
  </SetUpRoom>
</template>

<style scoped>
.line { display: grid; grid-template-columns: 14rem minmax(0, 1fr) 19.5rem; gap: var(--space-8); border-top: 1px solid var(--rule); padding: var(--space-4) 0; }
.line h2 { font-size: var(--size-text); }
.stands { display: grid; gap: var(--space-2); align-content: start; max-width: 38rem; }
.away { color: var(--wrong); }
.silent { color: var(--quiet); }
.acts { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); align-items: baseline; }
.letters { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-7); border: 0; padding: 0; margin: 0; align-content: start; }
.letters legend { color: var(--quiet); padding: 0 0 var(--space-2); float: left; width: 100%; }
.letters label { display: inline-flex; gap: var(--space-2); align-items: center; min-height: 24px; cursor: pointer; }
@media (max-width: 900px) { .line { grid-template-columns: minmax(0, 1fr); gap: var(--space-3); } }
</style>
