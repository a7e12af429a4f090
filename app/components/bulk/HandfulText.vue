<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import type { TextedModule } from '~~/shared/modules'
import { api } from '~/composables/api'
import { keptOnPage, unwritten, type BulkWording } from '~/composables/bulk-wording'
import { useSaving } from '~/composables/saving'
import type { ChosenWhom } from '~/composables/text-many'
import { useMe } from '~/stores/me'
import { shortDay } from '~/words/time'

/**
 * A text to a handful, or one answer to all who ask the same: written, checked and sent over the page itself. It is a bulk text
 * like any other, and is there under Bulk. What was typed outlives a reload.
 */
const { whom, title, modules, called, draft } = defineProps<{
  whom: ChosenWhom
  title: string
  modules: TextedModule[]
  /** What it is called under Bulk. */
  called: string
  /** Under which name the browser keeps what is typed. */
  draft: string
}>()
const emit = defineEmits<{ close: [], sent: [wording: BulkWording] }>()
const { zone } = useMe().me!

const id = uuid()
const kept = `plauder-handful-${draft}`
const wording = useSessionStorage<BulkWording>(kept, unwritten(), { mergeDefaults: true })
const checked = ref(false)
const { errors, saving, save } = useSaving('body')

const name = `${called}, ${shortDay(Date.now(), zone)}`.slice(0, 80)
/** Making the same again gives the first. */
const make = () => api('/api/bulk-texts', { method: 'POST', body: { id, name, ...whom } })
const check = () => save(async () => {
  await make()
  await api(`/api/bulk-texts/${id}`, { method: 'PUT', body: { ...wording.value, name } })
  await api(`/api/bulk-texts/${id}/check`, { method: 'POST', body: {} })
  checked.value = true
})
/** There it can be given more people, a line, an occasion and a start. */
const asPage = () => save(async () => {
  await make()
  if (wording.value.body !== '') sessionStorage.setItem(keptOnPage(id), JSON.stringify(wording.value))
  sessionStorage.removeItem(kept)
  await navigateTo(`/bulk/${id}`)
})
function sent(): void {
  sessionStorage.removeItem(kept)
  emit('sent', wording.value)
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="title"
    :style="{ width: checked ? '64rem' : '42rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <HandfulChecked
      v-if="checked"
      :id="id"
      @write="checked = false"
      @sent="sent"
      @close="emit('close')"
    />
    <form
      v-else
      class="form"
      novalidate
      @submit.prevent="check"
      @keydown.ctrl.enter.capture.prevent.stop="!saving && check()"
    >
      <BulkWords
        v-model="wording"
        :modules="modules"
        :errors="errors"
        first
      />
      <p class="acts">
        <Button
          type="submit"
          label="Check them"
          :loading="saving"
        />
        <span class="quiet small"><kbd>Ctrl Enter</kbd> Nothing is sent by that.</span>
        <button
          type="button"
          class="plain-button calm page"
          :disabled="saving"
          @click="asPage"
        >
          As a page: more people, line, start
        </button>
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form { display: grid; gap: var(--space-5); }
.acts { display: flex; align-items: center; gap: var(--space-6); flex-wrap: wrap; }
.page { margin-left: auto; }
</style>
