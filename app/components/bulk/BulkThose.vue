<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { BulkTextDetail } from '~~/shared/bulk-texts'
import type { GroupHead } from '~~/shared/groups'
import { api } from '~/composables/api'
import { useTextMany } from '~/composables/text-many'
import { useTrying } from '~/composables/trying'
import type { Those } from '~/words/bulk'

/** What can be done with those people of a bulk text who are shown: they get another text, or become a group. */
const { bulk, those, title } = defineProps<{ bulk: BulkTextDetail, those: Those, title: string }>()

const { problem: notTexted, busy, textMany } = useTextMany()
const text = () => textMany(`${bulk.name}: ${title.toLowerCase()}`.slice(0, 60), { ofBulk: { bulkId: bulk.id, ...those } })

const { problem, trying } = useTrying()
const groups = shallowRef<GroupHead[] | null>(null)
const into = shallowRef<GroupHead | null>(null)
watch(() => those, () => {
  groups.value = null
  into.value = null
})
const offer = () => trying(async () => {
  into.value = null
  groups.value = (await api<GroupHead[]>('/api/groups')).filter(one => one.way === 'hand')
  await nextTick()
  document.querySelector<HTMLElement>('#bulk-group')?.focus()
})
const put = (groupId: string) => trying(async () => {
  await api(`/api/bulk-texts/${bulk.id}/to-group`, { method: 'POST', body: { id: uuid(), groupId, ...those } })
  into.value = groups.value!.find(({ id }) => id === groupId)!
  groups.value = null
})
</script>

<template>
  <p class="those">
    <button
      type="button"
      class="plain-button"
      :disabled="busy"
      @click="text"
    >
      Another text to these
    </button>
    <button
      v-if="!groups"
      type="button"
      class="plain-button"
      @click="offer"
    >
      Put these into a group
    </button>
    <Select
      v-else-if="groups.length > 0"
      input-id="bulk-group"
      :model-value="null"
      :options="groups"
      option-value="id"
      option-label="name"
      aria-label="The group to put them into"
      placeholder="Choose a group"
      filter
      @update:model-value="put($event)"
    />
    <span
      v-else
      class="quiet"
    >There is no group by hand yet. <NuxtLink to="/groups?make">Make one</NuxtLink></span>
    <span
      v-if="into"
      class="quiet"
      role="status"
    >They are put into <NuxtLink :to="`/groups/${into.id}`">{{ into.name }}</NuxtLink>.</span>
    <span
      v-if="problem || notTexted"
      class="field-error"
      role="alert"
    >{{ problem || notTexted }}</span>
  </p>
</template>

<style scoped>
.those { display: flex; align-items: baseline; gap: var(--space-3) var(--space-7); flex-wrap: wrap; padding-bottom: var(--space-3); }
</style>
