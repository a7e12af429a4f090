<script setup lang="ts">
import { valueIn } from '~~/core/fields/own'
import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { v7 as uuid } from 'uuid'
import { readCountry } from '~~/core/places/countries'
import type { Field } from '~~/core/template/fields'
import { keyOf } from '~~/shared/fields'
import { CHOICE_OF_PIPELINE, hasNumbers, isDatedModule, isPersonModule, MODULE_FACTS, type Module } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { recordForm, type RecordForm } from '~~/shared/schemas/record'
import { api, type ApiProblem } from '~/composables/api'
import type { RecordStart } from '~/composables/new-record'
import { useStageChoice } from '~/composables/stage-choice'
import { focusFirstWrong } from '~/composables/first-wrong'
import { problemIn } from '~/composables/trying'
import { useUnsaved } from '~/composables/unsaved'
import { changedFrom, seenSince } from '~/composables/edits'
import { useMe } from '~/stores/me'
import { COUNTRY_NAMES, countryName } from '~/words/country'

/** Making or changing a record. What was typed stays in the form whatever happens to the sending of it. */
const { module, record = null, start = null } = defineProps<{ module: Module, record?: RecordDetail | null, start?: RecordStart | null }>()
const emit = defineEmits<{ saved: [record: RecordDetail], made: [id: string] }>()

const person = computed(() => isPersonModule(module))
const initialValues: Partial<RecordForm> = record
  ? {
      ...record,
      country: record.country && countryName(record.country),
      ownerId: record.owner.id,
      companyId: record.company?.id ?? null,
      pipelineId: record.pipeline?.id ?? null,
      stageId: record.stage?.id ?? null,
      aboutId: record.about?.id ?? null,
      phones: record.phones.filter(phone => phone.person === null).map(({ id, label, typed }) => ({ id, label, typed })),
    }
  : {
      phones: person.value ? [{ id: null, label: 'mobile', typed: start?.phone ?? '' }] : [],
      tags: [],
      fields: {},
      country: null,
      ownerId: useMe().me!.id,
      companyId: start?.company?.id ?? null,
      aboutId: start?.about?.id ?? null,
      pipelineId: start?.pipelineId ?? null,
      stageId: start?.stageId ?? null,
    }
const { defineField, errors, handleSubmit, isSubmitting, setErrors, values } = useForm<RecordForm>({
  validationSchema: toTypedSchema(recordForm),
  initialValues,
})
const quiet = { validateOnModelUpdate: false }
const fieldOf = (name: keyof RecordForm) => defineField(name, quiet)[0] as Ref<string | null>
const names = { firstName: fieldOf('firstName'), lastName: fieldOf('lastName'), name: fieldOf('name') }
const PLACE = ['street', 'city', 'region', 'postcode', 'country', 'zone'] as const
const LABELS = {
  title: 'Role',
  mail: 'Mail address',
  street: 'Street',
  city: 'City',
  region: 'State or province',
  postcode: 'Postcode',
  country: 'Country',
  zone: 'Time zone, if the address does not tell',
}
/** What each module asks for besides. Something with a day has its place among its own fields. */
const asked: (keyof typeof LABELS)[] = person.value
  ? ['title', 'mail', ...PLACE]
  : module === 'company'
    ? ['mail', ...PLACE]
    : isDatedModule(module)
      ? []
      : ['city', 'region', 'country']
const texts = asked.map(name => ({ name, label: LABELS[name], model: fieldOf(name) }))
const LISTS: Partial<Record<keyof typeof LABELS, string>> = { zone: 'zones', country: 'countries' }
/** Names to choose from; the server knows which it takes. */
const ZONES = Intl.supportedValuesOf('timeZone')
const phones = defineField('phones', quiet)[0] as Ref<RecordForm['phones']>
/** As they are read, E.164. */
const numbers = shallowRef<string[]>([])
const wholeName = computed(() => person.value ? [values.firstName, values.lastName].filter(Boolean).join(' ') : values.name ?? '')
const fields = defineField('fields', quiet)[0] as Ref<Record<string, unknown>>

