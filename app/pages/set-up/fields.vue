<script setup lang="ts">
import { isPersonModule, MODULE_FACTS, MODULES, type Module } from '~~/shared/modules'
import type { OwnField } from '~~/shared/set-up'
import { api } from '~/composables/api'
import { useKeys } from '~/composables/keys'
import { onlyWith, useSetUpList } from '~/composables/set-up-list'
import { KIND_WORDS } from '~/words/fields'

definePageMeta({ middleware: () => onlyWith('field.edit') })

const module = ref<Module>('lead')
const {
  list: fields,
  problem,
  trying,
  load,
} = useSetUpList<OwnField>(() => ({ path: '/api/set-up/fields', query: { module: module.value } }))
/** A field, a new one, or none. */
const editing = shallowRef<OwnField | 'new' | null>(null)

const inUse = computed(() => fields.value?.filter(field => !field.retired) ?? [])

async function move(field: OwnField, by: number): Promise<void> {
  const ids = inUse.value.map(({ id }) => id)
  const place = ids.indexOf(field.id)
  const next = place + by
  if (next < 0 || next >= ids.length) return
  ids.splice(next, 0, ...ids.splice(place, 1))
  await trying(() => api<OwnField[]>('/api/set-up/fields/order', { method: 'PUT', body: { module: module.value, ids } }))
}
const turn = (field: OwnField, way: 'retire' | 'take-up') =>
  trying(() => api<OwnField[]>(`/api/set-up/fields/${field.id}/${way}`, { method: 'POST', body: {} }))

function saved(all: OwnField[]): void {
  fields.value = all
  editing.value = null
}

useKeys([{ keys: 'c', shown: 'C', what: 'Make a new field', act: () => editing.value = 'new' }])
</script>

<template>
  <SetUpRoom
    title="Custom fields"
    hint="They stand in forms, lists, conditions and templates of their module."
    what="the fields"
    :loaded="fields !== null"
    :problem="problem"
    @again="load"
  >
    <template #choice>
      <ModuleChoice
        v-model="module"
        :modules="MODULES"
        makes="New field"
        @make="editing = 'new'"
      />
    </template>
    <p
      v-if="fields!.length === 0"
      class="quiet"
    >
      {{ MODULE_FACTS[module].many }} have no custom fields yet. A lease’s end, a size, a source: what you ask everybody belongs here.
    </p>
    <table
      v-else
      class="rows"
    >
      <thead>
        <tr>
          <th scope="col">
            Name
          </th>
          <th scope="col">
            Holds
          </th>
          <th
            v-if="isPersonModule(module)"
            scope="col"
          >
            In templates
          </th>
          <th scope="col">
            Example
          </th>
          <th scope="col">
            <span class="heard-only">What to do</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="field in fields"
          :key="field.id"
          :class="{ retired: field.retired }"
        >
          <td><strong>{{ field.label }}</strong></td>
          <td>{{ [KIND_WORDS[field.kind], field.options.join(', ')].filter(Boolean).join(': ') }}</td>
          <td
            v-if="isPersonModule(module)"
            class="code"
          >
            person.{{ field.key }}
          </td>
          <td>{{ field.example }}</td>
          <td class="ways">
            <template v-if="field.retired">
              <button
                type="button"
                class="plain-button"
                :aria-label="`Take up ${field.label} again`"
                @click="turn(field, 'take-up')"
              >
                Take up again
              </button>
            </template>
            <template v-else>
              <button
                type="button"
                class="move"
                :aria-label="`${field.label} further up`"
                :disabled="inUse[0] === field"
                @click="move(field, -1)"
              >
                ↑
              </button>
              <button
                type="button"
                class="move"
                :aria-label="`${field.label} further down`"
                :disabled="inUse.at(-1) === field"
                @click="move(field, 1)"
              >
                ↓
              </button>
              <button
                type="button"
                class="plain-button"
                :aria-label="`Change ${field.label}`"
                @click="editing = field"
              >
                Change
              </button>
              <button
                type="button"
                class="plain-button calm"
                :aria-label="`Retire ${field.label}`"
                @click="turn(field, 'retire')"
              >
                Retire
              </button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <FieldEditor
      v-if="editing"
      :key="editing === 'new' ? 'new' : editing.id"
      :module="module"
      :field="editing === 'new' ? null : editing"
      @saved="saved"
      @close="editing = null"
    />
  </SetUpRoom>
</template>

<style scoped>
.rows { border-collapse: collapse; width: 100%; }
.rows th { text-align: left; font-weight: 400; font-size: var(--size-small); color: var(--quiet); border-bottom: 1px solid var(--field-rule); padding: 0 var(--space-6) var(--space-2) 0; }
.rows td { height: 40px; padding: var(--space-1) var(--space-6) var(--space-1) 0; border-bottom: 1px solid var(--rule); }
.code { font-variant-numeric: tabular-nums; color: var(--quiet); }
.retired td:not(.ways) { color: var(--quiet); text-decoration: line-through; }
.ways { white-space: nowrap; text-align: right; padding-right: 0; }
.ways > * + * { margin-left: var(--space-5); }
.move { border: 0; background: none; padding: 0 var(--space-1); cursor: pointer; color: var(--quiet); }
.move + .move { margin-left: var(--space-1); }
.move:hover:not(:disabled) { color: var(--accent); }
.move:disabled { opacity: 0.35; cursor: default; }
</style>
