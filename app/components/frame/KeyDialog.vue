<script setup lang="ts">
import { api } from '~/composables/api'
import { activeKeys } from '~/composables/keys'
import { useTrying } from '~/composables/trying'
import { useMe } from '~/stores/me'

const shown = defineModel<boolean>({ required: true })
const me = useMe()
const { problem, busy, trying } = useTrying()

/** What a page holds several of says its keys once. */
const listed = computed(() => [...new Map(activeKeys.value.map(one => [`${one.keys} ${one.what}`, one])).values()])

const keep = (singleKeys: boolean) => trying(async () => {
  await api('/api/me/keys', { method: 'PUT', body: { singleKeys } })
  await me.load()
})
</script>

<template>
  <Dialog
    v-model:visible="shown"
    modal
    header="Keys"
    :style="{ width: '26rem' }"
  >
    <label
      v-if="me.me"
      class="single"
    >
      <ToggleSwitch
        :model-value="me.me.singleKeys"
        :disabled="busy"
        aria-describedby="single-keys"
        @update:model-value="keep"
      />
      Single letters and signs are keys
    </label>
    <p
      id="single-keys"
      class="quiet small"
    >
      They work while the cursor is in no field. Without them, those with Ctrl or Alt still do.
    </p>
    <p
      v-if="problem"
      class="notice failed"
      role="alert"
    >
      {{ problem }}
    </p>
    <dl class="keys">
      <template
        v-for="{ keys, shown: label, what } in listed"
        :key="`${keys} ${what}`"
      >
        <dt><kbd>{{ label }}</kbd></dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </Dialog>
</template>

<style scoped>
.single { display: flex; gap: var(--space-4); align-items: center; }
.quiet { margin: var(--space-2) 0 var(--space-6); }
.keys { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3) var(--space-6); margin-bottom: var(--space-6); }
</style>
