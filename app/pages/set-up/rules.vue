<script setup lang="ts">
import type { HouseRulesForm } from '~~/shared/schemas/house-rules'
import { api } from '~/composables/api'
import { useLoaded } from '~/composables/loaded'
import { useSaving } from '~/composables/saving'
import { adminsOnly } from '~/composables/set-up-list'
import { useMe } from '~/stores/me'

definePageMeta({ middleware: adminsOnly })

const me = useMe()
const form = ref<HouseRulesForm | null>(null)
const saved = ref(false)
const { errors, saving, save } = useSaving('takeBackSeconds')

const { problem, load } = useLoaded<HouseRulesForm>('/api/set-up/rules', show)

const number = (typed: string | undefined) => typed === undefined || typed.trim() === '' ? null : Number(typed)
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
      <LabelledField
        id="take-back-seconds"
        v-slot="{ input }"
        label="For how many seconds a text can be taken back before it leaves"
        :error="errors.takeBackSeconds"
      >
        <InputText
          v-bind="input"
          :model-value="String(form!.takeBackSeconds)"
          type="number"
          min="0"
          max="60"
          class="short"
          @update:model-value="form!.takeBackSeconds = Number($event)"
        />
      </LabelledField>
      <p class="quiet small">
        Texts that are written by hand, and those that a disposition sends. With 0 they leave at once.
      </p>
      <LabelledField
        id="knock-minutes"
        v-slot="{ input }"
        label="For how many minutes something knocks at one colleague before it goes on to a stand-in, and then to the lead"
        :error="errors.knockMinutes"
      >
        <InputText
          v-bind="input"
          :model-value="String(form!.knockMinutes ?? '')"
          type="number"
          min="1"
          max="240"
          class="short"
          @update:model-value="form!.knockMinutes = number($event) as number"
        />
      </LabelledField>
      <LabelledField
        id="waits-minutes"
        v-slot="{ input }"
        label="After how many minutes without an answer a conversation knocks at the lead"
        :error="errors.waitsMinutes"
      >
        <InputText
          v-bind="input"
          :model-value="String(form!.waitsMinutes ?? '')"
          type="number"
          min="1"
          class="short"
          @update:model-value="form!.waitsMinutes = number($event)"
        />
      </LabelledField>
      <p class="quiet small">
        Counted while the line is answered. Left empty, nothing knocks at the lead for this.
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
.short { width: 7rem; }
.acts { display: flex; gap: var(--space-6); align-items: center; }
</style>
