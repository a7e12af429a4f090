<script setup lang="ts">
import { PhX } from '@phosphor-icons/vue'
import { sayMoney } from '~~/core/numbers/money'
import type { LineChoice } from '~~/shared/composer'

/** The pictures that go with a text, what they make it cost, and each to be taken out with one click. */
const { ids, comingIn, line } = defineProps<{ ids: string[], comingIn: number, line: LineChoice | null }>()
const emit = defineEmits<{ remove: [id: string] }>()

const price = computed(() => line?.price ?? null)
const what = computed(() => {
  if (!price.value) return ''
  const { microsPerPicture, mostPictures, currency } = price.value
  if (microsPerPicture === null) return `No pictures go out over ${line!.name}. Remove them, or choose another line.`
  if (ids.length > mostPictures) return `The carrier takes ${mostPictures} pictures in one text. Remove ${ids.length - mostPictures}.`
  return `One message, however long the text: ${sayMoney({ micros: microsPerPicture, currency })}`
})
const refused = computed(() => price.value !== null && (price.value.microsPerPicture === null || ids.length > price.value.mostPictures))
</script>

<template>
  <div class="tray">
    <ul
      class="pictures"
      aria-label="Pictures in this text"
    >
      <li
        v-for="(id, place) in ids"
        :key="id"
      >
        <img
          :src="`/api/pictures/${id}`"
          :alt="`Picture ${place + 1}`"
        >
        <button
          type="button"
          class="out"
          :aria-label="`Remove picture ${place + 1}`"
          @click="emit('remove', id)"
        >
          <PhX
            size="14"
            aria-hidden="true"
          />
        </button>
      </li>
      <li
        v-for="place in comingIn"
        :key="`coming-${place}`"
        class="coming small quiet"
      >
        Making it small…
      </li>
    </ul>
    <p
      v-if="ids.length > 0"
      class="figures small"
      :class="{ refused }"
    >
      {{ what }}
    </p>
  </div>
</template>

<style scoped>
.tray { display: flex; flex-wrap: wrap; align-items: end; gap: var(--space-2) var(--space-6); padding-top: var(--space-2); }
.pictures { display: flex; gap: var(--space-4); }
.pictures li { position: relative; height: 72px; }
.pictures img { height: 72px; max-width: 160px; object-fit: cover; border-radius: var(--round-small); display: block; }
.out { position: absolute; top: -6px; right: -6px; display: grid; place-items: center; width: 24px; height: 24px; border-radius: 50%; border: 1px solid var(--field-rule); background: var(--surface); color: var(--ink); cursor: pointer; }
.coming { display: grid; place-items: center; width: 96px; border: 1px dashed var(--field-rule); border-radius: var(--round-small); text-align: center; }
.refused { color: var(--wrong); }
</style>
