<script setup lang="ts">
import { MODULE_FACTS, MODULES, moduleOfSlug } from '~~/shared/modules'

definePageMeta({ key: route => String(route.params.module), validate: route => moduleOfSlug(String(route.params.module)) !== undefined })
const route = useRoute()
const module = moduleOfSlug(String(route.params.module))!
const phone = typeof route.query.phone === 'string' ? route.query.phone : null
</script>

<template>
  <div class="new">
    <header>
      <h1>New {{ MODULE_FACTS[module].one.toLowerCase() }}</h1>
      <p class="quiet">
        <template v-if="phone">
          What was texted with this number comes onto the record.
        </template>
        Rather a
        <template
          v-for="(other, index) in MODULES.filter(one => one !== module)"
          :key="other"
        >
          <NuxtLink :to="{ path: `/records/${MODULE_FACTS[other].slug}/new`, query: route.query }">{{ MODULE_FACTS[other].one.toLowerCase() }}</NuxtLink>{{ ['', ' or ', ', '][2 - index] }}
        </template>?
      </p>
    </header>
    <RecordForm
      :module="module"
      :phone="phone"
      @made="navigateTo(`/record/${$event}`)"
    />
  </div>
</template>

<style scoped>
.new { --form-ground: var(--paper); max-width: 46rem; padding: 0.85rem 1.5rem 3rem; display: grid; gap: 1rem; }
header { display: grid; gap: 0.25rem; }
@media (max-width: 700px) { .new { padding-inline: 0.75rem; } }
</style>
