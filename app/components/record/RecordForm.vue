<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { v7 as uuid } from 'uuid'
import type { Field } from '~~/core/template/fields'
import { isPersonModule, MODULE_FACTS, type Module } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { recordForm, type RecordForm } from '~~/shared/schemas/record'
import { api, ApiProblem } from '~/composables/api'

/** Making or changing a record. What was typed stays in the form whatever happens to the sending of it. */
const { module, record = null, phone = null } = defineProps<{ module: Module, record?: RecordDetail | null, phone?: string | null }>()
const emit = defineEmits<{ saved: [record: RecordDetail], made: [id: string] }>()

const person = computed(() => isPersonModule(module))
const { defineField, errors, handleSubmit, isSubmitting, setErrors, values } = useForm<RecordForm>({
  validationSchema: toTypedSchema(recordForm),
  initialValues: record
    ? { ...record, companyId: record.company?.id ?? null, phones: record.phones.map(({ id, label, typed }) => ({ id, label, typed })) }
    : { phones: [{ id: null, label: 'mobile', typed: phone ?? '' }], tags: [], fields: {}, country: null },
})
const quiet = { validateOnModelUpdate: false }
const fieldOf = (name: keyof RecordForm) => defineField(name, quiet)[0] as Ref<string | null>
const names = { firstName: fieldOf('firstName'), lastName: fieldOf('lastName'), name: fieldOf('name') }
const texts: { name: keyof RecordForm, label: string, model: Ref<string | null> }[] = ([
  ['title', 'Role'], ['mail', 'Mail address'], ['street', 'Street'], ['city', 'City'],
  ['region', 'State or province'], ['postcode', 'Postcode'], ['country', 'Country (US, CA, GB)'], ['zone', 'Time zone, if the address does not tell'],
] as const).map(([name, label]) => ({ name, label, model: fieldOf(name) }))
/** Names to choose from; the server knows which it takes. */
const ZONES = Intl.supportedValuesOf('timeZone')
const stage = fieldOf('stage')
const phones = defineField('phones', quiet)[0] as Ref<RecordForm['phones']>
const fields = defineField('fields', quiet)[0] as Ref<Record<string, unknown>>

const tags = defineField('tags', quiet)[0] as Ref<string[]>
const tagWords = ref(record?.tags.join(', ') ?? '')
watch(tagWords, words => tags.value = words.split(',').map(tag => tag.trim()).filter(Boolean))
const tagError = computed(() => Object.entries(errors.value).find(([path]) => path.startsWith('tags'))?.[1])

const customFields = ref<Field[]>(record?.customFields ?? [])
onMounted(async () => {
  if (!record) customFields.value = await api<Field[]>('/api/fields', { query: { module } }).catch(() => [])
})
const keyOf = (field: Field) => field.path.slice('person.'.length)
const setField = (field: Field, value: unknown) => fields.value = { ...fields.value, [keyOf(field)]: value }

const companyId = fieldOf('companyId')
const company = ref<{ id: string, name: string } | string | null>(record?.company ?? null)
const companies = shallowRef<{ id: string, name: string }[]>([])
watch(company, chosen => companyId.value = chosen && typeof chosen === 'object' ? chosen.id : null)

async function findCompanies(words: string): Promise<void> {
  companies.value = await api<{ id: string, name: string }[]>('/api/companies', { query: { words } }).catch(() => [])
}

const problem = shallowRef<ApiProblem | null>(null)
const version = ref(record?.version ?? 1)
const newId = uuid()

const submit = handleSubmit(async (form) => {
  problem.value = null
  try {
    if (record) emit('saved', await api<RecordDetail>(`/api/records/${record.id}`, { method: 'PUT', body: { ...form, version: version.value } }))
    else emit('made', (await api<{ id: string }>('/api/records', { method: 'POST', body: { ...form, id: newId, module } })).id)
  }
  catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    setErrors(error.fields as Record<string, string>)
    problem.value = error
    // saving again means "mine": both values have been shown
    if (error.type === 'stale') version.value = Number(error.details.version)
  }
})
const differences = computed(() => (problem.value?.details.differences ?? []) as { label: string, theirs: string | null, mine: string | null }[])
</script>

