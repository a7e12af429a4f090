<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import type { Knock } from '~~/shared/knocks'
import { useKeys } from '~/composables/keys'
import { useNow } from '~/composables/now'
import { useKnocks } from '~/stores/knocks'
import { useMe } from '~/stores/me'
import { ACT_WORDS, KNOCK_WORDS, knocker, sayKnock } from '~/words/knocks'
import { ago } from '~/words/time'

/** All that knocks, and what did within the last day, with who has taken it. Whoever opens it has seen them. */
const emit = defineEmits<{ close: [] }>()
const knocks = useKnocks()
const me = useMe()
const now = useNow()
const panel = useTemplateRef<HTMLElement>('panel')
const before = document.activeElement

/** Which were new when it was opened stays to be seen while it is. */
const wereSeen = new Set(knocks.all.filter(({ seen }) => seen).map(({ id }) => id))
void knocks.see()
watch(() => knocks.open.some(({ seen }) => !seen), isNew => isNew && void knocks.see())
onMounted(() => panel.value?.querySelector<HTMLElement>('.act')?.focus())

function close(): void {
  emit('close')
  if (before instanceof HTMLElement) before.focus()
}
useKeys([{ keys: 'Escape', shown: 'Esc', what: 'Close the knocks', inFields: true, act: close }])
onClickOutside(panel, () => emit('close'), { ignore: ['.knocks'] })

function outcome({ state, takenBy }: Knock): string {
  if (state === 'settled') return 'settled'
  return takenBy!.id === me.me?.id ? 'you took it' : `${takenBy!.firstName} took it`
}
</script>

<template>
  <section
    ref="panel"
    class="panel"
    role="dialog"
    aria-label="Knocks"
  >
    <header class="head">
      <h2>Knocks</h2>
      <NuxtLink
        class="small"
        to="/told"
        @click="emit('close')"
      >What knocks at me</NuxtLink>
    </header>
    <p
      v-if="knocks.problem"
      class="notice failed"
      role="alert"
    >
      {{ knocks.problem }}
    </p>
    <ul>
      <li
        v-for="knock in knocks.all"
        :key="knock.id"
        class="row"
        :class="{ over: knock.state !== 'open' }"
      >
        <p class="what">
          <span
            v-if="knock.state === 'open' && !wereSeen.has(knock.id)"
            class="ring"
          ><span class="heard-only">New: </span></span>
          <NuxtLink
            v-if="knock.record"
            :to="`/record/${knock.record.id}`"
            @click="emit('close')"
          ><bdi>{{ knocker(knock) }}</bdi></NuxtLink>
          <strong v-else><bdi>{{ knocker(knock) }}</bdi></strong>
          <bdi>{{ ' ' }}{{ sayKnock(knock, now) }}</bdi>
          <span class="quiet small">{{ ago(knock.at, now) }}{{ knock.line ? `, ${knock.line}` : '' }}</span>
        </p>
        <button
          v-if="knock.state === 'open'"
          type="button"
          class="plain-button act"
          :disabled="knocks.busy"
          @click="knocks.take(knock)"
        >
          {{ ACT_WORDS[KNOCK_WORDS[knock.kind].act] }}
        </button>
        <span
          v-else
          class="quiet small"
        >{{ outcome(knock) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.panel {
  position: absolute; top: 100%; right: 0; width: min(32rem, 100vw - 84px); max-height: calc(100vh - 110px); overflow-y: auto; background: var(--surface);
  border: 1px solid var(--ink); border-top: 0; border-radius: 0 0 0 8px; padding: var(--space-5) var(--space-6); animation: open-down var(--move);
}
@keyframes open-down { from { opacity: 0; transform: translateY(-6px); } }
.head { display: flex; justify-content: space-between; align-items: baseline; padding-bottom: var(--space-3); }
h2 { font-size: var(--size-text); }
.row { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: var(--space-5); align-items: baseline; padding: var(--space-4) 0; border-top: 1px solid var(--rule); }
.what { overflow-wrap: anywhere; }
.what .small { display: block; }
.over { color: var(--quiet); }
.ring { display: inline-block; width: 0.6em; height: 0.6em; margin-right: var(--space-2); border: 2px solid var(--accent); border-radius: 50%; }
.act { font-weight: 700; }
@media (max-width: 700px) { .panel { width: 100vw; } }
</style>
