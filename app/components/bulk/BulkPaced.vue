<script setup lang="ts">
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { many } from '~/words/count'
import { sayPace } from '~/words/pace'
import { clock } from '~/words/time'

/** By how many answers an hour a bulk text goes while it is under way, and how its pace has changed and why. */
const { bulk } = defineProps<{ bulk: BulkTextDetail }>()
const emit = defineEmits<{ changed: [] }>()
const { zone } = useMe().me!

const mayChange = computed(() => bulk.state === 'running' || bulk.state === 'paused')
const changing = ref(false)
const anHour = ref('')
const { errors, saving, save } = useSaving('answersAnHour')
async function open(): Promise<void> {
  anHour.value = bulk.answersAnHour === null ? '' : String(bulk.answersAnHour)
  changing.value = true
  await nextTick()
  document.querySelector<HTMLElement>('#bulk-paced')?.focus()
}
const change = () => save(async () => {
  await api(`/api/bulk-texts/${bulk.id}/pace`, { method: 'PUT', body: { answersAnHour: anHour.value === '' ? null : Number(anHour.value) } })
  changing.value = false
  emit('changed')
})
</script>

<template>
  <div
    v-if="mayChange || bulk.pace.length > 0"
    class="paced"
  >
    <p
      v-if="bulk.waitsSince !== null"
      class="notice"
    >
      It waits since {{ clock(bulk.waitsSince, zone) }}, until answers are worked off. It goes on by itself.
    </p>
    <p v-if="mayChange && !changing">
      {{ bulk.answersAnHour === null ? 'It goes as fast as its lines allow.' : `It goes no faster than ${many(bulk.answersAnHour, 'answer', 'answers')} an hour can be worked off.` }}
      <button
        type="button"
        class="plain-button"
        @click="open"
      >
        Change the pace
      </button>
    </p>
    <form
      v-if="mayChange && changing"
      novalidate
      @submit.prevent="change"
    >
      <label for="bulk-paced">No faster than</label>
      <input
        id="bulk-paced"
        v-model="anHour"
        class="plain-field few"
        inputmode="numeric"
        autocomplete="off"
        :aria-invalid="!!errors.answersAnHour"
        aria-describedby="bulk-paced-error"
        @keydown.esc.stop="changing = false"
      >
      <span>answers an hour; empty: as fast as its lines allow</span>
      <Button
        type="submit"
        size="small"
        label="Change"
        :loading="saving"
      />
      <button
        type="button"
        class="plain-button calm"
        @click="changing = false"
      >
        Leave it
      </button>
      <p
        id="bulk-paced-error"
        class="field-error"
        role="alert"
      >
        {{ errors.answersAnHour }}
      </p>
    </form>
    <ol
      v-if="bulk.pace.length > 0"
      aria-label="How its pace has changed"
    >
      <li
        v-for="one in bulk.pace"
        :key="one.at"
        class="quiet small"
      >
        <span class="figures">{{ clock(one.at, zone) }}</span> {{ sayPace(one) }}
      </li>
    </ol>
  </div>
</template>

<style scoped>
.paced { display: grid; gap: var(--space-3); }
form { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-3) var(--space-4); }
.few { width: 4rem; }
ol { padding: 0; margin: 0; list-style: none; display: grid; gap: var(--space-1); max-height: 8rem; overflow-y: auto; }
.field-error:empty { display: none; }
</style>