<template>
  <form
    class="form"
    novalidate
    @submit="submit"
  >
    <div
      v-if="problem"
      class="notice failed wide"
      role="alert"
    >
      <p>{{ problem.message }}</p>
      <table
        v-if="differences.length > 0"
        class="differences"
      >
        <thead>
          <tr><th>Field</th><th>There now</th><th>Yours</th></tr>
        </thead>
        <tbody>
          <tr
            v-for="{ label, theirs, mine } in differences"
            :key="label"
          >
            <td>{{ label }}</td><td>{{ theirs ?? 'empty' }}</td><td>{{ mine ?? 'empty' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="person">
      <LabelledField
        v-for="name in (['firstName', 'lastName'] as const)"
        :id="name"
        :key="name"
        v-slot="{ input }"
        :label="name === 'firstName' ? 'First name' : 'Last name'"
        :error="errors[name]"
      >
        <InputText
          v-bind="input"
          v-model="names[name].value"
          autocomplete="off"
        />
      </LabelledField>
    </template>
    <LabelledField
      v-else
      id="name"
      v-slot="{ input }"
      class="wide"
      label="Name"
      :error="errors.name"
    >
      <InputText
        v-bind="input"
        v-model="names.name.value"
        autocomplete="off"
      />
    </LabelledField>
    <PhoneFields
      v-if="person"
      v-model="phones"
      class="wide"
      :country="values.country ?? null"
      :errors="errors as Record<string, string>"
    />
    <LabelledField
      v-if="person"
      id="company"
      v-slot="{ choice }"
      label="Company"
      :error="errors.companyId"
    >
      <AutoComplete
        v-bind="choice"
        v-model="company"
        option-label="name"
        :suggestions="companies"
        force-selection
        dropdown
        :pt="{ dropdown: { 'aria-label': 'Show companies' } }"
        empty-search-message="No company by that name yet."
        @complete="findCompanies($event.query)"
      />
    </LabelledField>
    <LabelledField
      v-if="MODULE_FACTS[module].stages.length > 0"
      id="stage"
      v-slot="{ choice }"
      label="Stage"
      :error="errors.stage"
    >
      <Select
        v-bind="choice"
        v-model="stage"
        :options="MODULE_FACTS[module].stages"
        :placeholder="MODULE_FACTS[module].stages[0]"
      />
    </LabelledField>
    <LabelledField
      v-for="{ name, label, model } in texts"
      :id="name"
      :key="name"
      v-slot="{ input }"
      :label="label"
      :error="errors[name]"
    >
      <InputText
        v-bind="input"
        v-model="model.value"
        autocomplete="off"
        :list="name === 'zone' ? 'zones' : undefined"
      />
    </LabelledField>
    <LabelledField
      id="tags"
      v-slot="{ input }"
      label="Tags, with commas between"
      :error="tagError"
    >
      <InputText
        v-bind="input"
        v-model="tagWords"
        autocomplete="off"
        placeholder="bakery, north side"
      />
    </LabelledField>
    <datalist id="zones">
      <option
        v-for="zone in ZONES"
        :key="zone"
        :value="zone"
      />
    </datalist>
    <OwnFieldInput
      v-for="field in customFields"
      :key="field.path"
      :field="field"
      :model-value="fields[keyOf(field)]"
      :error="(errors as Record<string, string>)[`fields.${keyOf(field)}`]"
      @update:model-value="setField(field, $event)"
    />
    <p class="save">
      <Button
        type="submit"
        :label="record ? 'Save the changes' : `Make this ${MODULE_FACTS[module].one.toLowerCase()}`"
        :loading="isSubmitting"
      />
    </p>
  </form>
</template>

<style scoped>
.form { display: grid; grid-template-columns: 1fr 1fr; gap: 0.8rem 1rem; }
.wide, .save { grid-column: 1 / -1; }
/* always in sight, however long the form is */
.save { position: sticky; bottom: 0; padding: 0.6rem 0; background: var(--form-ground, var(--surface)); border-top: 1px solid var(--rule); }
.differences { margin-top: 0.5rem; border-collapse: collapse; }
.differences th, .differences td { text-align: left; padding: 0.15rem 1rem 0.15rem 0; font-weight: 400; }
.differences th { color: var(--quiet); font-size: var(--size-small); }
@media (max-width: 600px) { .form { grid-template-columns: 1fr; } }
</style>
