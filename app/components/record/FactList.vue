<script setup lang="ts">
import { valueIn } from '~~/core/fields/own'
import { hasNumbers, MODULE_FACTS } from '~~/shared/modules'
import type { FieldKind } from '~~/core/template/fields'
import { keyOf } from '~~/shared/fields'
import type { RecordDetail, RecordPhone } from '~~/shared/record'
import { ownField } from '~/words/cells'
import { countryName } from '~/words/country'
import { hourOfDay } from '~/words/time'

/** Where a record stands: its owner, its own fields, and what it belongs to. Web pages open. */
const { record } = defineProps<{ record: RecordDetail }>()
const emit = defineEmits<{ text: [phone: RecordPhone], call: [phone: RecordPhone], changed: [] }>()

const facts = computed<{ label: string, value: string, kind?: FieldKind }[]>(() => [
  { label: 'Owner', value: record.owner.name },
  ...(record.pipeline ? [{ label: 'Pipeline', value: record.pipeline.name }] : []),
  // an amount says its currency itself
  ...record.customFields
    .filter(field => keyOf(field) !== 'currency')
    .flatMap((field) => {
      const value = ownField(valueIn(record.fields, keyOf(field)), { shows: field.kind }, record.fields)
      return value === null ? [] : [{ label: field.label, value, kind: field.kind }]
    }),
  ...(record.wishFrom !== null ? [{ label: 'Prefers to be reached', value: `${hourOfDay(record.wishFrom)} to ${hourOfDay(record.wishTo!)} their time` }] : []),
  ...(record.tags.length > 0 ? [{ label: 'Tags', value: record.tags.join(', ') }] : []),
  ...(record.mail ? [{ label: 'Mail', value: record.mail }] : []),
  ...(record.city
    ? [{ label: 'Place', value: [record.street, record.city, record.region, record.postcode, countryName(record.country)].filter(Boolean).join(', ') }]
    : []),
])
const links = computed(() => [
  ...(record.company ? [{ label: 'Company', ...record.company }] : []),
  ...(record.about ? [{ label: MODULE_FACTS[record.about.module].one, ...record.about }] : []),
])
</script>

<template>
  <dl class="facts">
    <template
      v-for="{ label, value, kind } in facts"
      :key="label"
    >
      <dt class="quiet">
        {{ label }}
      </dt>
      <dd>
        <a
          v-if="kind === 'link'"
          :href="value"
          target="_blank"
          rel="noopener noreferrer"
        >{{ value.replace(/^https?:\/\//, '') }}</a>
        <OwnNumber
          v-else-if="kind === 'phone'"
          :record="record"
          :label="label"
          :number="value"
          @text="emit('text', $event)"
          @call="emit('call', $event)"
          @added="emit('changed')"
        />
        <template v-else>
          {{ value }}
        </template>
      </dd>
    </template>
    <RecordGroups
      v-if="hasNumbers(record.module)"
      :record="record"
      @changed="emit('changed')"
    />
    <template
      v-for="{ label, id, name } in links"
      :key="id"
    >
      <dt class="quiet">
        {{ label }}
      </dt>
      <dd>
        <NuxtLink :to="`/record/${id}`">
          {{ name }}
        </NuxtLink>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
.facts { display: grid; grid-template-columns: 7.6rem minmax(0, 1fr); gap: var(--space-2) var(--space-3); border-top: 1px solid var(--rule); padding-top: var(--space-3); }
dd { overflow-wrap: anywhere; }
</style>
