<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { ownField } from '~/words/cells'

const { record } = defineProps<{ record: RecordDetail }>()

const facts = computed(() => [
  { label: 'Owner', value: record.owner.name },
  ...record.customFields.flatMap((field) => {
    const value = ownField(record.fields[field.path.slice('person.'.length)], { shows: field.kind })
    return value === null ? [] : [{ label: field.label, value }]
  }),
  ...(record.tags.length > 0 ? [{ label: 'Tags', value: record.tags.join(', ') }] : []),
  ...(record.mail ? [{ label: 'Mail', value: record.mail }] : []),
  ...(record.city ? [{ label: 'Place', value: [record.street, record.city, record.region, record.postcode, record.country].filter(Boolean).join(', ') }] : []),
])
</script>

<template>
  <dl class="facts">
    <template
      v-for="{ label, value } in facts"
      :key="label"
    >
      <dt class="quiet">
        {{ label }}
      </dt>
      <dd>{{ value }}</dd>
    </template>
    <template v-if="record.company">
      <dt class="quiet">
        Company
      </dt>
      <dd>
        <NuxtLink :to="`/record/${record.company.id}`">
          {{ record.company.name }}
        </NuxtLink>
      </dd>
    </template>
    <template v-if="record.people.length > 0">
      <dt class="quiet">
        People
      </dt>
      <dd>
        <p
          v-for="person in record.people"
          :key="person.id"
        >
          <NuxtLink :to="`/record/${person.id}`">
            {{ person.name }}
          </NuxtLink>
          <span class="quiet small"> {{ person.title ?? MODULE_FACTS[person.module].one.toLowerCase() }}</span>
        </p>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
.facts { display: grid; grid-template-columns: 7.6rem minmax(0, 1fr); gap: 0.3rem 0.5rem; border-top: 1px solid var(--rule); padding-top: 0.5rem; }
dd { overflow-wrap: anywhere; }
</style>
