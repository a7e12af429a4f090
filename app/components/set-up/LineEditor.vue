<script setup lang="ts">
import { AWAY_MINUTES, whyNotStandIn } from '~~/core/lines/stand-in'
import { lineFormOf, type CarrierChoice, type SetUpLine } from '~~/shared/set-up'
import { WEEKDAYS } from '~~/core/hours/say'
import { RING_SOUNDS, type RingSound } from '~~/shared/calling'
import { api } from '~/composables/api'
import { ring } from '~/composables/chime'
import { useSaving } from '~/composables/saving'

/** How a line rings, and what a caller hears whom nobody answers. */
const { line, lines, carriers } = defineProps<{ line: SetUpLine, lines: SetUpLine[], carriers: CarrierChoice[] }>()
const emit = defineEmits<{ saved: [lines: SetUpLine[]], close: [] }>()

/** The week as it is worked: Monday first. */
const DAYS = [1, 2, 3, 4, 5, 6, 0]
const USUAL = { opens: '08:00', closes: '18:00', days: [1, 2, 3, 4, 5] }
const GREETING = 'Nobody can take your call now. Leave a message after the tone, and we call you back.'
const form = ref(lineFormOf(line))
/** Those of the same country on another carrier; none for what is private. */
const standIns = computed(() => lines.filter(one => one.state === 'active' && !whyNotStandIn({ ...line, carrier: form.value.carrier }, one)))
const WAIT = 'wait'
const standIn = computed({ get: () => form.value.standInId ?? WAIT, set: chosen => form.value.standInId = chosen === WAIT ? null : chosen })
// on another carrier another one may stand in
watch(() => form.value.carrier, () => {
  if (!standIns.value.some(({ id }) => id === form.value.standInId)) form.value.standInId = null
})
const { errors, saving, save: saveWith } = useSaving('records')
const takes = computed({ get: () => form.value.greeting !== null, set: on => form.value.greeting = on ? line.greeting ?? GREETING : null })
const BUSY = 'All of us are talking at the moment. Leave a message after the tone, and we call you back.'
const saysBusy = computed({ get: () => form.value.busyGreeting !== null, set: on => form.value.busyGreeting = on ? line.busyGreeting ?? BUSY : null })
const SOUND_WORDS: Record<RingSound, string> = { quick: 'Quick and bright', low: 'Low and slow', bell: 'Like a bell' }
const SOUNDS = RING_SOUNDS.map(value => ({ value, label: SOUND_WORDS[value] }))
const keeps = computed({ get: () => form.value.hours !== null, set: on => form.value.hours = on ? { ...USUAL, ...line.hours } : null })

/** With one carrier there is nothing to choose, unless the line is left with one that is not there any more. */
const mayChoose = computed(() => carriers.length > 1 || carriers.some(({ name }) => name !== line.carrier))

const save = () =>
  saveWith(async () => emit('saved', await api<SetUpLine[]>(`/api/set-up/lines/${line.id}`, { method: 'PUT', body: form.value })))
</script>

