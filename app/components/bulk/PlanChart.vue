<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { wallOf } from '~~/core/hours/schedule'
import { countBetween, type PlanRun } from '~~/core/plan/run'
import type { PlanPlace } from '~~/shared/bulk-texts'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { placeName } from '~/words/places'
import { clock, placeOf, shortDay } from '~/words/time'

/**
 * When each text leaves: places down, hours across, with the hours in which nobody there is texted. The start can be moved,
 * by dragging it or with the arrow keys.
 */
const { runs, places, start, last, event, now, movable = false } = defineProps<{
  runs: PlanRun[]
  places: PlanPlace[]
  start: number
  last: number | null
  event: number | null
  now: number
  movable?: boolean
}>()
const emit = defineEmits<{ move: [start: number] }>()
const { zone } = useMe().me!

const HOUR = 3_600_000
const QUARTER = HOUR / 4
const [LABEL, ROW, HEAD, FOOT, RIGHT] = [112, 46, 22, 24, 24]
/** As many bars as can still be told apart. */
const MOST_BARS = 80
const MOST_PLACES = 8

const figure = useTemplateRef<HTMLElement>('figure')
const { width: measured } = useElementSize(figure)
const width = computed(() => Math.max(420, Math.round(measured.value || 720)))
const rows = computed(() => {
  if (places.length <= MOST_PLACES) return places
  const rest = places.slice(MOST_PLACES - 1)
  return [...places.slice(0, MOST_PLACES - 1), {
    zones: [] as string[], regions: [] as string[], people: rest.reduce((sum, { people }) => sum + people, 0), groupIds: rest.flatMap(({ groupIds }) => groupIds), closed: [],
  }]
})
/** The hours shown: from the start on, never fewer than a working day. */
const range = computed(() => {
  const from = Math.floor(Math.min(start, now) / HOUR) * HOUR - HOUR
  const to = Math.max(last ?? start, event !== null && event - from < 3 * 24 * HOUR ? event : 0, from + 14 * HOUR)
  return [from, Math.ceil(to / HOUR) * HOUR + HOUR] as const
})
const step = computed(() => [1, 2, 3, 6, 12, 24].map(hours => hours * HOUR).find(ms => (range.value[1] - range.value[0]) / ms <= MOST_BARS) ?? 24 * HOUR)
const x = computed(() => scaleLinear().domain(range.value).range([LABEL, width.value - RIGHT]))
const height = computed(() => HEAD + rows.value.length * ROW + FOOT)

interface Bar { x: number, width: number, y: number, height: number, count: number, from: number }
const bars = computed<Bar[]>(() => {
  const [from, to] = range.value
  const counted = rows.value.flatMap(({ groupIds }, row) => {
    const own = runs.filter(run => groupIds.includes(run.groupId))
    const found: { row: number, at: number, count: number }[] = []
    for (let at = from; at < to; at += step.value) {
      const count = own.reduce((sum, run) => sum + countBetween(run, at, at + step.value), 0)
      if (count > 0) found.push({ row, at, count })
    }
    return found
  })
  const most = Math.max(1, ...counted.map(({ count }) => count))
  const y = scaleLinear().domain([0, most]).range([0, ROW - 10])
  return counted.map(({ row, at, count }) => {
    const tall = Math.max(2, y(count))
    // nothing leaves before the start, and no bar says so
    const begins = Math.max(at, Math.min(start, at + step.value))
    return {
      x: x.value(begins) + 1, width: Math.max(2, x.value(at + step.value) - x.value(begins) - 2), y: HEAD + (row + 1) * ROW - tall, height: tall, count, from: at,
    }
  })
})
const closed = computed(() => rows.value.flatMap(({ closed: nights }, row) => nights
  .map(({ from, to }) => [Math.max(from, range.value[0]), Math.min(to, range.value[1])] as const)
  .filter(([from, to]) => from < to)
  .map(([from, to]) => ({ x: x.value(from), width: x.value(to) - x.value(from), y: HEAD + row * ROW + 4, height: ROW - 4 }))))
const ticks = computed(() => {
  const [from, to] = range.value
  const every = to - from > 2 * 24 * HOUR ? 24 : 3
  const found: { x: number, label: string }[] = []
  for (let at = from; at <= to; at += HOUR) {
    const wall = wallOf(at, zone)
    if (Number(wall.slice(11, 13)) % every === 0) found.push({ x: x.value(at), label: every === 24 ? shortDay(at, zone) : clock(at, zone) })
  }
  return found
})
/** By its clock; where other hours hold in a part of it, with the names of that part. */
function nameOf({ zones, regions }: Pick<PlanPlace, 'zones' | 'regions'>): string {
  if (zones.length === 0) return 'elsewhere'
  const name = `${placeOf(zones[0]!)}${zones.length > 1 ? ' and others' : ''}`
  const shared = places.filter(other => other.zones.join() === zones.join()).length > 1
  return shared && regions.length > 0 ? `${name}, ${regions.slice(0, 2).map(placeName).join(', ')}${regions.length > 2 ? '…' : ''}` : name
}
const sayStart = (at: number) => `${shortDay(at, zone)}, ${clock(at, zone)}`
const summary = computed(() => rows.value.map((place) => {
  const own = runs.filter(run => place.groupIds.includes(run.groupId))
  if (own.length === 0) return `${nameOf(place)}: none`
  const [first, final] = [Math.min(...own.map(({ from }) => from)), Math.max(...own.map(run => run.from + (run.people - 1) * run.everyMs))]
  return `${nameOf(place)}: ${many(own.reduce((sum, { people }) => sum + people, 0), 'text', 'texts')}, ${sayStart(first)} to ${sayStart(final)}`
}).join('; '))

