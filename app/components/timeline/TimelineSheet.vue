<script setup lang="ts">
import { until, useIntersectionObserver } from '@vueuse/core'
import { dayAt } from '~~/core/hours/days'
import type { RecordDetail } from '~~/shared/record'
import type { TimelineEntry } from '~~/shared/timeline'
import { narrows } from '~/composables/sieve'
import { MOST, type useTimeline } from '~/composables/timeline'
import { useNow } from '~/composables/now'
import { useMe } from '~/stores/me'
import { dayName } from '~/words/time'

/** @param sought an entry that somebody has come for: it is scrolled to and marked */
const { timeline, record, sought } = defineProps<{ timeline: ReturnType<typeof useTimeline>, record: RecordDetail, sought?: string }>()
const emit = defineEmits<{ again: [text: string], optOut: [e164: string, proposalId: string] }>()

const { entries, more, newer, state, problem, sieve, went, load, loadOlder, loadNewer, refresh } = timeline
const me = useMe()
const now = useNow()
const person = computed(() => record.firstName ?? record.name)

/** What a disposition did stands in the entry of its call, which opens to it. */
const isPart = ({ kind, data }: (typeof entries.value)[number]) => data.callId !== undefined && !kind.startsWith('call')

/** Entries under the day they belong to, in the reader's zone. */
const days = computed(() => {
  const grouped: { name: string, day: string, entries: typeof entries.value }[] = []
  for (const entry of entries.value.filter(one => !isPart(one))) {
    const name = dayName(entry.at, me.me!.zone, now.value)
    if (grouped.at(-1)?.name !== name) grouped.push({ name, day: dayAt(me.me!.zone, entry.at), entries: [] })
    grouped.at(-1)!.entries.push(entry)
  }
  return grouped
})

const isTheirs = ({ kind }: TimelineEntry) => kind === 'text-in' || kind === 'call-in'
const newestOfTheirs = computed(() => entries.value.find(isTheirs)?.id)
/** For whom it was is asked of the newest that came in, and can be said of what is with somebody else. */
const asksFor = (entry: TimelineEntry) => entry.meantFor !== null || (entry.id === newestOfTheirs.value && entry.via === null)

const end = useTemplateRef<HTMLElement>('end')
const top = useTemplateRef<HTMLElement>('top')
const loading = ref(false)
function whenNear(edge: typeof end, loadMore: () => Promise<void>): void {
  useIntersectionObserver(edge, async ([seen]) => {
    if (!seen?.isIntersecting || loading.value) return
    loading.value = true
    await loadMore()
    loading.value = false
  }, { rootMargin: '600px' })
}
whenNear(end, loadOlder)
// only for who has been further down: whoever has come into the middle decides themselves
const wasLong = ref(false)
watch(entries, () => wasLong.value ||= entries.value.length >= MOST && newer.value)
whenNear(top, async () => {
  if (wasLong.value) await loadNewer()
})

watch(went, async (day) => {
  if (!day) return
  await nextTick()
  const there = [...sheet.value?.querySelectorAll<HTMLElement>('[data-day]') ?? []].find(one => one.dataset.day! <= day)
  there?.scrollIntoView({ block: 'start' })
  there?.focus({ preventScroll: true })
})

const sheet = useTemplateRef<HTMLElement>('sheet')
if (sought) {
  void until(state).toBe('ready').then(async () => {
    await nextTick()
    const entry = sheet.value?.querySelector<HTMLElement>('.sought')
    entry?.scrollIntoView({ block: 'center' })
    entry?.focus({ preventScroll: true })
  })
}
</script>

<template>
  <section
    ref="sheet"
    aria-label="Timeline"
  >
    <div
      v-if="state === 'loading'"
      class="shape"
      role="status"
      aria-label="The timeline is loading"
    >
      <span
        v-for="i in 4"
        :key="i"
      />
    </div>
    <LoadProblem
      v-else-if="state === 'failed'"
      :problem="problem"
      @again="load"
    />
    <template v-else>
      <p
        v-if="entries.length === 0"
        class="quiet"
      >
        {{ narrows(sieve) ? 'Nothing in this timeline matches.' : `Nothing has happened with ${person} yet. The first text will stand here.` }}
      </p>
      <p
        v-if="newer"
        ref="top"
        class="newer quiet"
      >
        You are looking at an earlier time.
        <button
          type="button"
          class="plain-button"
          @click="loadNewer"
        >
          Show what came after
        </button>
        <button
          type="button"
          class="plain-button calm"
          @click="load()"
        >
          Go to the newest
        </button>
      </p>
      <section
        v-for="day in days"
        :key="day.day"
        class="day"
        :data-day="day.day"
        tabindex="-1"
      >
        <h2>{{ day.name }}</h2>
        <ol class="entries">
          <template
            v-for="entry in day.entries"
            :key="entry.id"
          >
            <TextSlip
              v-if="entry.message"
              :entry="entry"
              :person="entry.meantFor?.name ?? entry.via?.name ?? person"
              :class="{ sought: entry.id === sought }"
              :tabindex="entry.id === sought ? -1 : undefined"
              @changed="refresh(entry.id)"
              @again="emit('again', $event)"
            >
              <template #more>
                <MeantFor
                  v-if="asksFor(entry)"
                  :entry="entry"
                  :record="record"
                  @changed="refresh(entry.id)"
                />
                <SlipMore
                  :entry="entry"
                  :record="record"
                  @taken-off="load()"
                />
              </template>
              <template #proposal>
                <button
                  type="button"
                  class="plain-button"
                  @click="emit('optOut', entry.message.remote, entry.message.proposal!.id)"
                >
                  Yes, opt this number out
                </button>
              </template>
            </TextSlip>
            <LineEntry
              v-else
              :entry="entry"
              :person="entry.meantFor?.name ?? entry.via?.name ?? person"
              :class="{ sought: entry.id === sought }"
              :tabindex="entry.id === sought ? -1 : undefined"
            >
              <MeantFor
                v-if="asksFor(entry)"
                :entry="entry"
                :record="record"
                @changed="refresh(entry.id)"
              />
            </LineEntry>
          </template>
        </ol>
      </section>
      <p
        v-if="more"
        ref="end"
        class="quiet"
      >
        {{ problem || 'Older entries are loading…' }}
      </p>
    </template>
  </section>
</template>

<style scoped>
/* days out of sight are laid out when they come near: ten thousand entries scroll as ten do */
.day { margin-bottom: var(--space-6); content-visibility: auto; contain-intrinsic-size: auto 12rem; }
.day:focus { outline: none; }
.day:focus h2 { color: var(--accent); }
.day h2 { font-size: var(--size); color: var(--quiet); padding-bottom: var(--space-1); }
.entries { display: grid; gap: var(--space-4); }
.newer { display: flex; flex-wrap: wrap; gap: var(--space-6); align-items: baseline; padding-bottom: var(--space-4); }
.sought { outline: 2px solid var(--waiting); outline-offset: 4px; border-radius: var(--round-small); }
.shape { display: grid; gap: var(--space-5); }
.shape span { height: 3rem; background: var(--hover); border-left: 3px solid var(--rule); border-radius: var(--round-small); margin-left: var(--space-10); }
</style>
