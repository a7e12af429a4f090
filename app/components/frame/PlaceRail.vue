<script setup lang="ts">
import type { Component } from 'vue'
import { SETTING_UP } from '~~/shared/permissions'
import { PhAddressBook, PhMegaphoneSimple, PhNotePencil, PhPencilSimpleLine, PhPhone, PhSunHorizon, PhTray, PhWrench } from '@phosphor-icons/vue'
import { useDrafts } from '~/stores/drafts'
import { useMe } from '~/stores/me'
import { useShelf } from '~/stores/shelf'

const me = useMe()
const drafts = useDrafts()
const shelf = useShelf()
const begun = computed(() => Object.keys(drafts.kept).length)
interface Place { name: string, to: string, within: string[], icon: Component, owed: number, /** What there are so many of. */ counted?: string }

/** Where colleagues work; whoever helps from outside does not. */
const work = computed<Place[]>(() => [
  { name: 'Today', to: '/', within: ['/'], icon: PhSunHorizon, owed: 0 },
  { name: 'Inbox', to: '/inbox', within: ['/inbox'], icon: PhTray, owed: shelf.total, counted: 'waiting' },
  { name: 'Records', to: '/records/leads', within: ['/records', '/record', '/pipelines'], icon: PhAddressBook, owed: 0 },
  { name: 'Calling', to: '/calling', within: ['/calling'], icon: PhPhone, owed: 0 },
  { name: 'Bulk', to: '/bulk', within: ['/bulk', '/groups'], icon: PhMegaphoneSimple, owed: 0 },
  { name: 'Templates', to: '/templates', within: ['/templates'], icon: PhNotePencil, owed: 0 },
])
const places = computed<Place[]>(() => [
  ...(me.me?.role === 'helper' ? [] : work.value),
  ...(begun.value > 0 ? [{ name: 'Drafts', to: '/drafts', within: ['/drafts'], icon: PhPencilSimpleLine, owed: begun.value, counted: 'begun' }] : []),
  ...(me.me && SETTING_UP.some(me.may)
    ? [
        {
          name: 'Set-up',
          to: '/set-up',
          within: ['/set-up'],
          icon: PhWrench,
          owed: me.me.stuck + me.me.asks,
          counted: me.me.asks > 0 ? 'waiting' : 'stuck',
        },
      ]
    : []),
])
const route = useRoute()
const isHere = (within: string[]) => within.some(start => route.path === start || (start !== '/' && route.path.startsWith(`${start}/`)))
</script>

<template>
  <nav
    class="rail"
    aria-label="Places"
  >
    <NuxtLink
      to="/"
      class="name"
    >Plauder</NuxtLink>
    <NuxtLink
      v-for="{ name, to, within, icon, owed, counted } in places"
      :key="name"
      :to="to"
      :prefetch="to === '/records/leads'"
      class="place"
      :class="{ here: isHere(within) }"
      :aria-current="isHere(within) ? 'page' : undefined"
    >
      <component
        :is="icon"
        size="24"
        aria-hidden="true"
      />
      <span>{{ name }} <strong
        v-if="owed > 0"
        class="owed figures"
      >{{ owed }} <span class="heard-only">{{ counted }}</span></strong></span>
    </NuxtLink>
  </nav>
</template>

<style scoped>
.rail { position: sticky; top: 0; height: 100vh; display: flex; flex-direction: column; border-right: 1px solid var(--rule); }
.name { font-family: var(--heading); font-size: 1.2rem; font-weight: 800; color: var(--accent); text-decoration: none; padding: var(--space-5) var(--space-2) var(--space-6); text-align: center; }
.place { display: grid; justify-items: center; gap: var(--space-hair); padding: var(--space-3) 0; color: var(--quiet); text-decoration: none; font-size: var(--size-small); border-left: 3px solid transparent; border-right: 3px solid transparent; }
.place:hover { color: var(--ink); }
.place.here { color: var(--accent); font-weight: 700; border-left-color: var(--accent); }
.owed { color: var(--waiting); }
@media (max-width: 700px) {
  .rail { position: fixed; inset: auto 0 0; z-index: 20; height: 60px; flex-direction: row; border-right: 0; border-top: 1px solid var(--rule); background: var(--paper); justify-content: space-around; }
  .name { display: none; }
  .place { border: 0; }
}
</style>
