<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { scaleBand, scaleLinear } from 'd3-scale'
import { usualParts, usualUnits } from '~~/core/template/length'
import { MODULE_FACTS } from '~~/shared/modules'
import type { TemplateForm } from '~~/shared/schemas/template'
import { useLength } from '~/composables/length'

/** How long the template becomes for the people there are, who needs more parts, and who would get nothing. */
const { template, labelOf } = defineProps<{
  template: Pick<TemplateForm, 'body' | 'modules' | 'fillIns'>
  labelOf: (path: string) => string
}>()

const { tally, total, state, problem, count, stop } = useLength()
// counted anew as it is written, and when it is opened, for records change too
watchDebounced(() => JSON.stringify(template), () => void count(template), { debounce: 400, immediate: true })

const usual = computed(() => tally.value && usualParts(tally.value))
const units = computed(() => tally.value && usualUnits(tally.value))
const who = computed(() => template.modules.map(module => MODULE_FACTS[module].many.toLowerCase()).join(', '))
const people = (n: number) => `${n.toLocaleString('en-US')} ${n === 1 ? 'person' : 'people'}`
const inParts = (n: number) => n === 1 ? '1 part' : `${n} parts`

const [WIDTH, HEIGHT, FOOT, HEAD] = [360, 110, 18, 16]
const bars = computed(() => {
  const parts = Object.entries(tally.value?.parts ?? {})
    .map(([key, n]) => ({ parts: Number(key), people: n }))
    .sort((a, b) => a.parts - b.parts)
  const all
    = parts.length > 0
      ? Array.from({ length: Math.min(10, parts.at(-1)!.parts) }, (_, i) => ({ parts: i + 1, people: tally.value!.parts[i + 1] ?? 0 }))
      : []
  const x = scaleBand<number>().domain(all.map(one => one.parts)).range([0, Math.min(WIDTH, all.length * 72)]).padding(0.35)
  const y = scaleLinear().domain([0, Math.max(1, ...all.map(one => one.people))]).range([HEIGHT - FOOT, HEAD])
  return all.map(one => ({ ...one, x: x(one.parts)!, width: x.bandwidth(), y: y(one.people), height: HEIGHT - FOOT - y(one.people) }))
})
const held = computed(() => Object.entries(tally.value?.held ?? {}).sort(([, a], [, b]) => b.people - a.people))
const more = computed(() => tally.value?.most.filter(one => one.parts > (usual.value?.parts ?? 0)) ?? [])
</script>

<template>
  <section
    class="length"
    aria-label="Length over all people"
  >
    <h2>Over all {{ who }}</h2>
    <p
      v-if="state === 'counting'"
      class="small quiet"
      role="status"
    >
      {{ (tally?.people ?? 0).toLocaleString('en-US') }} of {{ total?.toLocaleString('en-US') ?? 'all' }} counted.
      <button
        type="button"
        class="plain-button calm"
        @click="stop"
      >
        Stop
      </button>
    </p>
    <p
      v-else-if="state === 'stopped'"
      class="small quiet"
    >
      Stopped after {{ people(tally?.people ?? 0) }} of {{ total?.toLocaleString('en-US') }}.
    </p>
    <p
      v-else-if="state === 'failed'"
      class="small quiet"
    >
      {{ problem }}
    </p>
    <p
      v-if="tally && tally.people === 0 && state === 'done'"
      class="quiet"
    >
      There is nobody in {{ who }} yet.
    </p>
    <template v-if="tally && tally.people > 0">
      <p
        v-if="usual"
        class="sum"
      >
        <strong>{{ inParts(usual.parts) }}</strong> for most, {{ units }} characters as a rule.
      </p>
      <p
        v-if="tally.shortest && tally.longest"
        class="sum small quiet"
      >
        From {{ tally.shortest.units }} characters for <NuxtLink :to="`/record/${tally.shortest.id}`">{{ tally.shortest.name }}</NuxtLink> to {{ tally.longest.units }} for <NuxtLink :to="`/record/${tally.longest.id}`">{{ tally.longest.name }}</NuxtLink>, {{ people(tally.people) }} counted.
      </p>
      <svg
        v-if="bars.length > 1"
        :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
        class="chart"
        role="img"
        :aria-label="bars.map(bar => `${inParts(bar.parts)}: ${people(bar.people)}`).join(', ')"
      >
        <g
          v-for="bar in bars"
          :key="bar.parts"
        >
          <rect
            :x="bar.x"
            :y="bar.y"
            :width="bar.width"
            :height="bar.height"
            :class="{ more: bar.parts > (usual?.parts ?? 0) }"
            rx="2"
          />
          <text
            :x="bar.x + bar.width / 2"
            :y="bar.y - 4"
          >{{ bar.people.toLocaleString('en-US') }}</text>
          <text
            :x="bar.x + bar.width / 2"
            :y="HEIGHT - 4"
            class="foot"
          >{{ inParts(bar.parts) }}</text>
        </g>
        <line
          x1="0"
          :x2="WIDTH"
          :y1="HEIGHT - FOOT"
          :y2="HEIGHT - FOOT"
        />
      </svg>
      <details v-if="usual && usual.more > 0">
        <summary>{{ people(usual.more) }} {{ usual.more === 1 ? 'needs' : 'need' }} more than {{ inParts(usual.parts) }}</summary>
        <ul>
          <li
            v-for="one in more"
            :key="one.id"
          >
            <NuxtLink :to="`/record/${one.id}`">
              {{ one.name }}
            </NuxtLink> <span class="small quiet figures">{{ one.units }} characters, {{ inParts(one.parts) }}</span>
          </li>
        </ul>
      </details>
      <p
        v-if="tally.dear > 0"
        class="small"
      >
        {{ people(tally.dear) }} {{ tally.dear === 1 ? 'has' : 'have' }} a character in the text that makes it dear.
      </p>
      <details
        v-for="[path, one] in held"
        :key="path"
        class="held"
      >
        <summary><strong>{{ labelOf(path) }}</strong> is empty for {{ people(one.people) }}, who would get nothing</summary>
        <p class="small quiet">
          Choose the pill in the text and give it a stand-in, or fill it in on
          <template
            v-for="(person, place) in one.some"
            :key="person.id"
          >
            {{ place > 0 ? ', ' : '' }}<NuxtLink :to="`/record/${person.id}`">{{ person.name }}</NuxtLink>
          </template><template v-if="one.people > one.some.length">
            and others
          </template>.
        </p>
      </details>
    </template>
  </section>
</template>

<style scoped>
.length { display: grid; gap: var(--space-3); align-content: start; }
.sum a { color: inherit; }
.chart { width: 100%; max-width: 360px; }
.chart rect { fill: var(--accent); }
.chart rect.more { fill: var(--waiting); }
.chart text { font-size: 11px; text-anchor: middle; fill: var(--ink); font-variant-numeric: tabular-nums; }
.chart .foot { fill: var(--quiet); }
.chart line { stroke: var(--field-rule); }
.held summary { color: var(--waiting); }
summary { cursor: pointer; }
details ul { padding: var(--space-2) 0 0 var(--space-5); }
</style>
