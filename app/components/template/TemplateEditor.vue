<script setup lang="ts">
import { fullLabel } from '~~/shared/fields'
import { MODULE_FACTS, TEXTED_MODULES } from '~~/shared/modules'
import type { TemplateDetail, TemplateVersion } from '~~/shared/template'
import { useTemplateForm } from '~/composables/template-form'
import { useKeys } from '~/composables/keys'
import { useMe } from '~/stores/me'
import { sayField } from '~/words/template'

/** A template with its fields as pills, and beside it what would be sent and how long it becomes for everybody. */
const { template, folders } = defineProps<{ template: TemplateDetail | null, folders: string[] }>()
const emit = defineEmits<{ saved: [id: string] }>()

const me = useMe()
const { form, errors, fields, toggle, recordId, trial, trialFailed, problem, save, saving, mayLeave } = useTemplateForm(template, id =>
  emit('saved', id),
)
defineExpose({ mayLeave })
const { name, description, folder, modules, body, fillIns, audience, teamId } = form
const locked = computed(() => template !== null && !template.mayEdit)
const text = useTemplateRef<{
  insert: (field: { path: string, kind: 'text' | 'date' }) => void
  swap: (from: string, to: string) => void
  openList: () => void
}>('text')
const asLiquid = ref(false)
const beside = ref<'try' | 'length' | 'versions'>('try')

const tried = ref<{ id: string, name: string } | string | null>(null)
watch(tried, one => recordId.value = one && typeof one === 'object' ? one.id : null)

const labelOf = (path: string) => {
  const field = fields.value.find(one => one.path === path)
  return field ? fullLabel(field) : path.includes(' ') ? path : sayField(path)
}
/** Who may be offered it: all only by those who may make it so. */
const audiences = computed(() => [
  { value: 'mine', label: 'for me alone' },
  ...me.me!.teams.map(team => ({ value: team.id, label: `for ${team.name}` })),
  ...(me.may('template.for-all') || template?.audience === 'all' ? [{ value: 'all', label: 'for everyone' }] : []),
  ...(template?.team && !me.me!.teams.some(({ id }) => id === template.team!.id)
    ? [{ value: template.team.id, label: `for ${template.team.name}` }]
    : []),
])
const chosenAudience = computed({
  get: () => audience.value === 'team' ? teamId.value ?? '' : audience.value,
  set: (value: string) => {
    audience.value = value === 'mine' || value === 'all' ? value : 'team'
    teamId.value = audience.value === 'team' ? value : null
  },
})

function restore(version: TemplateVersion): void {
  body.value = version.body
  fillIns.value = version.fillIns
}
/** Writes something cheaper for a dear character, wherever it stands. */
function swap(from: string, to: string): void {
  if (asLiquid.value) body.value = body.value.replaceAll(from, to)
  else text.value?.swap(from, to)
}
const put = (path: string, kind: string) => void nextTick(() => text.value?.insert({ path, kind: kind === 'date' ? 'date' : 'text' }))
useKeys([{ keys: '$mod+j', shown: 'Ctrl J', what: 'Insert a field into the template', act: () => text.value?.openList(), inFields: true }])
</script>

