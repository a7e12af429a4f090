<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { wallOf, type WallMoment } from '~~/core/hours/schedule'
import { api } from '~/composables/api'
import { useNow } from '~/composables/now'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'
import { nextWorkingMorning, sayMoment } from '~/words/moments'

/** Puts a conversation back: to be answered from now on, or again at a moment of mine, with a word why. */
const { conversationId } = defineProps<{ conversationId: string }>()
const emit = defineEmits<{ done: [], close: [] }>()

const HOUR = 3_600_000
const me = useMe()
const id = useId()
const now = useNow()
const { problem, busy, trying } = useTrying()
const zone = computed(() => me.me!.zone)
/** Kept as long as it was not said: Esc, or another page, takes no word away. */
const why = useSessionStorage<string | null>(`plauder-why-${conversationId}`, '')
const day = ref('')
const time = ref('')
const at = (wallTime: string): WallMoment => ({ wallTime, zone: zone.value.name })
const offers = computed(() => [
  { name: 'In an hour', later: at(wallOf(now.value + HOUR, zone.value).slice(0, 16)) },
  { name: 'Next working morning', later: at(nextWorkingMorning(zone.value, now.value)) },
])

/** A day without a time, or a time without a day, is no moment yet. */
const half = computed(() => (day.value === '') !== (time.value === ''))
const label = computed(() => {
  if (half.value) return 'Choose a day and a time'
  return day.value ? `Wait until ${sayMoment(at(`${day.value}T${time.value}`))}` : 'It waits from now on'
})

async function putBack(later: WallMoment | null): Promise<void> {
  const body = { later, why: why.value ?? '' }
  if (!await trying(() => api(`/api/conversations/${conversationId}/put-back`, { method: 'POST', body }))) return
  why.value = null
  emit('done')
}

const first = useTemplateRef<HTMLInputElement>('first')
onMounted(() => first.value?.focus())
</script>

<template>
  <form
    class="put-back"
    aria-label="Put the conversation back"
    @submit.prevent="putBack(day && time ? at(`${day}T${time}`) : null)"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <label class="why">Why <input
      ref="first"
      v-model="why"
      class="plain-field"
      maxlength="300"
      placeholder="asks at the workshop first"
    ></label>
    <button
      v-for="{ name, later } in offers"
      :key="name"
      type="button"
      class="plain-button"
      :disabled="busy"
      :title="sayMoment(later)"
      @click="putBack(later)"
    >
      {{ name }}
    </button>
    <span class="pair"><label :for="`${id}-day`">Day</label> <DayField
      :id="`${id}-day`"
      v-model="day"
    /></span>
    <span class="pair"><label :for="`${id}-time`">Time</label> <TimeField
      :id="`${id}-time`"
      v-model="time"
    /></span>
    <Button
      type="submit"
      size="small"
      :label="label"
      :disabled="half"
      :loading="busy"
    />
    <button
      type="button"
      class="plain-button calm"
      @click="emit('close')"
    >
      Cancel
    </button>
    <p
      v-if="problem"
      class="field-error"
      role="alert"
    >
      {{ problem }}
    </p>
  </form>
</template>

<style scoped>
.put-back { display: flex; flex-wrap: wrap; gap: var(--space-3) var(--space-6); align-items: center; border-top: 1px solid var(--rule); padding-top: var(--space-4); }
.put-back label, .pair { display: inline-flex; gap: var(--space-3); align-items: center; }
.why { flex-basis: 100%; }
.why input { flex: 1; }
.field-error { flex-basis: 100%; }
</style>
