<script setup lang="ts">
import type { LineWaiting } from '~~/shared/today'
import { useNow } from '~/composables/now'
import { span } from '~/words/time'

/** Who waits, by line, the longest first; each leads to those who do, to be handed out from there. */
const { lines } = defineProps<{ lines: LineWaiting[] }>()
const now = useNow()
</script>

<template>
  <section>
    <h2 id="waiting-lines">
      Who waits for an answer
    </h2>
    <p
      v-if="lines.length === 0"
      class="quiet"
    >
      Nobody, on any line.
    </p>
    <div
      v-else
      class="scroll"
    >
      <table aria-labelledby="waiting-lines">
        <thead>
          <tr>
            <th
              v-for="head in ['Line', 'Whose', 'Waiting', 'With nobody yet', 'Longest']"
              :key="head"
              scope="col"
              class="quiet"
            >
              {{ head }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="one in lines"
            :key="one.id"
          >
            <th scope="row">
              <NuxtLink :to="{ path: '/inbox', query: { show: 'owed', line: one.id } }">
                {{ one.name }}
              </NuxtLink>
            </th>
            <td>{{ one.whose }}</td>
            <td class="figures">
              {{ one.waiting }}
            </td>
            <td
              class="figures"
              :class="one.withNobody > 0 ? 'waits' : 'quiet'"
            >
              {{ one.withNobody }}
            </td>
            <td class="figures waits">
              {{ span(now - one.oldest) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll { overflow-x: auto; }
table { border-collapse: collapse; }
th, td { text-align: left; padding: var(--space-2) var(--space-7) var(--space-2) 0; border-bottom: 1px solid var(--rule); font-weight: 400; }
.waits { color: var(--waiting); font-weight: 700; }
</style>
