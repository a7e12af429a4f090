<script setup lang="ts">
import { MODULE_FACTS, MODULE_FAMILIES, type Module } from '~~/shared/modules'

/** The lists of all modules, family by family. */
const { module } = defineProps<{ module: Module | null }>()
</script>

<template>
  <nav
    class="modules"
    aria-label="Modules"
  >
    <ul
      v-for="family in MODULE_FAMILIES"
      :key="family[0]"
    >
      <li
        v-for="other in family"
        :key="other"
      >
        <NuxtLink
          :to="`/records/${MODULE_FACTS[other].slug}`"
          :aria-current="other === module ? 'page' : undefined"
        >
          {{ MODULE_FACTS[other].many }}
        </NuxtLink>
      </li>
    </ul>
  </nav>
</template>

<style scoped>
.modules { display: flex; flex-wrap: wrap; gap: var(--space-1) 0; }
ul { display: flex; flex-wrap: wrap; gap: var(--space-1) var(--space-6); }
ul + ul { margin-left: var(--space-6); padding-left: var(--space-6); border-left: 1px solid var(--field-rule); }
a { color: var(--quiet); text-decoration: none; padding-bottom: var(--space-1); border-bottom: 2px solid transparent; }
a:hover { color: var(--ink); }
a[aria-current] { color: var(--accent); font-weight: 700; border-color: var(--accent); }
</style>
