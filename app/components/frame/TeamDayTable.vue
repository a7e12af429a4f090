<script setup lang="ts">
import type { TeamDay } from '~~/shared/today'

/** The day of those whom one leads: what they did, and where something is left lying. */
const { team } = defineProps<{ team: TeamDay[] }>()

const COLUMNS: { key: Exclude<keyof TeamDay, 'id' | 'name'>, label: string, waits?: boolean }[] = [
  { key: 'texts', label: 'Texts' },
  { key: 'calls', label: 'Calls' },
  { key: 'reached', label: 'Reached' },
  { key: 'open', label: 'Without disposition', waits: true },
  { key: 'overdue', label: 'Overdue', waits: true },
  { key: 'failed', label: 'Did not arrive', waits: true },
]
</script>

<template>
  <section>
    <h2 id="team-day">
      The team’s day
    </h2>
    <div class="scroll">
      <table aria-labelledby="team-day">
        <thead>
          <tr>
            <th scope="col">
              <span class="heard-only">Colleague</span>
            </th>
            <th
              v-for="{ key, label } in COLUMNS"
              :key="key"
              scope="col"
              class="quiet"
            >
              {{ label }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in team"
            :key="one.id"
          >
            <th scope="row">
              {{ one.name }}
            </th>
            <td
              v-for="{ key, waits } in COLUMNS"
              :key="key"
              class="figures"
              :class="{ waits: waits && one[key] > 0, quiet: one[key] === 0 }"
            >
              {{ one[key].toLocaleString('en-US') }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h2 { font-size: var(--size-text); padding-bottom: var(--space-1); }
.scroll { overflow-x: auto; }
table { border-collapse: collapse; min-width: 42rem; width: 100%; }
th, td { text-align: right; padding: var(--space-2) var(--space-4); border-top: 1px solid var(--rule); font-weight: 400; }
thead th { border-top: 0; font-size: var(--size-small); }
tbody th { text-align: left; padding-left: 0; font-weight: 700; }
.waits { color: var(--waiting); font-weight: 700; }
</style>
