<script setup lang="ts">
import { holdsIn } from '~~/core/hours/house'
import { ALLOWED_HOURS, EVERY_DAY } from '~~/core/hours/reachable'
import { narrow, type WeekHours } from '~~/core/hours/week'
import type { HoursFront, PlaceHours } from '~~/shared/hours'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { useTrying } from '~/composables/trying'
import { dateWords, windowWords, weekWords } from '~/words/hours'
import { placeName, PLACES } from '~/words/places'
import { ago } from '~/words/time'

/** Where people are reached in stricter hours than everywhere: what the law there says, and what an admin has said. */
const { front } = defineProps<{ front: HoursFront }>()
const emit = defineEmits<{ changed: [front: HoursFront] }>()
const now = useNow()

const inForce = (week: WeekHours | null) => narrow(EVERY_DAY, week ?? EVERY_DAY.week).week
const closedIn = (place: string) => front.closed.filter(one => holdsIn(one.place, place)).map(({ day }) => day)
const holidays = (place: string) => front.countries.filter(({ country, kept }) => kept && holdsIn(country, place)).flatMap(({ next }) => next.map(({ day }) => day))

/** The place whose hours are being written. */
const writing = ref<string | null>(null)
const more = ref('')
const others = computed(() => PLACES.filter(({ value }) => !front.places.some(({ place }) => place === value)))
const begun = computed<PlaceHours | null>(() => writing.value !== null && !front.places.some(({ place }) => place === writing.value)
  ? { place: writing.value, week: null, law: null, chosen: null }
  : null)
function write(place: string): void {
  errors.value = {}
  writing.value = place
}
function stop(): void {
  writing.value = null
  more.value = ''
}

const { errors, saving, save } = useSaving('week')
const put = (place: string, week: WeekHours | null) => api<HoursFront>(`/api/set-up/hours/places/${place}`, { method: 'PUT', body: { week } })
async function set(place: string, week: WeekHours): Promise<void> {
  if (await save(async () => emit('changed', await put(place, week)))) stop()
}

const { problem, busy, trying } = useTrying()
const letBe = (place: string) => trying(async () => emit('changed', await put(place, null)))
const takeBack = (place: string) =>
  trying(async () => emit('changed', await api<HoursFront>(`/api/set-up/hours/places/${place}`, { method: 'DELETE' })))
</script>

<template>
  <ul>
    <li class="place">
      <div>
        <strong>Everywhere</strong>
        <p class="quiet small">
          where the person is
        </p>
      </div>
      <div>
        <p>{{ windowWords(ALLOWED_HOURS) }}</p>
        <p class="quiet small">
          47 CFR 64.1200(c)(1)
        </p>
      </div>
      <WeekStrip
        :week="EVERY_DAY.week"
        :closed="front.closed.filter(({ place }) => place === null).map(({ day }) => day)"
        :from="front.today"
      />
      <span />
    </li>
    <li
      v-for="one in begun ? [...front.places, begun] : front.places"
      :key="one.place"
      class="place"
    >
      <div>
        <strong>{{ placeName(one.place) }}</strong>
        <p
          v-if="one.chosen"
          class="quiet small"
        >
          {{ one.chosen.by }}, {{ ago(one.chosen.at, now) }}
        </p>
      </div>
      <WeekEditor
        v-if="writing === one.place"
        class="wide"
        :place="placeName(one.place)"
        :week="inForce(one.week)"
        :errors="errors"
        :saving="saving"
        @save="set(one.place, $event)"
        @close="stop"
      />
      <template v-else>
        <div>
          <p>{{ one.week ? weekWords(inForce(one.week)) : 'as everywhere' }}</p>
          <p
            v-if="one.law"
            class="quiet small"
          >
            <template v-if="one.chosen">
              The law: {{ weekWords(one.law.week) }}.
            </template>
            {{ one.law.source }}, as of {{ dateWords(one.law.asOf) }}
          </p>
        </div>
        <WeekStrip
          :week="inForce(one.week)"
          :closed="[...closedIn(one.place), ...holidays(one.place)]"
          :from="front.today"
        />
        <span class="actions">
          <button
            type="button"
            class="plain-button"
            :aria-label="`Change the hours of ${placeName(one.place)}`"
            @click="write(one.place)"
          >
            Change
          </button>
          <button
            v-if="one.chosen"
            type="button"
            class="plain-button calm"
            :aria-label="one.law ? `Hold to the law of ${placeName(one.place)} again` : `Remove the hours of ${placeName(one.place)}`"
            :disabled="busy"
            @click="takeBack(one.place)"
          >
            {{ one.law ? 'Back to the law' : 'Remove' }}
          </button>
          <button
            v-else
            type="button"
            class="plain-button calm"
            :aria-label="`Do not hold to the law of ${placeName(one.place)}`"
            :disabled="busy"
            @click="letBe(one.place)"
          >
            Switch off
          </button>
        </span>
      </template>
    </li>
  </ul>
  <p
    v-if="problem"
    class="notice failed"
    role="alert"
  >
    {{ problem }}
  </p>
  <form
    class="more"
    novalidate
    @submit.prevent="more && write(more)"
  >
    <ChoiceField
      id="other-place"
      v-model="more"
      label="Stricter hours somewhere else"
      none="Choose a country, a state or a province"
      :choices="others"
    />
    <Button
      type="submit"
      label="Write them"
      severity="secondary"
      :disabled="!more"
    />
  </form>
</template>

<style scoped>
.place { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 2.4fr) minmax(0, 1.7fr) 10.5rem; gap: var(--space-2) var(--space-6); border-top: 1px solid var(--rule); padding: var(--space-3) 0; align-items: start; }
.wide { grid-column: 2 / -1; }
.actions { display: flex; gap: var(--space-6); align-items: baseline; }
.more { display: flex; flex-wrap: wrap; gap: var(--space-5); align-items: end; padding-top: var(--space-4); }
@media (max-width: 700px) {
  .place { grid-template-columns: minmax(0, 1fr); }
  .wide { grid-column: 1; }
}
</style>
