<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { NO_CONDITIONS, type Conditions } from '~~/core/conditions/conditions'
import { mirroredBy } from '~~/core/groups/mirror'
import type { GroupHead } from '~~/shared/groups'
import type { ListColumn } from '~~/shared/list'
import { MODULE_FACTS, TEXTED_MODULES, type TextedModule } from '~~/shared/modules'
import { api } from '~/composables/api'
import { useSaving } from '~/composables/saving'

/** Makes a group, or changes its name and its rule. */
const { group, begun = null } = defineProps<{
  group: GroupHead | null
  /** The conditions of a list from which it is made. */
  begun?: { module: TextedModule, conditions: Conditions } | null
}>()
const emit = defineEmits<{ saved: [group: GroupHead], close: [] }>()

const id = group?.id ?? uuid()
const name = ref(group?.name ?? '')
const rule = group?.rule ?? begun
const BY_HAND = 'hand'
/** Of what a rule asks, or by hand. */
const way = ref<typeof BY_HAND | TextedModule>((rule?.module as TextedModule | undefined) ?? BY_HAND)
const conditions = shallowRef<Conditions>(rule?.conditions ?? NO_CONDITIONS)
const ways = computed(() => [
  ...group?.rule ? [] : [{ value: BY_HAND, label: 'Colleagues put people in by hand' }],
  ...group && !group.rule ? [] : TEXTED_MODULES.map(module => ({ value: module, label: `A rule finds ${MODULE_FACTS[module].many.toLowerCase()}` })),
])
const columns = shallowRef<ListColumn[]>([])
const byRule = shallowRef<ReadonlySet<string>>(new Set())
const { errors, saving, save } = useSaving('name')

watch(way, async (module, before) => {
  if (module === BY_HAND) return
  // of another kind of record other things are asked
  if (before !== undefined) conditions.value = NO_CONDITIONS
  try {
    const [found, groups] = await Promise.all([
      api<ListColumn[]>('/api/columns', { query: { module } }),
      api<GroupHead[]>('/api/groups'),
    ])
    byRule.value = new Set(groups.filter(one => one.rule).map(one => one.id))
    columns.value = found
  }
  catch {
    errors.value = { where: 'What can be asked could not be loaded. Close this and open it again.' }
  }
}, { immediate: true })
/** A rule asks for no group that is found by a rule itself. */
const asked = computed(() => columns.value.map(one =>
  one.key === 'groups' ? { ...one, choices: one.choices?.filter(({ value }) => !byRule.value.has(value)) } : one))
const isMirror = computed(() => way.value !== BY_HAND && mirroredBy(conditions.value) !== null)

const keep = () => save(async () => {
  const module = way.value === BY_HAND ? null : way.value
  const body = { id, name: name.value, module, where: module && conditions.value.of.length > 0 ? JSON.stringify(conditions.value) : '' }
  emit('saved', await api<GroupHead>('/api/groups', { method: 'PUT', body }))
})
</script>

<template>
  <Dialog
    visible
    modal
    :header="group ? `Change “${group.name}”` : 'A new group'"
    :style="{ width: '36rem' }"
    @update:visible="emit('close')"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <LabelledField
        id="group-name"
        v-slot="{ input }"
        label="Name"
        :error="errors.name"
      >
        <InputText
          v-bind="input"
          v-model="name"
          placeholder="Hill riders"
          autocomplete="off"
          autofocus
        />
      </LabelledField>
      <LabelledField
        id="group-way"
        v-slot="{ choice }"
        label="Who is in it"
        :error="errors.module"
      >
        <Select
          v-bind="choice"
          v-model="way"
          :options="ways"
          option-value="value"
          option-label="label"
          :disabled="ways.length === 1"
        />
      </LabelledField>
      <div
        v-if="way !== BY_HAND"
        class="rule"
      >
        <p class="asks">
          <span class="quiet">{{ MODULE_FACTS[way].many }} whose</span>
          <ConditionSentence
            v-if="asked.length > 0"
            :conditions="conditions"
            :columns="asked"
            @change="conditions = $event"
          />
        </p>
        <p class="quiet small">
          {{ isMirror
            ? 'Whoever is put into the group gets this, and whoever gets it is in the group.'
            : 'Whoever it holds for is in the group, as long as it holds.' }}
        </p>
        <p
          v-if="errors.where"
          class="field-error"
          role="alert"
        >
          {{ errors.where }}
        </p>
      </div>
      <p
        v-else
        class="quiet small"
      >
        From the group, from their pages, many at once from a list, or by how a call went.
      </p>
      <p>
        <Button
          type="submit"
          :label="group ? 'Save' : 'Make the group'"
          :loading="saving"
        />
      </p>
    </form>
  </Dialog>
</template>

<style scoped>
.form, .rule { display: grid; gap: var(--space-4); }
.asks { display: flex; align-items: baseline; flex-wrap: wrap; gap: var(--space-2) var(--space-3); }
</style>