/** Never before now, on a quarter of an hour. */
const moved = (at: number) => emit('move', Math.max(now, Math.round(at / QUARTER) * QUARTER))
const dragging = ref(false)
const svg = useTemplateRef<SVGSVGElement>('svg')
function drag(pointer: PointerEvent): void {
  if (!dragging.value || !svg.value) return
  const box = svg.value.getBoundingClientRect()
  moved(x.value.invert((pointer.clientX - box.left) / box.width * width.value))
}
useEventListener('pointermove', drag)
useEventListener('pointerup', () => dragging.value = false)
function byKey(key: KeyboardEvent): void {
  const by = { ArrowLeft: -QUARTER, ArrowRight: QUARTER, PageUp: -HOUR, PageDown: HOUR }[key.key]
  if (by === undefined) return
  key.preventDefault()
  moved(start + by)
}
</script>

<template>
  <figure
    ref="figure"
    class="chart"
  >
    <svg
      ref="svg"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="group"
      :aria-label="`When each leaves. ${summary}`"
    >
      <defs>
        <pattern
          id="plan-night"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line
            y2="7"
            class="hatch"
          />
        </pattern>
      </defs>
      <g
        v-for="tick in ticks"
        :key="tick.x"
        aria-hidden="true"
      >
        <line
          :x1="tick.x"
          :x2="tick.x"
          :y1="HEAD"
          :y2="height - FOOT"
          class="tick"
        />
        <text
          :x="tick.x"
          y="14"
          class="hour"
        >{{ tick.label }}</text>
      </g>
      <g aria-hidden="true">
        <rect
          v-for="(night, i) in closed"
          :key="i"
          :x="night.x"
          :y="night.y"
          :width="night.width"
          :height="night.height"
          fill="url(#plan-night)"
        />
      </g>
      <g
        v-for="(place, row) in rows"
        :key="row"
        aria-hidden="true"
      >
        <text
          x="0"
          :y="HEAD + row * ROW + 20"
          class="place"
        >{{ nameOf(place) }}</text>
        <text
          x="0"
          :y="HEAD + row * ROW + 36"
          class="people"
        >{{ many(place.people, 'text', 'texts') }}</text>
        <line
          :x1="LABEL"
          :x2="width - RIGHT"
          :y1="HEAD + (row + 1) * ROW"
          :y2="HEAD + (row + 1) * ROW"
          class="floor"
        />
      </g>
      <g aria-hidden="true">
        <rect
          v-for="bar in bars"
          :key="`${bar.x} ${bar.y}`"
          :x="bar.x"
          :y="bar.y"
          :width="bar.width"
          :height="bar.height"
          class="bar"
        >
          <title>{{ many(bar.count, 'text', 'texts') }} from {{ sayStart(bar.from) }}</title>
        </rect>
      </g>
      <g
        v-if="event !== null && event >= range[0] && event <= range[1]"
        aria-hidden="true"
      >
        <line
          :x1="x(event)"
          :x2="x(event)"
          :y1="HEAD"
          :y2="height - FOOT"
          class="event"
        />
        <text
          :x="Math.min(x(event), width - 60)"
          :y="height - 6"
          class="foot"
        >the event</text>
      </g>
      <g
        class="start"
        :class="{ movable, dragging }"
        v-bind="movable ? {
          'role': 'slider', 'tabindex': 0, 'aria-label': 'Start', 'aria-valuenow': start, 'aria-valuemin': now, 'aria-valuemax': range[1], 'aria-valuetext': sayStart(start),
        } : { 'aria-hidden': 'true' }"
        @pointerdown.prevent="dragging = movable"
        @keydown="movable && byKey($event)"
      >
        <rect
          :x="x(start) - 8"
          :y="HEAD - 4"
          width="16"
          :height="height - HEAD - FOOT + 8"
          class="grip"
        />
        <line
          :x1="x(start)"
          :x2="x(start)"
          :y1="HEAD - 4"
          :y2="height - FOOT + 4"
        />
        <text
          :x="x(start) + 4"
          :y="height - 6"
        >start {{ clock(start, zone) }}, your time</text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
.chart { margin: 0; overflow-x: auto; }
svg { display: block; max-width: none; }
text { font-size: 12px; fill: var(--quiet); font-variant-numeric: tabular-nums; }
.hour { text-anchor: middle; }
.place { font-weight: 700; fill: var(--ink); font-size: 13px; }
.tick { stroke: var(--rule); }
.floor { stroke: var(--field-rule); }
.hatch { stroke: var(--field-rule); stroke-width: 2; }
.bar { fill: var(--accent); }
.event { stroke: var(--waiting); stroke-width: 2; }
.foot { fill: var(--waiting); }
.start line { stroke: var(--ink); stroke-width: 2; stroke-dasharray: 4 3; }
.start text { fill: var(--ink); }
.grip { fill: transparent; }
.movable { cursor: ew-resize; outline: none; }
.movable:focus-visible .grip { fill: var(--accent-ground); }
.dragging .grip { fill: var(--accent-ground); }
</style>
