<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { wilson, type Share } from '~~/core/numbers/wilson'
import type { Hits } from '~~/shared/bulk-texts'
import { sayShare } from '~/words/shares'

/** Shares under each other on one scale: a dot for what was found, a line for what it may as well be. */
const { rows } = defineProps<{ rows: { name: string, hits: Hits }[] }>()

const WIDTH = 360
const ROW = 22
const shares = computed(() => rows.map(row => ({ ...row, share: wilson(row.hits.hits, row.hits.of) })))
const x = computed(() => scaleLinear([0, Math.max(0.1, ...shares.value.map(({ share }) => share?.high ?? 0))], [4, WIDTH - 16]).nice(4))
const lineOf = ({ low, high }: Share) => ({ x1: x.value(low), x2: x.value(high) })
</script>

<template>
  <div class="shares">
    <table>
      <caption class="heard-only">
        Shares, with the interval in which each may as well be
      </caption>
      <tbody>
        <tr
          v-for="{ name, hits, share } in shares"
          :key="name"
        >
          <th scope="row">
            {{ name }}
          </th>
          <td class="figures">
            {{ hits.hits.toLocaleString('en-US') }} of {{ hits.of.toLocaleString('en-US') }}
          </td>
          <td class="figures">
            {{ sayShare(hits.hits, hits.of) }}
          </td>
          <td
            class="drawn"
            aria-hidden="true"
          >
            <svg
              :viewBox="`0 0 ${WIDTH} ${ROW}`"
              :height="ROW"
            >
              <line
                v-for="tick in x.ticks(4)"
                :key="tick"
                class="tick"
                :x1="x(tick)"
                :x2="x(tick)"
                y1="0"
                :y2="ROW"
              />
              <template v-if="share">
                <line
                  class="interval"
                  v-bind="lineOf(share)"
                  :y1="ROW / 2"
                  :y2="ROW / 2"
                />
                <circle
                  class="found"
                  :cx="x(share.share)"
                  :cy="ROW / 2"
                  r="4"
                />
              </template>
            </svg>
          </td>
        </tr>
      </tbody>
      <tfoot aria-hidden="true">
        <tr>
          <td colspan="3" />
          <td class="drawn">
            <svg
              :viewBox="`0 0 ${WIDTH} 14`"
              height="14"
            >
              <text
                v-for="tick in x.ticks(4)"
                :key="tick"
                :x="x(tick)"
                y="11"
                :text-anchor="tick === 0 ? 'start' : 'middle'"
              >{{ Math.round(tick * 100) }} %</text>
            </svg>
          </td>
        </tr>
      </tfoot>
    </table>
  </div>
</template>

<style scoped>
.shares { overflow-x: auto; }
th { text-align: left; font-weight: 400; padding-right: var(--space-6); white-space: nowrap; }
td { padding-right: var(--space-6); white-space: nowrap; }
tbody td:nth-child(3) { font-weight: 700; }
.drawn { padding: 0; width: 360px; }
svg { display: block; width: 360px; }
.tick { stroke: var(--rule); }
.interval { stroke: var(--accent); stroke-width: 2; }
.found { fill: var(--accent); }
text { font-size: 11px; fill: var(--quiet); }
</style>