<template>
  <FormDialog
    :header="`How ${line.name} rings`"
    width="34rem"
    :written="form"
    @close="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="save"
    >
      <ChoiceField
        v-if="mayChoose"
        id="carrier"
        v-model="form.carrier"
        label="Over which carrier its texts go"
        :choices="carriers.map(({ name: value, title }) => ({ value, label: title }))"
        :error="errors.carrier"
      />
      <ChoiceField
        v-if="standIns.length > 0"
        id="stand-in"
        v-model="standIn"
        :label="`Once it could not be reached for ${AWAY_MINUTES} minutes`"
        :choices="[{ value: WAIT, label: 'its texts wait' }, ...standIns.map(({ id, name }) => ({ value: id, label: `they leave over ${name}` }))]"
        :error="errors.standInId"
      />
      <div class="pair">
        <NumberField
          id="texts-a-minute"
          v-model="form.textsAMinute as number | null"
          label="Bulk texts a minute"
          :least="1"
          :error="errors.textsAMinute"
        />
        <NumberField
          id="texts-a-day"
          v-model="form.textsADay"
          label="And in a day, at most"
          :least="1"
          placeholder="as many as go"
          :error="errors.textsADay"
        />
      </div>
      <label class="check"><input
        v-model="form.records"
        type="checkbox"
        autofocus
      > <span>Calls over it are recorded <span class="quiet">from the answer on; who is called hears it said. Each call can be left out.</span></span></label>
      <p
        v-if="errors.records"
        class="field-error"
        role="alert"
      >
        {{ errors.records }}
      </p>
      <label class="check"><input
        v-model="form.ownerFirst"
        type="checkbox"
      > <span>It rings with the caller’s own colleague first <span class="quiet">for ten seconds.</span></span></label>
      <ColleagueOrder
        v-model="form.ringOrder"
        legend="It rings with these first, one after the other for ten seconds each"
        none="With everybody at once"
        then="Then with everybody; add a colleague"
        :error="errors.ringOrder"
      />
      <ColleagueOrder
        v-model="form.takeOrder"
        legend="What comes in and nobody has goes to these in turn, as far as they are signed in"
        none="To nobody in particular"
        then="Then from the top again; add a colleague"
        :error="errors.takeOrder"
      />
      <div class="sound">
        <ChoiceField
          id="ring-sound"
          v-model="form.ringSound"
          label="How it sounds in the browser"
          :choices="SOUNDS"
          :error="errors.ringSound"
        />
        <button
          type="button"
          class="plain-button"
          @click="ring(form.ringSound)"
        >
          Listen
        </button>
      </div>
      <label class="check"><input
        v-model="takes"
        type="checkbox"
      > <span>It takes messages</span></label>
      <template v-if="form.greeting !== null">
        <LabelledField
          id="greeting"
          v-slot="{ input }"
          label="What a caller hears before the tone"
          :error="errors.greeting"
        >
          <Textarea
            v-bind="input"
            v-model="form.greeting"
            rows="3"
          />
        </LabelledField>
        <NumberField
          id="ring-seconds"
          v-model="form.ringSeconds as number | null"
          label="After how many seconds of ringing"
          :least="5"
          :most="120"
          :error="errors.ringSeconds"
        />
        <label class="check"><input
          v-model="saysBusy"
          type="checkbox"
        > <span>At once while all who answer it are talking, with words of its own</span></label>
        <LabelledField
          v-if="form.busyGreeting !== null"
          id="busy-greeting"
          v-slot="{ input }"
          label="What a caller hears then"
          :error="errors.busyGreeting"
        >
          <Textarea
            v-bind="input"
            v-model="form.busyGreeting"
            rows="2"
          />
        </LabelledField>
        <label class="check"><input
          v-model="keeps"
          type="checkbox"
        > <span>At once outside of these hours, where the line is</span></label>
        <fieldset
          v-if="form.hours"
          class="hours"
        >
          <legend class="heard-only">
            Hours of the line
          </legend>
          <LabelledField
            id="opens"
            v-slot="{ input }"
            label="From"
            :error="errors['hours.opens']"
          >
            <TimeField
              v-bind="input"
              v-model="form.hours.opens"
              roomy
            />
          </LabelledField>
          <LabelledField
            id="closes"
            v-slot="{ input }"
            label="To"
            :error="errors['hours.closes']"
          >
            <TimeField
              v-bind="input"
              v-model="form.hours.closes"
              roomy
            />
          </LabelledField>
          <p class="days">
            <label
              v-for="day in DAYS"
              :key="day"
            ><input
              v-model="form.hours.days"
              type="checkbox"
              :value="day"
            > {{ WEEKDAYS[day]!.slice(0, 3) }}</label>
          </p>
          <p
            v-if="errors['hours.days']"
            class="field-error"
          >
            {{ errors['hours.days'] }}
          </p>
        </fieldset>
      </template>
      <p>
        <Button
          type="submit"
          label="Save this line"
          :loading="saving"
        />
      </p>
    </form>
  </FormDialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.check { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3); align-items: baseline; cursor: pointer; }
.pair { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-5); }
.sound { display: flex; gap: var(--space-5); align-items: end; }
.hours { border: 0; padding: 0 0 0 var(--space-8); margin: 0; display: grid; grid-template-columns: 8rem 8rem 1fr; gap: var(--space-4) var(--space-6); }
.days { grid-column: 1 / -1; display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); }
.days label { display: inline-flex; gap: var(--space-2); align-items: center; min-height: 24px; }
</style>
