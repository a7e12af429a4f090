<script setup lang="ts">
import type { BulkPlan } from '~~/shared/bulk-texts'
import { api } from '~/composables/api'
import { useBulk } from '~/composables/bulk'
import { useLoaded } from '~/composables/loaded'
import { useNow } from '~/composables/now'
import { useSaving } from '~/composables/saving'
import { useMe } from '~/stores/me'
import { BULK_WORDS, LEFT_WHY_WORDS, type Those } from '~/words/bulk'
import { many } from '~/words/count'
import { clock, dayName } from '~/words/time'

/** A handful, each with what they get or why nothing, and the button that sends it; afterwards what became of each. */
const { id } = defineProps<{ id: string }>()
const emit = defineEmits<{ write: [], sent: [], close: [] }>()
const { zone } = useMe().me!
const now = useNow()

const { bulk, problem, changes, load } = useBulk(id)
const { found: plan, load: planAgain } = useLoaded(() => api<BulkPlan>(`/api/bulk-texts/${id}/plan`, { query: { days: 1 } }))
watch([changes, () => bulk.value?.state], planAgain)
const { errors, saving, save } = useSaving('start')

const which = ref<Those>({})
const isChecking = computed(() => !bulk.value || bulk.value.state === 'draft' || bulk.value.state === 'checking')
const begun = computed(() => !isChecking.value && bulk.value?.state !== 'checked')
const leaves = computed(() => plan.value?.runs.reduce((sum, { people }) => sum + people, 0) ?? 0)
/** Somebody whose day has not begun gets it later: that is said before it is sent. */
const SOON_MS = 120_000
const later = computed(() => {
  const last = plan.value?.last
  return last && last > now.value + SOON_MS ? `, the last one ${dayName(last, zone, now.value).replace('Today', 'today')}, ${clock(last, zone)}` : ''
})
const send = () => save(async () => {
  await api(`/api/bulk-texts/${id}/start`, { method: 'POST', body: {} })
  emit('sent')
  await load()
})

const main = useTemplateRef<HTMLElement>('main')
const canBeSent = computed(() => bulk.value?.state === 'checked' && leaves.value > 0)
/** Pressed twice in one moment it is sent once. */
const sendOnce = () => void (canBeSent.value && !saving.value && send())
/** The next key goes to what comes next. */
watch(canBeSent, async () => {
  await nextTick()
  if (!main.value?.contains(document.activeElement)) main.value?.querySelector<HTMLElement>('.send:enabled')?.focus()
})
</script>

<template>
  <div
    ref="main"
    class="handful"
    @keydown.ctrl.enter.prevent="sendOnce"
  >
    <LoadProblem
      v-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!problem && isChecking"
      class="quiet"
      role="status"
    >
      Checking them…
    </p>
    <template v-if="bulk && !isChecking">
      <p
        v-if="begun"
        role="status"
      >
        <strong>{{ bulk.counts.texted.toLocaleString('en-US') }} of {{ (bulk.counts.ready + bulk.counts.texted + bulk.counts.refused).toLocaleString('en-US') }}</strong> sent, {{ BULK_WORDS[bulk.state] }}{{ bulk.why ? `: ${bulk.why}` : '' }}
      </p>
      <BulkPeopleList
        v-model:which="which"
        :bulk="bulk"
        :changes="changes"
        few
        @changed="load"
      />
      <p
        v-for="one in begun ? [] : plan?.left"
        :key="one.why"
        class="quiet"
      >
        {{ many(one.people, 'person', 'people') }} {{ LEFT_WHY_WORDS[one.why] }}.
      </p>
      <p
        v-if="errors.start"
        class="notice failed"
        role="alert"
      >
        {{ errors.start }}
      </p>
      <p class="acts">
        <template v-if="!begun">
          <Button
            class="send"
            :label="`Send ${many(leaves, 'text', 'texts')}${later}`"
            :loading="saving"
            :disabled="!canBeSent"
            @click="sendOnce"
          />
          <kbd>Ctrl Enter</kbd>
          <button
            type="button"
            class="plain-button"
            @click="emit('write')"
          >
            Change what it says
          </button>
        </template>
        <Button
          v-else
          label="Done"
          @click="emit('close')"
        />
        <NuxtLink
          :to="`/bulk/${id}`"
          class="page"
        >
          As a page
        </NuxtLink>
      </p>
    </template>
  </div>
</template>

<style scoped>
.handful { display: grid; gap: var(--space-4); }
.acts { display: flex; align-items: center; gap: var(--space-5); flex-wrap: wrap; }
.page { margin-left: auto; }
</style>
