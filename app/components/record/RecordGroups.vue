<script setup lang="ts">
import type { GroupHead, GroupOn } from '~~/shared/groups'
import type { RecordDetail } from '~~/shared/record'
import { api } from '~/composables/api'
import { useTrying } from '~/composables/trying'

/** The groups that a record is in: put in and taken out here, but for those that are found by a rule. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ changed: [] }>()

const { problem, busy, trying } = useTrying()
const offered = shallowRef<GroupHead[] | null>(null)
const chosen = ref<string | null>(null)

const begin = () => trying(async () => {
  const all = await api<GroupHead[]>('/api/groups')
  const isIn = new Set(record.groups.map(({ id }) => id))
  offered.value = all.filter(({ id, way, rule }) => way !== 'rule' && (!rule || rule.module === record.module) && !isIn.has(id))
  await nextTick()
  document.querySelector<HTMLElement>('#record-group')?.focus()
})

const put = (groupId: string, isIn: boolean) => trying(async () => {
  await api(`/api/groups/${groupId}/people`, { method: 'POST', body: { recordId: record.id, in: isIn } })
  offered.value = null
  chosen.value = null
  emit('changed')
})
const title = ({ way }: GroupOn) => way === 'rule' ? 'By a rule: it is in this group as long as that holds for it' : undefined
</script>

<template>
  <dt class="quiet">
    Groups
  </dt>
  <dd>
    <span
      v-for="one in record.groups"
      :key="one.id"
      class="one"
    ><NuxtLink
      :to="`/groups/${one.id}`"
      :title="title(one)"
    >{{ one.name }}</NuxtLink><button
      v-if="record.mayEdit && one.way !== 'rule'"
      type="button"
      class="away"
      :disabled="busy"
      :aria-label="`Take out of ${one.name}`"
      @click="put(one.id, false)"
    >×</button></span>
    <template v-if="record.mayEdit">
      <button
        v-if="!offered"
        type="button"
        class="plain-button calm"
        @click="begin"
      >
        Put into a group
      </button>
      <Select
        v-else-if="offered.length > 0"
        v-model="chosen"
        input-id="record-group"
        :label-id="'record-group'"
        :options="offered"
        option-value="id"
        option-label="name"
        aria-label="The group to put it into"
        placeholder="Choose a group"
        filter
        class="choice"
        @update:model-value="put($event, true)"
        @keydown.esc="offered = null"
      />
      <span
        v-else
        class="quiet"
      >There is no further one. <NuxtLink to="/groups?make">Make one</NuxtLink></span>
    </template>
    <span
      v-if="problem"
      class="field-error"
      role="alert"
    >{{ problem }}</span>
  </dd>
</template>

<style scoped>
.one { display: inline-flex; align-items: baseline; max-width: 100%; margin-right: var(--space-4); }
.one a { min-width: 0; min-height: 24px; overflow-wrap: anywhere; }
.away { border: 0; background: none; padding: 0 var(--space-2); color: var(--quiet); cursor: pointer; }
.away:hover { color: var(--wrong); }
.calm { color: var(--quiet); min-height: 24px; }
.choice { width: 100%; }
</style>
