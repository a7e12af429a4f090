<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { showPhone } from '~~/core/phone/show'
import { MODULE_FACTS, type Module } from '~~/shared/modules'
import type { Alike } from '~~/shared/record'
import { api } from '~/composables/api'
import { newestOnly } from '~/composables/newest'

/** Who is here already, by a number, a mail address, or name and place, while somebody is written down. It stands in no way. */
const { module, numbers, mail = '', name = '', city = '', except = null } = defineProps<{
  module: Module
  /** E.164. */
  numbers: string[]
  mail?: string
  name?: string
  city?: string
  /** The record itself, where it is there already. */
  except?: string | null
}>()

const alike = shallowRef<Alike>({ records: [], elsewhere: [] })
const begin = newestOnly()
const look = useDebounceFn(async () => {
  const isNewest = begin()
  const asked = numbers.length > 0 || mail || name
  const query = { module, numbers: numbers.join(','), mail, name, city, ...except && { except } }
  // it only helps: where it cannot be had nothing is said
  const found = asked ? await api<Alike>('/api/records/alike', { query }).catch(() => null) : null
  if (isNewest()) alike.value = found ?? { records: [], elsewhere: [] }
}, 300)
watch(() => [numbers.join(), mail, name, city].join('|'), look, { immediate: true })

const WHY = { number: 'has this number', mail: 'has this mail address', name: 'has this name' }
</script>

<template>
  <ul
    v-if="alike.records.length + alike.elsewhere.length > 0"
    class="notice alike"
    role="status"
  >
    <li
      v-for="one in alike.records"
      :key="one.id"
    >
      <NuxtLink
        :to="`/record/${one.id}`"
        target="_blank"
      >{{ one.name }}</NuxtLink>, {{ MODULE_FACTS[one.module].one.toLowerCase() }}<template v-if="one.about">
        of {{ one.about }}
      </template>, {{ WHY[one.by] }} already<template v-if="one.number && numbers.length > 1">
        ({{ showPhone(one.number) }})
      </template>.
    </li>
    <li
      v-for="one in alike.elsewhere"
      :key="`${one.number} ${one.team}`"
    >
      {{ showPhone(one.number) }} is also on a record of {{ one.team }}. What was said there stays there; a lead of both teams can settle whose it is.
    </li>
  </ul>
</template>

<style scoped>
.alike { display: grid; gap: var(--space-1); list-style: none; }
</style>
