<script setup lang="ts">
import type { CarrierAway } from '~~/shared/today'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { clock, shortDay } from '~/words/time'

/** Carriers that cannot be reached, to whoever answers for lines over them. */
defineProps<{ away: CarrierAway[] }>()
const me = useMe()
const now = useNow()
const when = (since: number) => now.value - since < 86_400_000 ? clock(since, me.me!.zone) : shortDay(since, me.me!.zone)
</script>

<template>
  <p
    v-for="{ title, since, why, lines } in away"
    :key="title"
    class="notice failed"
    role="status"
  >
    <strong>{{ title }} cannot be reached{{ since ? ` since ${when(since)}` : '' }}.</strong>
    Texts over {{ lines.join(', ') }} wait, and leave by themselves once it is back.
    {{ why }}
    <NuxtLink
      v-if="me.may('carrier.edit')"
      to="/set-up/carriers"
    >
      Look why
    </NuxtLink>
  </p>
</template>
