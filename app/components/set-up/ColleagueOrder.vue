<script setup lang="ts">
import { api } from '~/composables/api'

/** An order of colleagues, one after the other. */
const order = defineModel<string[]>({ required: true })
defineProps<{
  legend: string
  /** What holds while there is nobody in it, and what to add behind those who are. */
  none: string
  then: string
  error?: string
}>()

interface Colleague { id: string, name: string }
const all = shallowRef<Colleague[] | null>(null)
const problem = ref('')
api<Colleague[]>('/api/colleagues').then(
  found => all.value = found,
  () => problem.value = 'The colleagues could not be loaded. Close this and open it again.',
)
const nameOf = (id: string) => all.value?.find(one => one.id === id)?.name ?? '…'
const left = computed(() => (all.value ?? []).filter(({ id }) => !order.value.includes(id)))

function add(event: Event): void {
  const select = event.target as HTMLSelectElement
  order.value = [...order.value, select.value]
  select.value = ''
}
function move(place: number, by: number): void {
  const next = [...order.value]
  next.splice(place + by, 0, ...next.splice(place, 1))
  order.value = next
}
</script>

<template>
  <fieldset class="order">
    <legend class="quiet small">{{ legend }}</legend>
    <ol>
      <li
        v-for="(id, place) in order"
        :key="id"
      >
        <span>{{ nameOf(id) }}</span>
        <button
          type="button"
          class="plain-button calm"
          :disabled="place === 0"
          :aria-label="`${nameOf(id)} earlier`"
          @click="move(place, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="plain-button calm"
          :aria-label="`Remove ${nameOf(id)}`"
          @click="order = order.filter(one => one !== id)"
        >
          Remove
        </button>
      </li>
    </ol>
    <select
      v-if="left.length > 0"
      class="plain-field"
      :aria-label="`Add a colleague. ${legend}`"
      value=""
      @change="add"
    >
      <option
        value=""
        disabled
      >
        {{ order.length === 0 ? none : then }}
      </option>
      <option
        v-for="one in left"
        :key="one.id"
        :value="one.id"
      >
        {{ one.name }}
      </option>
    </select>
    <p
      v-if="error || problem"
      class="field-error"
      role="alert"
    >
      {{ error || problem }}
    </p>
  </fieldset>
</template>

<style scoped>
.order { border: 0; margin: 0; padding: 0; display: grid; gap: var(--space-2); justify-items: start; }
li { display: flex; gap: var(--space-5); align-items: baseline; }
</style>
