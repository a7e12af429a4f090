<script setup lang="ts">
import { CHANGEABLE, type Scope } from '~~/shared/permissions'
import type { RightsOfAll, RightsTable } from '~~/shared/people'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { onlyWith } from '~/composables/set-up-list'
import { RIGHT_WORDS, sayScope } from '~/words/rights'

definePageMeta({ middleware: () => onlyWith('people.edit') })

type Row = RightsTable[number]
const ROLES = [{ role: 'rep', name: 'Reps' }, { role: 'lead', name: 'Leads' }] as const

const { found: rights, problem, load, trying } = useLoaded<RightsOfAll>('/api/set-up/rights')

/** After a refusal the choice stands again where it was. */
const drawn = ref(0)
async function change({ permission }: Row, role: 'rep' | 'lead', scope: string): Promise<void> {
  await trying(async () => rights.value = await api<RightsOfAll>('/api/set-up/rights', { method: 'PUT', body: { permission, role, scope } }))
  drawn.value++
}

const isUsual = (row: Row, role: 'rep' | 'lead') => row[role] === row.usual[role]
const choices = ({ permission }: Row): readonly Scope[] => CHANGEABLE[permission]
</script>

<template>
  <SetUpRoom
    title="Rights"
    hint="What reps and leads may do, and with whose things. Admins may do everything."
    what="the rights"
    :loaded="rights !== null"
    :problem="problem"
    @again="load"
  >
    <table class="rights">
      <thead>
        <tr>
          <th scope="col">
            They may
          </th>
          <th
            v-for="{ role, name } in ROLES"
            :key="role"
            scope="col"
          >
            {{ name }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rights?.table"
          :key="row.permission"
        >
          <th scope="row">
            {{ RIGHT_WORDS[row.permission].name }} <span class="quiet small">{{ RIGHT_WORDS[row.permission].about }}</span>
          </th>
          <td
            v-for="{ role, name } in ROLES"
            :key="role"
            :data-role="name"
          >
            <select
              :key="drawn"
              class="plain-field"
              :class="{ changed: !isUsual(row, role) }"
              :aria-label="`${RIGHT_WORDS[row.permission].name}: ${name}`"
              :value="row[role]"
              @change="change(row, role, ($event.target as HTMLSelectElement).value)"
            >
              <option
                v-for="scope in choices(row)"
                :key="scope"
                :value="scope"
              >
                {{ sayScope(row.permission, scope) }}
              </option>
            </select>
            <span
              v-if="!isUsual(row, role)"
              class="quiet small"
            >usually {{ sayScope(row.permission, row.usual[role]) }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <PersonRights
      v-if="rights"
      :rights="rights"
      @changed="rights = $event"
    />
    <p class="quiet small">
      A change holds from everybody’s next click, and stands in the audit log. Setting things up is for admins, how calls end for leads too.
    </p>
  </SetUpRoom>
</template>

<style scoped>
.rights { border-collapse: collapse; max-width: 62rem; }
.rights th, .rights td { text-align: start; vertical-align: top; padding: var(--space-3) var(--space-6) var(--space-3) 0; border-top: 1px solid var(--rule); }
.rights thead th { border-top: 0; color: var(--quiet); font-size: var(--size-small); font-weight: 600; }
.rights th .quiet { font-weight: 400; }
.rights td { width: 15rem; }
.rights td select { width: 100%; }
.rights .changed { font-weight: 700; }
@media (max-width: 700px) {
  .rights, .rights tbody, .rights tr, .rights th, .rights td { display: block; width: auto; }
  .rights thead { display: none; }
  .rights td { border-top: 0; padding-block: 0 var(--space-3); }
  .rights td::before { content: attr(data-role); color: var(--quiet); font-size: var(--size-small); }
}
</style>