const tags = defineField('tags', quiet)[0] as Ref<string[]>
const tagWords = ref(record?.tags.join(', ') ?? '')
watch(tagWords, words => tags.value = words.split(',').map(tag => tag.trim()).filter(Boolean))
const tagError = computed(() => Object.entries(errors.value).find(([path]) => path.startsWith('tags'))?.[1])

const wishFrom = defineField('wishFrom', quiet)[0] as Ref<number | null>
const wishTo = defineField('wishTo', quiet)[0] as Ref<number | null>
const ownerId = fieldOf('ownerId')
const owners = shallowRef<{ id: string, name: string }[]>(record ? [record.owner] : [])
const pipelineId = fieldOf('pipelineId')
const stageId = fieldOf('stageId')
const { pipelines, stages } = useStageChoice(module, record, { pipelineId, stageId })

const customFields = ref<Field[]>(record?.customFields ?? [])
onMounted(async () => {
  owners.value = await api<{ id: string, name: string }[]>('/api/colleagues').catch(() => owners.value)
  if (!record) customFields.value = await api<Field[]>('/api/fields', { query: { module } }).catch(() => [])
})
const setField = (field: Field, value: unknown) => fields.value = { ...fields.value, [keyOf(field)]: value }

const company = ref<{ id: string, name: string } | string | null>(record?.company ?? start?.company ?? null)
const companyId = fieldOf('companyId')
watch(company, chosen => companyId.value = idOf(chosen))
const about = ref<{ id: string, name: string } | string | null>(record?.about ?? start?.about ?? null)
const aboutId = fieldOf('aboutId')
watch(about, chosen => aboutId.value = idOf(chosen))

function idOf(chosen: { id: string } | string | null): string | null {
  return chosen && typeof chosen === 'object' ? chosen.id : null
}

/** Who is on it from the beginning. */
const people = shallowRef(start?.people ?? [])

const problem = shallowRef<ApiProblem | null>(null)
const newId = uuid()
/** What stood in each field when it was last seen: only what differs from it is sent as changed. */
const seen = shallowRef(recordForm.cast(initialValues, { stripUnknown: true }))

const saveAgain = ({ id, version }: RecordDetail, form: RecordForm) =>
  api<RecordDetail>(`/api/records/${id}`, { method: 'PUT', body: { ...form, version, was: changedFrom(seen.value, form) } })

async function make(form: RecordForm): Promise<string> {
  const body = { ...form, id: newId, module, personIds: people.value.map(({ id }) => id) }
  return (await api<{ id: string }>('/api/records', { method: 'POST', body })).id
}

/** What somebody has put in; the first pipeline there is puts itself in. */
const putIn = () => JSON.stringify({ ...values, pipelineId: null })
const begun = putIn()
let isSaved = false
const { mayLeave } = useUnsaved(() => !isSaved && putIn() !== begun)
defineExpose({ mayLeave })

const whole = useTemplateRef<HTMLFormElement>('whole')
const submit = handleSubmit(async (form) => {
  problem.value = null
  try {
    const saved = record ? await saveAgain(record, form) : await make(form)
    isSaved = true
    if (typeof saved === 'string') emit('made', saved)
    else emit('saved', saved)
  }
  catch (error) {
    const refused = problemIn(error)
    problem.value = refused
    setErrors(refused.fields)
    void focusFirstWrong(whole.value)
    // saving again means "mine": both values have been shown
    if (refused.type === 'stale') seen.value = seenSince(seen.value, refused.details.was as Partial<RecordForm> | null)
  }
}, () => focusFirstWrong(whole.value))
</script>

