<script setup lang="ts">
import { useThrottleFn } from '@vueuse/core'
import type { GroupHead } from '~~/shared/groups'
import type { ListColumn } from '~~/shared/list'
import { MODULE_FACTS } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { useLive } from '~/composables/live'
import { useLoaded } from '~/composables/loaded'
import { useTextMany } from '~/composables/text-many'
import { useGathering } from '~/stores/gathering'
import { useMe } from '~/stores/me'
import { sayConditions } from '~/words/conditions'
import { many } from '~/words/count'
import { sayWay } from '~/words/groups'

/** One group: who is in it, what was sent to it, and what can be done with all of it. */
definePageMeta({ key: route => route.path })
const id = String(useRoute().params.id)
const { found: group, problem, load, trying } = useLoaded<GroupHead>(`/api/groups/${id}`)
const columns = shallowRef<ListColumn[]>([])
watch(() => group.value?.rule?.module, async (module) => {
  if (module) columns.value = await api<ListColumn[]>('/api/columns', { query: { module } }).catch(() => [])
})
const rule = computed(() => {
  const asked = group.value?.rule
  return asked && columns.value.length > 0 ? `${MODULE_FACTS[asked.module].many} whose ${sayConditions(asked.conditions, columns.value)}` : ''
})

/** Somebody has removed it while it is open here. */
const gone = ref(false)
const changes = ref(0)
/** In a busy firm something happens to some record all the time. */
const OFTEN_MS = 2_000
const changed = useThrottleFn(() => changes.value++, OFTEN_MS, true)
useLive((notice) => {
  if (notice.kind === 'group' && notice.groupId === id) {
    gone.value = notice.removed ?? false
    if (gone.value) return
    void load()
    void changed()
  }
  // an answer, or somebody for whom a rule holds now
  else if (notice.kind === 'entry' || notice.kind === 'record') void changed()
}, () => {
  void load()
  changes.value++
})

const total = ref<number | null>(null)
const gathering = useGathering()
const whom = { selection: null, groupId: id }
const { problem: notTexted, busy: texting, textMany } = useTextMany()
const text = () => void (group.value && total.value && textMany(group.value.name, whom))
const calling = ref(false)
const call = () => calling.value = (total.value ?? 0) > 0
const editing = ref(false)
const removing = ref(false)
async function remove(): Promise<void> {
  if (await trying(() => api(`/api/groups/${id}`, { method: 'DELETE' }))) await navigateTo('/groups')
}
const me = useMe()
useKeys([
  ...(me.may('bulk.work') ? [{ keys: 'r t', shown: 'R T', what: 'Text all in this group', act: text }] : []),
  { keys: 'r m', shown: 'R M', what: 'Call them in a round', act: call },
  { keys: 'x', shown: 'X', what: 'Change this group', act: () => editing.value = group.value?.mayEdit ?? false },
])
</script>

<template>
  <div class="page">
    <p
      v-if="gone"
      class="notice"
      role="status"
    >
      This group has been removed. Its people are as they were. <NuxtLink to="/groups">
        All groups
      </NuxtLink>
    </p>
    <LoadProblem
      v-else-if="problem"
      :problem="problem"
      @again="load"
    />
    <p
      v-if="!group && !problem"
      class="quiet"
      role="status"
    >
      Opening the group…
    </p>
    <template v-if="group && !gone">
      <header class="head">
        <h1><bdi>{{ group.name }}</bdi></h1>
        <p class="quiet figures">
          {{ total === null ? '' : `${many(total, 'person', 'people')}, ` }}{{ sayWay(group) }}.
          <NuxtLink to="/groups">
            All groups
          </NuxtLink>
        </p>
        <span class="acts">
          <button
            v-if="me.may('bulk.work')"
            type="button"
            class="plain-button strong"
            :disabled="texting || !total"
            @click="text"
          >
            Text them <kbd>R T</kbd>
          </button>
          <button
            type="button"
            class="plain-button"
            :disabled="!total"
            @click="call"
          >
            Call in a round <kbd>R M</kbd>
          </button>
          <button
            v-if="group.mayEdit"
            type="button"
            class="plain-button"
            @click="editing = true"
          >
            Change <kbd>X</kbd>
          </button>
          <button
            v-if="group.mayEdit && !removing"
            type="button"
            class="plain-button calm"
            @click="removing = true"
          >
            Remove
          </button>
        </span>
      </header>
      <p
        v-if="rule"
        class="quiet"
      >
        {{ rule }}.
      </p>
      <RemoveQuestion
        v-if="removing"
        @remove="remove"
        @keep="removing = false"
      >
        Remove the group “{{ group.name }}” for everybody? Its people stay as they are, and so does what was sent.
      </RemoveQuestion>
      <p
        v-if="notTexted"
        class="notice failed"
        role="alert"
      >
        {{ notTexted }}
      </p>
      <LazyGatherLine
        v-if="gathering.mine && total"
        :whom="whom"
        :which="`all ${total.toLocaleString('en-US')} in this group`"
      />
      <div class="columns">
        <GroupPeople
          :group="group"
          :changes="changes"
          @total="total = $event"
        />
        <GroupFeed
          :group-id="id"
          :changes="changes"
        />
      </div>
      <LazyRoundForm
        v-if="calling"
        :whom="whom"
        :called="group.name"
        @close="calling = false"
      />
      <LazyGroupForm
        v-if="editing"
        :group="group"
        @saved="editing = false; load(); changes++"
        @close="editing = false"
      />
    </template>
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; grid-template-columns: minmax(0, 1fr); gap: var(--space-5); align-content: start; }
.head { display: flex; align-items: baseline; gap: var(--space-3) var(--space-6); flex-wrap: wrap; }
.head h1 { overflow-wrap: anywhere; }
.acts { margin-left: auto; display: flex; gap: var(--space-7); flex-wrap: wrap; }
.strong { font-weight: 700; }
.calm { color: var(--quiet); }
.wrong { color: var(--wrong); }
.columns { display: grid; grid-template-columns: minmax(0, 1fr) 20rem; gap: var(--space-9); align-items: start; }
@media (max-width: 1000px) { .columns { grid-template-columns: minmax(0, 1fr); } .page { padding-inline: var(--space-5); } .acts { margin-left: 0; } }
</style>
