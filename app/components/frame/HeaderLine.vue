<script setup lang="ts">
import { PhBell, PhClock, PhDevices, PhKeyboard, PhSignOut } from '@phosphor-icons/vue'
import type { Component } from 'vue'
import type { Menu } from '#components'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'
import { clock, shortDay, span } from '~/words/time'

const emit = defineEmits<{ showKeys: [] }>()
const store = useMe()
const shelf = useShelf()
const now = useNow()
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu')

const oldest = computed(() => shelf.items[0] ? span(now.value - shelf.items[0].waitsSince) : null)
/** From outside: there is nobody whom they could find, and nobody waits for them. */
const helps = computed(() => store.me?.role === 'helper')
const items = computed(() => [
  ...(helps.value
    ? []
    : [
        { label: 'Keys', command: () => emit('showKeys') },
        { label: 'How I am told', command: () => void navigateTo('/told') },
      ]),
  { label: 'Times and dates', command: () => void navigateTo('/format') },
  { label: 'Signing in', command: () => void navigateTo('/sign-ins') },
  { label: 'Sign out', command: () => void store.signOut() },
])
const ICONS: Record<string, Component> = { 'Keys': PhKeyboard, 'How I am told': PhBell, 'Times and dates': PhClock, 'Signing in': PhDevices, 'Sign out': PhSignOut }
</script>

<template>
  <header class="line">
    <p
      v-if="store.me?.helpsUntil"
      class="owed quiet"
    >
      You help to set {{ store.me.firm }} up, until {{ shortDay(store.me.helpsUntil - 1, store.me.zone) }}
    </p>
    <FindField v-if="!helps" />
    <p
      v-if="!helps"
      class="owed"
      aria-live="polite"
    >
      <template v-if="shelf.total > 0">
        <strong>{{ shelf.total }}</strong> <span class="quiet">owed by you, the oldest {{ oldest }}</span>
      </template>
      <span
        v-else-if="!shelf.failed"
        class="quiet"
      >Nobody waits for you</span>
    </p>
    <button
      v-if="store.me"
      type="button"
      class="me"
      aria-haspopup="menu"
      @click="menu?.toggle($event)"
    >
      <span class="my-name">{{ store.me.name }},</span> <strong class="figures">{{ clock(now, store.me.zone) }}</strong>
    </button>
    <Menu
      ref="menu"
      :model="items"
      popup
    >
      <template #itemicon="{ item }">
        <component
          :is="ICONS[String(item.label)]"
          size="18"
          aria-hidden="true"
        />
      </template>
    </Menu>
  </header>
</template>

<style scoped>
.line { display: flex; align-items: center; gap: var(--space-8); height: 50px; padding: 0 var(--space-8); border-bottom: 1px solid var(--rule); }
.owed { margin-left: auto; white-space: nowrap; }
.me { border: 0; background: none; color: var(--quiet); cursor: pointer; padding: var(--space-2) 0; white-space: nowrap; }
.me strong { color: var(--ink); }
.me:hover { color: var(--ink); }
@media (max-width: 900px) { .owed { display: none; } .line { gap: var(--space-5); padding: 0 var(--space-5); } .me { margin-left: auto; } }
@media (max-width: 700px) { .my-name { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); } }
</style>