<template>
  <form
    class="editor"
    novalidate
    @submit="save"
  >
    <div class="write">
      <div class="row">
        <LabelledField
          id="template-name"
          v-slot="{ input }"
          label="Name"
          :error="errors.name"
        >
          <InputText
            v-bind="input"
            v-model="name"
            :readonly="locked"
          />
        </LabelledField>
        <LabelledField
          id="template-folder"
          v-slot="{ input }"
          label="Folder"
          :error="errors.folder"
        >
          <InputText
            v-bind="input"
            v-model="folder"
            :readonly="locked"
            list="template-folders"
            placeholder="none"
          />
        </LabelledField>
        <datalist id="template-folders">
          <option
            v-for="one in folders"
            :key="one"
            :value="one"
          />
        </datalist>
      </div>
      <div class="for">
        <fieldset
          class="modules"
          :disabled="locked"
        >
          <legend class="heard-only">
            For the people of
          </legend>
          <label
            v-for="module in TEXTED_MODULES"
            :key="module"
          >
            <input
              type="checkbox"
              :checked="modules.includes(module)"
              @change="toggle(module)"
            > {{ MODULE_FACTS[module].many }}
          </label>
        </fieldset>
        <label class="quiet">Offered <select
          v-model="chosenAudience"
          class="plain-field choice"
          :disabled="locked"
          aria-label="Offered to"
        >
          <option
            v-for="one in audiences"
            :key="one.value"
            :value="one.value"
          >{{ one.label }}</option>
        </select></label>
      </div>
      <p
        v-if="errors.modules || errors.audience"
        class="field-error"
        role="alert"
      >
        {{ errors.modules ?? errors.audience }}
      </p>
      <div class="field">
        <p class="text-head">
          <label :for="asLiquid ? 'template-body' : undefined">Text</label>
          <button
            v-if="!locked && !asLiquid"
            type="button"
            class="plain-button"
            @mousedown.prevent
            @click="text?.openList()"
          >
            Insert a field <kbd>Ctrl J</kbd>
          </button>
          <button
            type="button"
            class="plain-button calm"
            @click="asLiquid = !asLiquid"
          >
            {{ asLiquid ? 'See it with pills' : 'See it as Liquid' }}
          </button>
        </p>
        <textarea
          v-if="asLiquid"
          id="template-body"
          v-model="body"
          class="plain-field liquid"
          rows="8"
          :readonly="locked"
          :aria-invalid="!!errors.body"
          aria-describedby="template-body-error"
        />
        <TemplateText
          v-else-if="fields.length > 0 || modules.length === 0"
          ref="text"
          v-model="body"
          label="Text"
          :fields="fields"
          :readonly="locked"
          :invalid="!!errors.body"
          described-by="template-body-error"
        />
        <p
          id="template-body-error"
          class="field-error"
          role="alert"
        >
          {{ errors.body }}
        </p>
      </div>
      <FillInsEditor
        v-if="!locked || fillIns.length > 0"
        v-model="fillIns"
        :readonly="locked"
        :errors="errors"
        @insert="put"
      />
      <LabelledField
        id="template-description"
        v-slot="{ input }"
        label="What it is for, for those who choose it"
        :error="errors.description"
      >
        <InputText
          v-bind="input"
          v-model="description"
          :readonly="locked"
        />
      </LabelledField>
      <p
        v-if="problem"
        class="notice failed"
        role="alert"
      >
        {{ problem }}
      </p>
      <div class="acts">
        <Button
          v-if="!locked"
          type="submit"
          :label="template ? 'Save as a new version' : 'Save this template'"
          :loading="saving"
        />
        <slot name="acts" />
        <p
          v-if="template"
          class="quiet small"
        >
          Version {{ template.version }}, owned by {{ template.owner }}{{ locked ? '. Only the owner and leads change it.' : '' }}
        </p>
      </div>
    </div>
    <div class="beside">
      <p class="tabs">
        <button
          type="button"
          :aria-pressed="beside === 'try'"
          @click="beside = 'try'"
        >
          On one person
        </button>
        <button
          type="button"
          :aria-pressed="beside === 'length'"
          @click="beside = 'length'"
        >
          On everybody
        </button>
        <button
          v-if="template"
          type="button"
          :aria-pressed="beside === 'versions'"
          @click="beside = 'versions'"
        >
          Versions
        </button>
      </p>
      <TriedOn
        v-if="beside === 'try'"
        v-model:person="tried"
        :source="body"
        :trial="trial"
        :failed="trialFailed"
        :label-of="labelOf"
        @swap="swap"
      />
      <LengthOverPeople
        v-else-if="beside === 'length' && trial && trial.problems.length === 0"
        :template="{ body, modules, fillIns: fillIns.filter(({ label }) => label !== '') }"
        :label-of="labelOf"
      />
      <p
        v-else-if="beside === 'length'"
        class="quiet"
      >
        Write a text without mistakes first; then it is filled for everybody here.
      </p>
      <VersionList
        v-else-if="template"
        :template="template"
        :label-of="labelOf"
        @restore="restore"
      />
    </div>
  </form>
</template>

<style scoped>
.editor { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: var(--space-9); padding: var(--space-5) var(--space-8) var(--space-10); align-content: start; }
.write, .beside { display: grid; gap: var(--space-4); align-content: start; min-width: 0; }
.row { display: grid; grid-template-columns: minmax(0, 2fr) minmax(0, 1fr); gap: var(--space-5); }
.for { display: flex; flex-wrap: wrap; justify-content: space-between; gap: var(--space-2) var(--space-7); }
.modules { border: 0; margin: 0; padding: 0; display: flex; gap: var(--space-6); flex-wrap: wrap; }
.modules input { accent-color: var(--accent); }
.choice { border: 0; border-bottom: 1px solid var(--field-rule); background: none; color: var(--ink); padding: var(--space-hair) 0; }
.text-head { display: flex; gap: var(--space-6); align-items: baseline; }
.text-head .calm { margin-left: auto; }
.liquid { width: 100%; padding: var(--space-4) var(--space-5); line-height: 1.5; resize: vertical; }
.acts { display: flex; flex-wrap: wrap; align-items: center; gap: var(--space-3) var(--space-6); }
.tabs { display: flex; gap: var(--space-6); }
.tabs button { border: 0; background: none; padding: 0 0 var(--space-1); cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.tabs button[aria-pressed='true'] { color: var(--ink); font-weight: 700; border-color: var(--accent); }
@media (max-width: 1000px) { .editor { grid-template-columns: minmax(0, 1fr); padding-inline: var(--space-5); } }
</style>
