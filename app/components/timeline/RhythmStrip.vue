<script setup lang="ts">
import { useResizeObserver, watchDebounced } from '@vueuse/core'
import { rhythmColumns, type RhythmColumn, type RhythmDay } from '~~/core/timeline/rhythm'
import { api } from '~/composables/api'
import { many } from '~/words/count'

/** A year of contact at a glance: ours above the line, theirs below, calls as dots on top. Pressing it goes to that time. */
const { recordId, changes } = defineProps<{ recordId: string, changes: number }>()
const emit = defineEmits<{ go: [day: string] }>()

const COLUMN = 7
const SQUARE = 4
const MOST = 4
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

const box = useTemplateRef<HTMLElement>('box')
const width = ref(0)
// told, not asked: asking when it is mounted would lay the page out before the rest of it is there
useResizeObserver(box, ([entry]) => {
  width.value = entry!.contentRect.width
})
const year = shallowRef<{ first: number, last: number, days: RhythmDay[] } | null>(null)

async function load(): Promise<void> {
  // the strip is a help beside the timeline, which says itself when it cannot be loaded
  year.value = await api<{ first: number, last: number, days: RhythmDay[] }>(`/api/records/${recordId}/rhythm`).catch(() => null)
}
// who it is and what was said come first; and a year changes little by one entry, so several lead to one load
watchDebounced(() => changes, load, { debounce: 300, immediate: true })

const columns = computed(() =>
  year.value && width.value > 0 ? rhythmColumns(year.value.days, year.value.first, year.value.last, Math.floor(width.value / COLUMN)) : [],
)
const step = computed(() => columns.value.length > 0 ? width.value / columns.value.length : COLUMN)
const months = computed(() => {
  let before = -1
  return columns.value.flatMap((column, index) => {
    const month = new Date(column.from * 86_400_000).getUTCMonth()
    const isNew = month !== before && before !== -1
    before = month
    return isNew && month % 2 === 0 ? [{ x: index * step.value, name: MONTHS[month]! }] : []
  })
})
const sums = computed(() =>
  columns.value.reduce((sum, c) => ({ ours: sum.ours + c.ours, theirs: sum.theirs + c.theirs, calls: sum.calls + c.calls }), {
    ours: 0,
    theirs: 0,
    calls: 0,
  }),
)
/** Where the keyboard stands in it. */
const at = ref<number | null>(null)
const here = computed(() => at.value === null ? columns.value.length - 1 : Math.min(at.value, columns.value.length - 1))
const dayOf = (day: number) => new Date(day * 86_400_000).toISOString().slice(0, 10)

function say(column: RhythmColumn | undefined): string {
  if (!column) return ''
  const date = new Date(column.to * 86_400_000)
  return `Until ${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}: ${many(column.ours, 'text', 'texts')} from us, ${column.theirs} from them, ${many(column.calls, 'call', 'calls')}`
}

function go(index: number): void {
  const column = columns.value[index]
  if (!column) return
  at.value = index
  emit('go', dayOf(column.to))
}

const goByMouse = (event: MouseEvent) => go(Math.floor((event.clientX - box.value!.getBoundingClientRect().left) / step.value))

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -4, PageDown: 4, Home: -1_000, End: 1_000 }
function move(event: KeyboardEvent): void {
  const by = STEPS[event.key]
  if (by === undefined) return
  event.preventDefault()
  at.value = Math.max(0, Math.min(columns.value.length - 1, here.value + by))
}

const stack = (count: number) => Array.from({ length: Math.min(MOST, count) }, (_, i) => i)
</script>

<template>
  <figure
    ref="box"
    class="rhythm"
  >
    <svg
      v-if="columns.length > 0"
      :viewBox="`0 0 ${width} 58`"
      :width="width"
      height="58"
      role="slider"
      tabindex="0"
      aria-valuemin="0"
      :aria-valuemax="columns.length - 1"
      :aria-valuenow="here"
      :aria-valuetext="say(columns[here])"
      :aria-label="`In the last year ${sums.ours} texts from us, ${sums.theirs} from them, ${sums.calls} calls. Enter goes to that time`"
      @click="goByMouse"
      @keydown="move"
      @keydown.enter.prevent="go(here)"
    >
      <line
        x1="0"
        :x2="width"
        y1="27"
        y2="27"
        class="axis"
      />
      <g
        v-for="(column, index) in columns"
        :key="column.from"
        :transform="`translate(${index * step} 0)`"
        :class="{ here: index === at }"
      >
        <title>{{ say(column) }}</title>
        <rect
          class="reach"
          :width="step"
          height="46"
        />
        <rect
          v-for="i in stack(column.ours)"
          :key="`o${i}`"
          class="ours"
          x="0"
          :y="22 - i * (SQUARE + 1)"
          :width="SQUARE"
          :height="SQUARE"
        />
        <rect
          v-for="i in stack(column.theirs)"
          :key="`t${i}`"
          class="theirs"
          x="0"
          :y="29 + i * (SQUARE + 1)"
          :width="SQUARE"
          :height="SQUARE"
        />
        <circle
          v-if="column.calls > 0"
          class="call"
          :cx="SQUARE / 2"
          cy="2.2"
          r="2.2"
        />
      </g>
      <text
        v-for="month in months"
        :key="month.x"
        :x="month.x"
        y="57"
        class="month"
      >{{ month.name }}</text>
    </svg>
  </figure>
</template>

<style scoped>
/* the drawing takes its width from here, so it must not hold it open */
.rhythm { min-height: 58px; min-width: 0; overflow: hidden; }
.rhythm svg { cursor: pointer; border-radius: var(--round-small); }
.rhythm svg:focus-visible { outline: 2px solid var(--accent); }
.reach { fill: transparent; }
.here .reach, g:hover > .reach { fill: var(--hover); }
.axis { stroke: var(--field-rule); }
.ours { fill: var(--accent); }
.theirs { fill: var(--good); }
.call { fill: var(--calm); }
.month { fill: var(--quiet); font-size: 11px; }
</style>
