<script setup lang="ts">
import { CAPACITY, capacityOf, measureText, type TextMeasure } from '~~/core/text/measure'
import { readShift, type NationalLanguage } from '~~/core/text/national'
import { encodingPins } from '~~/core/text/pins'
import { sayMoney } from '~~/core/numbers/money'
import { swapFor } from '~~/core/text/swaps'
import { TABLE_WORDS } from '~/words/tables'

/** A ruler in the text's own units: where each part ends, where the text is now, and what makes it dear. */
const { text, measure, price, languages = [] } = defineProps<{
  text: string
  measure: TextMeasure
  /** Whose national tables the line's carrier knows. */
  languages?: readonly NationalLanguage[]
  price: { microsPerPart: number, currency: string, mostParts: number } | null
}>()

const emit = defineEmits<{ swap: [text: string] }>()

const single = computed(() => capacityOf(measure).single)
const joined = computed(() => capacityOf(measure).joined)
/** The ruler reaches to the end of the part the text is in. */
const length = computed(() => measure.parts <= 1 ? single.value : measure.parts * joined.value)
const at = (units: number) => `${Math.min(100, 100 * units / length.value)}%`
const ends = computed(() => measure.parts <= 1 ? [single.value] : Array.from({ length: measure.parts }, (_, i) => (i + 1) * joined.value))
/** Units used, counting what a moved pair leaves empty at a part's end. */
const reached = computed(() => measure.parts <= 1 ? measure.units : measure.parts * joined.value - measure.room)
const ticks = computed(() => {
  const step = [10, 20, 50, 100, 200].find(size => length.value / size <= 34) ?? 500
  return Array.from({ length: Math.floor(length.value / step) }, (_, i) => ({ units: (i + 1) * step, long: (i + 1) % 5 === 0 }))
})
const pins = computed(() => measure.encoding === 'UCS-2' ? encodingPins(text, undefined, languages) : [])
const dear = computed(() => [...new Set(pins.value.map(pin => pin.char))].slice(0, 5))
/** What says the same without making parts shorter, where all of it can be said so; null where that is not so, or nothing is won. */
const swapped = computed(() => {
  if (pins.value.length === 0) return null
  const plain = [...new Set(pins.value.map(pin => pin.char))].reduce((words, char) => words.replaceAll(char, swapFor(char) ?? char), text)
  return plain !== text && measureText(plain, languages).encoding !== 'UCS-2' ? plain : null
})
/** The language whose letters the header of each part names. */
const tables = computed(() => measure.shift ? TABLE_WORDS[readShift(measure.shift).language] : null)
const cost = computed(() => price ? sayMoney({ micros: measure.parts * price.microsPerPart, currency: price.currency }) : null)
const tooLong = computed(() => price !== null && measure.parts > price.mostParts)

const plural = (count: number, word: string) => `${count} ${word}${count === 1 ? '' : 's'}`
/** Some characters take the room of two. */
const counted = computed(() => {
  const twice = measure.units - [...text].length
  return twice > 0 ? ` (${twice === 1 ? 'one counts' : `${twice} count`} twice)` : ''
})
const sum = computed(() =>
  measure.parts === 0
    ? 'Nothing written yet'
    : [plural(measure.parts, 'part'), `${plural(measure.units, 'character')}${counted.value}`, cost.value].filter(Boolean).join(', '),
)
const hint = computed(() => {
  if (measure.units === 0) return `${single.value} characters make one part`
  if (tooLong.value) return `the carrier takes ${price!.mostParts} parts at most`
  if (measure.parts === 1) return `${plural(measure.room, 'character')} left in this part`
  const over = measure.parts === 2 ? measure.units - single.value : reached.value - (measure.parts - 1) * joined.value
  const shorter = `${plural(over, 'character')} shorter and it is ${measure.parts === 2 ? 'one part' : plural(measure.parts - 1, 'part')}`
  return [`${plural(measure.room, 'character')} left in this part`, price && `the carrier takes ${price.mostParts} parts`, shorter].filter(Boolean).join(', ')
})
</script>

<template>
  <div class="ruler">
    <div
      class="scale"
      aria-hidden="true"
    >
      <span
        class="used"
        :style="{ width: at(reached) }"
      />
      <span
        v-for="tick in ticks"
        :key="tick.units"
        class="tick"
        :class="{ long: tick.long }"
        :style="{ left: at(tick.units) }"
      />
      <span
        v-for="end in ends"
        :key="`end-${end}`"
        class="end"
        :style="{ left: at(end) }"
      />
      <span
        v-for="pin in pins"
        :key="pin.index"
        class="pin"
        :style="{ left: at(pin.index) }"
      />
      <span
        v-if="measure.units > 0"
        class="here"
        :style="{ left: at(reached) }"
      />
    </div>
    <p class="words figures">
      <strong :class="{ failed: tooLong }">{{ sum }}</strong>
      <span
        class="hint"
        :class="{ more: measure.parts > 1 }"
      >{{ hint }}</span>
    </p>
    <p
      v-if="dear.length > 0"
      class="words dear"
    >
      <span>
        <b
          v-for="char in dear"
          :key="char"
          class="char"
        >{{ char }}</b> {{ dear.length === 1 ? 'makes' : 'make' }} a part hold {{ CAPACITY['UCS-2'].single }} characters instead of {{ CAPACITY['GSM-7'].single }}
      </span>
      <button
        v-if="swapped !== null"
        type="button"
        class="plain-button"
        @click="emit('swap', swapped)"
      >
        Write it plainly
      </button>
    </p>
    <p
      v-if="tables"
      class="words hint"
    >
      In {{ tables }} letters: a part holds {{ single }} characters instead of {{ CAPACITY['UCS-2'].single }}
    </p>
  </div>
</template>

<style scoped>
.ruler { padding: var(--space-2) 0 var(--space-hair); }
.scale { position: relative; height: 20px; margin-right: 4px; }
.scale::before { content: ''; position: absolute; inset: 6px 0 auto; height: 3px; background: var(--rule); }
.used { position: absolute; left: 0; top: 6px; height: 3px; background: var(--accent); transition: width var(--move); }
.tick { position: absolute; top: 10px; width: 1px; height: 5px; background: var(--field-rule); }
.tick.long { height: 8px; }
.end { position: absolute; top: 1px; width: 2px; height: 17px; margin-left: -1px; background: var(--ink); }
.pin { position: absolute; top: 9px; width: 6px; height: 6px; margin-left: -3px; border-radius: 50%; background: var(--waiting); }
.here { position: absolute; top: -1px; margin-left: -5px; border: 5px solid transparent; border-top: 6px solid var(--accent); border-bottom: 0; transition: left var(--move); }
.words { display: flex; justify-content: space-between; gap: var(--space-6); font-size: var(--size-small); }
.hint { color: var(--quiet); }
.hint.more, .dear { color: var(--waiting); }
.failed { color: var(--wrong); }
.char { border: 1px solid currentcolor; border-radius: var(--round-small); padding: 0 var(--space-1); margin-right: var(--space-1); }
</style>