<template>
  <form
    ref="whole"
    class="form"
    novalidate
    @submit="submit"
  >
    <ProblemOfForm
      v-if="problem"
      class="wide"
      :problem="problem"
    />
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
        :placeholder="MODULE_FACTS[module].example"
      />
    </LabelledField>
    <PhoneFields
      v-if="hasNumbers(module)"
      v-model="phones"
      class="wide"
      :country="readCountry(values.country ?? '')"
      :errors="errors as Record<string, string>"
      @read="numbers = $event"
    />
    <AlikeRecords
      class="wide"
      :module="module"
      :numbers="numbers"
      :mail="record ? '' : values.mail ?? ''"
      :name="record ? '' : wholeName"
      :city="values.city ?? ''"
      :except="record?.id"
    />
    <p
      v-if="people.length > 0"
      class="wide on-it"
    >
      <span class="quiet">{{ people.length === 1 ? 'On it is' : 'On it are' }}</span>
      <span
        v-for="one in people"
        :key="one.id"
        class="one"
      >
        <strong>{{ one.name }}</strong>
        <button
          type="button"
          class="plain-button calm small"
          :aria-label="`Leave ${one.name} out`"
          @click="people = people.filter(({ id }) => id !== one.id)"
        >
          Leave out
        </button>
      </span>
    </p>
    <LabelledField
      v-if="CHOICE_OF_PIPELINE[module] && pipelines.length > 1"
      id="pipeline"
      v-slot="{ choice }"
      :label="module === 'job' ? 'Pipeline of its candidates' : 'Pipeline'"
      :error="errors.pipelineId"
    >
      <Select
        v-bind="choice"
        v-model="pipelineId"
        :options="pipelines"
        option-value="id"
        option-label="name"
      />
    </LabelledField>
    <LabelledField
      v-if="stages.length > 0"
      id="stage"
      v-slot="{ choice }"
      label="Stage"
      :error="errors.stageId"
    >
      <Select
        v-bind="choice"
        v-model="stageId"
        :options="stages"
        option-value="id"
        option-label="name"
        :placeholder="stages[0]!.name"
      />
    </LabelledField>
    <OwnFieldInput
      v-for="field in customFields"
      :key="field.path"
      :field="field"
      :model-value="valueIn(fields, keyOf(field))"
      :error="(errors as Record<string, string>)[`fields.${keyOf(field)}`]"
      @update:model-value="setField(field, $event)"
    />
    <LabelledField
      v-if="module !== 'company'"
      id="company"
      v-slot="{ choice }"
      label="Company"
      :error="errors.companyId"
    >
      <RecordPicker
        v-model="company"
        kind="company"
        :choice="choice"
      />
    </LabelledField>
    <LabelledField
      v-if="isDatedModule(module)"
      id="about"
      v-slot="{ choice }"
      label="On the deal, job or case"
      :error="errors.aboutId"
    >
      <RecordPicker
        v-model="about"
        kind="matter"
        :choice="choice"
      />
    </LabelledField>
    <LabelledField
      id="owner"
      v-slot="{ choice }"
      label="Owner"
      :error="errors.ownerId"
    >
      <Select
        v-bind="choice"
        v-model="ownerId"
        :options="owners"
        option-value="id"
        option-label="name"
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
        :list="LISTS[name]"
      />
    </LabelledField>
    <WishFields
      v-if="person"
      v-model:from="wishFrom"
      v-model:to="wishTo"
      :errors="errors"
    />
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
    <datalist id="countries">
      <option
        v-for="name in COUNTRY_NAMES"
        :key="name"
        :value="name"
      />
    </datalist>
    <datalist id="zones">
      <option
        v-for="zone in ZONES"
        :key="zone"
        :value="zone"
      />
    </datalist>
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
.form { display: grid; grid-template-columns: 1fr 1fr; gap: var(--space-5) var(--space-6); }
.wide, .save { grid-column: 1 / -1; }
/* always in sight, however long the form is; over the padding of a dialog too, so that no field shows below it */
.save { position: sticky; bottom: -1.25rem; margin-bottom: calc(-1 * var(--space-7)); padding: var(--space-4) 0 var(--space-7); background: var(--form-ground, var(--surface)); border-top: 1px solid var(--rule); }
.on-it { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-5); align-items: baseline; }
.one { display: inline-flex; gap: var(--space-2); align-items: baseline; }
@media (max-width: 600px) { .form { grid-template-columns: 1fr; } }
</style>
