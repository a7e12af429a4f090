<script setup lang="ts">
import type { HouseRulesForm } from '~~/shared/schemas/house-rules'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { onlyWith } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'

definePageMeta({ middleware: () => onlyWith('rules.edit') })

const me = useMe()
const form = ref<HouseRulesForm | null>(null)
const saved = ref(false)
const { errors, saving, save } = useSaving('takeBackSeconds')

const { problem, load } = useLoaded<HouseRulesForm>('/api/set-up/rules', show)

/** As they are typed, one after the other. */
const tags = ref('')
function show(rules: HouseRulesForm): void {
  form.value = rules
  tags.value = rules.hotTags.join(', ')
}

async function keep(): Promise<void> {
  saved.value = await save(async () => {
    const hotTags = tags.value.split(',').map(tag => tag.trim()).filter(Boolean)
    show(await api<HouseRulesForm>('/api/set-up/rules', { method: 'PUT', body: { ...form.value!, hotTags } }))
  })
  if (saved.value) await me.load()
}
</script>

<template>
  <SetUpRoom
    title="House rules"
    hint="What holds for everybody."
    what="the rules"
    :loaded="form !== null"
    :problem="problem"
    @again="load"
  >
    <form
      class="form"
      novalidate
      @submit.prevent="keep"
    >
      <NumberField
        id="take-back-seconds"
        v-model="form!.takeBackSeconds as number | null"
        label="For how many seconds a text can be taken back before it leaves"
        :least="0"
        :most="60"
        :error="errors.takeBackSeconds"
      />
      <p class="quiet small">
        Texts that are written by hand, and those that a disposition sends. With 0 they leave at once.
      </p>
      <NumberField
        id="knock-minutes"
        v-model="form!.knockMinutes as number | null"
        label="For how many minutes something knocks at one colleague before it goes on to a stand-in, and then to the lead"
        :least="1"
        :most="240"
        :error="errors.knockMinutes"
      />
      <NumberField
        id="waits-minutes"
        v-model="form!.waitsMinutes"
        label="After how many minutes without an answer a conversation knocks at the lead"
        :least="1"
        :error="errors.waitsMinutes"
      />
      <p class="quiet small">
        Counted while the line is answered. Left empty, nothing knocks at the lead for this.
      </p>
      <NumberField
        id="bulk-most"
        v-model="form!.bulkMost"
        label="To how many people a rep may send a bulk text without a lead’s word"
        :least="1"
        :error="errors.bulkMost"
      />
      <p class="quiet small">
        A larger one is started by a lead, who finds it under Bulk. Left empty, there is no limit.
      </p>
      <LabelledField
        id="hot-tags"
        v-slot="{ input }"
        label="Tags that make a lead hot: its first answer knocks"
        :error="errors.hotTags"
      >
        <InputText
          v-bind="input"
          v-model="tags"
          placeholder="hot, this week"
        />
      </LabelledField>
      <p class="acts">
        <Button
          type="submit"
          label="Save the rules"
          :loading="saving"
        />
        <span
          v-if="saved"
          class="quiet"
          role="status"
        >Kept.</span>
      </p>
    </form>
  </SetUpRoom>
</template>

<style scoped>
.form { display: grid; gap: var(--space-4); justify-items: start; max-width: 36rem; }
.acts { display: flex; gap: var(--space-6); align-items: center; }
</style>
