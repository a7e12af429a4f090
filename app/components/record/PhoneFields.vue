<script setup lang="ts">
import type { PhoneReading } from '~~/core/phone/read'
import type { PhoneForm } from '~~/shared/schemas/record'
import { showPhone } from '~~/core/phone/show'
import { countryName } from '~/words/country'
import { KIND_WORDS, UNUSABLE_WORDS } from '~/words/phone'

/** Numbers, cleaned as they are typed. What cannot be a number is kept as typed, and says why. */
const { country, errors } = defineProps<{ country: string | null, errors: Record<string, string> }>()
const phones = defineModel<PhoneForm[]>({ required: true })
const emit = defineEmits<{ read: [numbers: string[]] }>()

// what telephones look like all over the world is heavy, and needed here only
const read = shallowRef<((typed: string, country?: string) => PhoneReading) | null>(null)
onMounted(async () => read.value = (await import('~~/core/phone/read')).readPhone)

const readings = computed(() => phones.value.map(({ typed }) => typed.trim() && read.value ? read.value(typed, country ?? 'US') : null))

watch(readings, all => emit('read', all.flatMap(one => one?.ok ? one.e164 : [])), { immediate: true })

function say(reading: PhoneReading | null): string {
  if (!reading) return ''
  if (!reading.ok) return UNUSABLE_WORDS[reading.reason]
  return `${showPhone(reading.e164)}${reading.extension ? ` ext. ${reading.extension}` : ''}, ${KIND_WORDS[reading.kind]}, ${countryName(reading.country)}`
}

const change = (index: number, values: Partial<PhoneForm>) =>
  (phones.value = phones.value.map((phone, i) => (i === index ? { ...phone, ...values } : phone)))
const add = () => phones.value = [...phones.value, { id: null, label: phones.value.length === 0 ? 'mobile' : 'work', typed: '' }]
const remove = (index: number) => phones.value = phones.value.filter((_, i) => i !== index)
</script>

<template>
  <fieldset class="phones">
    <legend class="field-label">
      Numbers
    </legend>
    <div
      v-for="(phone, index) in phones"
      :key="phone.id ?? index"
      class="phone"
    >
      <InputText
        :model-value="phone.label"
        :aria-label="`Label of number ${index + 1}`"
        class="label"
        @update:model-value="change(index, { label: $event ?? '' })"
      />
      <InputText
        :id="`phone-${index}`"
        :model-value="phone.typed"
        :aria-label="`Number ${index + 1}`"
        :aria-describedby="`phone-${index}-reads`"
        type="tel"
        autocomplete="off"
        placeholder="808 555 0142"
        class="typed"
        @update:model-value="change(index, { typed: $event ?? '' })"
      />
      <button
        type="button"
        class="plain-button calm"
        :aria-label="`Remove number ${index + 1}`"
        @click="remove(index)"
      >
        Remove
      </button>
      <p
        :id="`phone-${index}-reads`"
        class="small reads"
        :class="{ unusable: readings[index] && !readings[index]!.ok, failed: errors[`phones[${index}].typed`] }"
        aria-live="polite"
      >
        {{ errors[`phones[${index}].typed`] ?? say(readings[index] ?? null) }}
      </p>
    </div>
    <button
      type="button"
      class="plain-button"
      @click="add"
    >
      Add a number
    </button>
  </fieldset>
</template>

<style scoped>
.phones { border: 0; padding: 0; margin: 0; display: grid; gap: var(--space-3); min-width: 0; }
.phone { display: grid; grid-template-columns: 7rem minmax(0, 1fr) auto; gap: var(--space-1) var(--space-3); align-items: center; }
.reads { grid-column: 2 / -1; color: var(--good); min-height: 1.2em; }
.reads.unusable { color: var(--waiting); }
.reads.failed { color: var(--wrong); }
</style>
