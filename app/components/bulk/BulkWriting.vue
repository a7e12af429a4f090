<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { instantOf, wallOf } from '~~/core/hours/schedule'
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import type { LineChoice } from '~~/shared/composer'
import { api } from '~/composables/api'
import { keptOnPage, type BulkWording } from '~/composables/bulk-wording'
import { useKeys } from '~/composables/keys'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'

/** What a bulk text says, to which numbers, over which line, and for what occasion. What was typed outlives a reload. */
const { bulk } = defineProps<{ bulk: BulkTextDetail }>()
const emit = defineEmits<{ written: [] }>()
const { zone } = useMe().me!

interface Written extends BulkWording {
  name: string
  lineId: string
  numberWay: BulkTextDetail['numberWay']
  numberLabel: string
  latelyDays: string
  holdOut: string
  occasion: string
  place: string
  day: string
  time: string
}
/** Each person's usual line; whoever has none gets the nearest, or any that suits. */
const [USUAL, SPREAD] = ['usual', 'spread']
const at = bulk.eventAt === null ? '' : wallOf(bulk.eventAt, zone)
const kept = keptOnPage(bulk.id)
const form = useSessionStorage<Written>(kept, {
  name: bulk.name,
  body: bulk.body,
  templateId: bulk.template?.id ?? null,
  templateVersion: bulk.template?.version ?? null,
  fillIns: bulk.fillIns,
  answers: bulk.answers as Record<string, string>,
  lineId: bulk.lineId ?? (bulk.spread ? SPREAD : USUAL),
  numberWay: bulk.numberWay,
  numberLabel: bulk.numberLabel,
  pictureIds: bulk.pictureIds,
  latelyDays: String(bulk.latelyDays),
  holdOut: String(bulk.holdOut),
  occasion: bulk.occasion,
  place: bulk.place,
  day: at.slice(0, 10),
  time: at.slice(11),
}, { mergeDefaults: true })

const { found: lines } = useLoaded<LineChoice[]>('/api/lines')
const { errors, saving, save } = useSaving('body')
const eventProblem = ref('')
function eventAt(): number | null | undefined {
  const { day, time } = form.value
  if (!day && !time) return null
  const found = instantOf(`${day}T${time || '00:00'}`, zone)
  return found.ok ? found.instant : undefined
}
const check = () => save(async () => {
  const moment = eventAt()
  eventProblem.value = moment === undefined ? 'Choose a day and a time that there is, or neither.' : ''
  if (moment === undefined) return
  const { day: _day, time: _time, lineId, latelyDays, holdOut, ...rest } = form.value
  await api(`/api/bulk-texts/${bulk.id}`, {
    method: 'PUT',
    body: {
      ...rest,
      lineId: lineId === USUAL || lineId === SPREAD ? null : lineId,
      spread: lineId === SPREAD,
      latelyDays: latelyDays === '' ? null : Number(latelyDays),
      holdOut: Number(holdOut),
      eventAt: moment,
    },
  })
  await api(`/api/bulk-texts/${bulk.id}/check`, { method: 'POST', body: {} })
  // from here on the server has it
  sessionStorage.removeItem(kept)
  emit('written')
})
useKeys([{ keys: '$mod+Enter', shown: 'Ctrl Enter', what: 'Check everybody', act: () => void check(), inFields: true, first: true }])
onMounted(() => {
  const name = document.querySelector<HTMLInputElement>('#bulk-name')
  name?.focus()
  name?.select()
})
</script>

