<script setup lang="ts">
import type { ZoneRules } from '~~/core/hours/rules'
import type { WallMoment } from '~~/core/hours/schedule'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { sayElsewhere, sayMoment, nextWorkingMorning } from '~/words/moments'
import { placeOf } from '~/words/time'

/** When a text is to leave, by the person's clock or by mine. */
const { theirs, person, moment, problem = '', busy = false } = defineProps<{
  /** Where the person is, as far as it is known. */
  theirs: ZoneRules[]
  person: string
  /** The moment as it stands, of one that is changed. */
  moment?: WallMoment | null
  problem?: string
  busy?: boolean
}>()
const emit = defineEmits<{ choose: [moment: WallMoment], close: [] }>()

const id = useId()
const me = useMe()
const now = useNow()
const zones = computed(() => [...theirs.slice(0, 1), ...theirs[0]?.name === me.me!.zone.name ? [] : [me.me!.zone]])
const zone = ref(moment?.zone ?? zones.value[0]!.name)
const rules = computed(() => zones.value.find(({ name }) => name === zone.value) ?? zones.value[0]!)
const start = moment?.wallTime ?? nextWorkingMorning(rules.value, now.value)
const day = ref(start.slice(0, 10))
const time = ref(start.slice(11))
const chosen = computed<WallMoment>(() => ({ wallTime: `${day.value}T${time.value}`, zone: zone.value }))
const complete = computed(() => day.value !== '' && time.value !== '')
const elsewhere = computed(() =>
  complete.value ? zones.value.map(other => sayElsewhere(chosen.value, zones.value, other)).find(Boolean) : null,
)
const whose = ({ name }: ZoneRules) => name === theirs[0]?.name ? `${person}’s time, ${placeOf(name)}` : `my time, ${placeOf(name)}`

const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => form.value?.querySelector<HTMLInputElement>('input')?.focus())
</script>

<template>
  <form
    ref="form"
    class="later"
    aria-label="Send later"
    @submit.prevent="emit('choose', chosen)"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <span class="pair"><label :for="`${id}-day`">Day</label> <DayField
      :id="`${id}-day`"
      v-model="day"
      required
    /></span>
    <span class="pair"><label :for="`${id}-time`">Time</label> <TimeField
      :id="`${id}-time`"
      v-model="time"
      required
    /></span>
    <fieldset class="clocks">
      <legend class="heard-only">
        By whose clock
      </legend>
      <label
        v-for="one in zones"
        :key="one.name"
      ><input
        v-model="zone"
        type="radio"
        name="later-zone"
        :value="one.name"
      > {{ whose(one) }}</label>
    </fieldset>
    <p
      v-if="elsewhere"
      class="small quiet figures"
    >
      That is {{ elsewhere }}.
    </p>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
    <p class="acts">
      <Button
        type="submit"
        size="small"
        :label="complete ? `Send at ${sayMoment(chosen)}` : 'Choose a day and a time'"
        :disabled="!complete"
        :loading="busy"
      />
      <button
        type="button"
        class="plain-button"
        @click="emit('close')"
      >
        Cancel
      </button>
    </p>
  </form>
</template>

<style scoped>
.later { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-3) var(--space-7); border-top: 1px solid var(--rule); margin-top: var(--space-3); padding-top: var(--space-4); }
.later .pair, .clocks label { display: inline-flex; align-items: center; gap: var(--space-3); }
.clocks { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); border: 0; margin: 0; padding: 0; }
.acts { display: flex; align-items: center; gap: var(--space-6); flex-basis: 100%; }
.small, .field-error { flex-basis: 100%; }
</style>
