<script setup lang="ts">
import DatePicker from 'primevue/datepicker'
import { usePrimeVue } from 'primevue/config'
import { readersFormat } from '~/words/reader'

/** A month to choose a day from, at the field that it belongs to. By itself, so that it is loaded only where it is opened. */
const day = defineModel<string>({ required: true })
const { at, until } = defineProps<{ at: HTMLElement, until?: string }>()
const emit = defineEmits<{ close: [] }>()

// where the day comes first weeks begin on Monday (ISO 8601), elsewhere on Sunday (common practice)
usePrimeVue().config.locale!.firstDayOfWeek = readersFormat().dayFirst ? 1 : 0

// the picker counts in the browser's own zone: only year, month and day of it mean anything
const dateOf = (iso: string) => new Date(`${iso}T12:00`)
const chosen = computed({
  get: () => day.value ? dateOf(day.value) : null,
  set: (date) => {
    if (date) day.value = [date.getFullYear(), date.getMonth() + 1, date.getDate()].map(n => String(n).padStart(2, '0')).join('-')
    popover.value?.hide()
  },
})

interface Overlay { show: (event: { currentTarget: HTMLElement }) => void, hide: () => void }
const popover = useTemplateRef<Overlay>('popover')
const month = useTemplateRef<HTMLElement>('month')
// once its place at the end of the page is there, without which it would not be moved to the field
onMounted(() => nextTick(() => popover.value?.show({ currentTarget: at })))
/** What is chosen and read out is the day in the cell, not the cell around it. */
const CELLS = { dayCell: { 'role': 'presentation', 'aria-label': null }, day: { role: 'gridcell' } }

const ENTRANCES = ['.p-datepicker-day-selected', '[data-p-today="true"] > .p-datepicker-day', '.p-datepicker-day[tabindex="0"]']
function enter(): void {
  const cell = ENTRANCES.map(one => month.value?.querySelector<HTMLElement>(one)).find(Boolean)
  // the picker itself gives the keys to today, or to the first
  cell?.setAttribute('tabindex', '0')
  cell?.focus()
}
</script>

<template>
  <Popover
    ref="popover"
    aria-label="Choose a day"
    @show="enter"
    @hide="emit('close')"
  >
    <div ref="month">
      <DatePicker
        v-model="chosen"
        inline
        :pt="CELLS"
        :max-date="until ? dateOf(until) : undefined"
      />
    </div>
  </Popover>
</template>