<template>
  <form
    class="writing"
    novalidate
    @submit.prevent="check"
  >
    <div class="column">
      <LabelledField
        id="bulk-name"
        v-slot="{ input }"
        label="Name, for you and your colleagues"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="form.name"
        />
      </LabelledField>
      <BulkWords
        v-model="form"
        :modules="bulk.modules"
        :errors="errors"
      />
    </div>
    <div class="column">
      <fieldset class="occasion">
        <legend>The occasion, if there is one</legend>
        <LabelledField
          id="bulk-occasion"
          v-slot="{ input }"
          label="What"
          :error="errors.occasion"
        >
          <InputText
            v-bind="input"
            v-model="form.occasion"
            placeholder="Demonstration day"
          />
        </LabelledField>
        <LabelledField
          id="bulk-place"
          v-slot="{ input }"
          label="Where"
          :error="errors.place"
        >
          <InputText
            v-bind="input"
            v-model="form.place"
            placeholder="Halifax"
          />
        </LabelledField>
        <LabelledField
          id="bulk-day"
          v-slot="{ input }"
          label="Day"
          :error="errors.eventAt || eventProblem"
        >
          <DayField
            :id="input.id"
            v-model="form.day"
            roomy
          />
        </LabelledField>
        <LabelledField
          id="bulk-time"
          v-slot="{ input }"
          label="Time, yours"
        >
          <TimeField
            :id="input.id"
            v-model="form.time"
            roomy
          />
        </LabelledField>
        <p class="quiet small whole">
          Whoever could not be reached before it is left out, and named.
        </p>
      </fieldset>
      <LabelledField
        id="bulk-line"
        v-slot="{ input }"
        label="Line"
        :error="errors.lineId"
      >
        <select
          v-bind="input"
          v-model="form.lineId"
          class="plain-field"
        >
          <option :value="USUAL">
            each person’s usual one, else the nearest
          </option>
          <option :value="SPREAD">
            each person’s usual one, else spread over all that suit
          </option>
          <option
            v-for="line in lines?.filter(({ active }) => active) ?? []"
            :key="line.id"
            :value="line.id"
          >
            {{ line.name }}
          </option>
        </select>
      </LabelledField>
      <LabelledField
        id="bulk-number"
        v-slot="{ input }"
        label="Number"
        :error="errors.numberWay"
      >
        <select
          v-bind="input"
          v-model="form.numberWay"
          class="plain-field"
        >
          <option value="mobile">
            a mobile before any other
          </option>
          <option value="answered">
            the one from which they answered last
          </option>
          <option value="label">
            the one with a label
          </option>
        </select>
      </LabelledField>
      <LabelledField
        v-if="form.numberWay === 'label'"
        id="bulk-labelled"
        v-slot="{ input }"
        label="Its label, such as Work; where none has it, a mobile"
        :error="errors.numberLabel"
      >
        <InputText
          v-bind="input"
          v-model="form.numberLabel"
        />
      </LabelledField>
      <LabelledField
        id="bulk-lately"
        v-slot="{ input }"
        label="Point out whom we have texted within so many days"
        :error="errors.latelyDays"
      >
        <InputText
          v-bind="input"
          v-model="form.latelyDays"
          class="few"
          inputmode="numeric"
        />
      </LabelledField>
      <LabelledField
        id="bulk-hold-out"
        v-slot="{ input }"
        label="Hold back so many of a hundred, by chance"
        :error="errors.holdOut"
      >
        <InputText
          v-bind="input"
          v-model="form.holdOut"
          class="few"
          inputmode="numeric"
        />
        <p class="field-hint">
          They get nothing; afterwards you see what the text itself has made of it.
        </p>
      </LabelledField>
      <p class="acts">
        <Button
          type="submit"
          label="Check everybody"
          :loading="saving"
        />
        <span class="quiet small"><kbd>Ctrl Enter</kbd> Nothing is sent by that.</span>
      </p>
    </div>
  </form>
</template>

<style scoped>
.writing { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: var(--space-9); align-content: start; }
.column { display: grid; gap: var(--space-5); align-content: start; min-width: 0; }
fieldset { border: 0; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: var(--space-4) var(--space-5); }
legend { font-weight: 700; padding-bottom: var(--space-2); }
select { width: 100%; }
.whole { grid-column: 1 / -1; }
.few { width: 6rem; }
.acts { display: flex; align-items: center; gap: var(--space-6); }
@media (max-width: 1000px) { .writing { grid-template-columns: minmax(0, 1fr); } }
</style>
