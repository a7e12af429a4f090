<script setup lang="ts">
import { MODULE_FACTS } from '~~/shared/modules'
import type { RecordDetail } from '~~/shared/record'
import { calendarDay } from '~/words/time'

const { record } = defineProps<{ record: RecordDetail }>()

const say = (value: unknown, kind: string) => kind === 'date' && typeof value === 'string' ? calendarDay(value) : kind === 'money' ? `$ ${Number(value).toLocaleString('en-US')}` : String(value)
const facts = computed(() => [
  { label: 'Owner', value: record.owner.name },
  ...record.customFields.flatMap((field) => {
    const value = record.fields[field.path.slice('person.'.length)]
    return value === undefined || value === null || value === '' ? [] : [{ label: field.label, value: say(value, field.kind) }]
  }),
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
