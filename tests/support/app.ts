/// <reference types="jest" />
import * as vue from 'vue'
import { FetchError } from 'ofetch'
import { createPinia, setActivePinia } from 'pinia'
import type { Notice } from '~~/shared/live'

/**
 * What Nuxt has at hand everywhere, for code of the interface that is tested without it. To be imported before
 * anything of `~/`.
 */
const { ref, shallowRef, computed, watch, nextTick, toValue } = vue
/** Where the interface went, newest last. */
export const wentTo: unknown[] = []
Object.assign(globalThis, {
  ref,
  shallowRef,
  computed,
  watch,
  nextTick,
  toValue,
  onMounted: within(vue.onMounted),
  onBeforeUnmount: within(vue.onBeforeUnmount),
  onBeforeRouteLeave: () => undefined,
  onBeforeRouteUpdate: () => undefined,
  navigateTo: async (to: unknown) => void wentTo.push(to),
  $fetch: ask,
})

/** What belongs to a component is nothing outside of one. */
function within(hook: (act: () => void) => void) {
  return (act: () => void) => void (vue.getCurrentInstance() && hook(act))
}

const nowhere = () => ({})
const { createApp } = vue.createRenderer<object, object>({
  insert: nowhere,
  remove: nowhere,
  patchProp: nowhere,
  setText: nowhere,
  setElementText: nowhere,
  createElement: nowhere,
  createText: nowhere,
  createComment: nowhere,
  parentNode: () => null,
  nextSibling: () => null,
})
const pages: vue.App<object>[] = []

/** What a component has of a composable: it begins with it, and ends when the page is left. */
export function inPage<T>(setup: () => T): T {
  let result: T | undefined
  const app = createApp({
    setup() {
      result = setup()
      return () => null
    },
  })
  app.mount({})
  pages.push(app)
  return result as T
}

/** The page is left. */
export function leave(): void {
  for (const page of pages.splice(0)) page.unmount()
}

// what a page does every so often would go on behind the tests
afterAll(leave)

class Storage {
  private readonly kept = new Map<string, string>()
  getItem = (key: string) => this.kept.get(key) ?? null
  setItem = (key: string, value: string) => void this.kept.set(key, value)
  removeItem = (key: string) => void this.kept.delete(key)
}
/** What this browser keeps over a reload. */
export const browserKeeps = new Storage()
const listens = { addEventListener: () => undefined, removeEventListener: () => undefined, dispatchEvent: () => true }
Object.assign(globalThis, {
  window: { ...listens, localStorage: browserKeeps, location: { assign: (to: string) => void wentTo.push(to) } },
  document: listens,
  localStorage: browserKeeps,
  Storage,
  StorageEvent: Event,
})

/** Another tab of this browser holds the stream of notices, and tells. */
const channels: { onmessage: (event: { data: unknown }) => void }[] = []
class Channel {
  onmessage: (event: { data: unknown }) => void = () => undefined
  constructor() {
    channels.push(this)
  }
}
Object.assign(globalThis, { BroadcastChannel: Channel, navigator: { locks: { request: async () => undefined } } })

/** The server tells that something changed. */
export function tell(notice: Notice): void {
  for (const channel of channels) channel.onmessage({ data: { notice } })
}

interface Asked { method: string, path: string, body?: unknown, query?: unknown }
type Answer = (asked: Asked) => unknown
let answers: Record<string, Answer> = {}
/** What the server was asked, oldest first. */
export const asked: Asked[] = []

async function ask(
  path: string,
  { method = 'GET', body, query }: { method?: string, body?: unknown, query?: unknown } = {},
): Promise<unknown> {
  asked.push({ method, path, body, query })
  const answer = answers[`${method} ${path}`]
  if (!answer) throw new Error(`Nobody answers ${method} ${path}.`)
  return answer({ method, path, body, query })
}

/** A fresh interface before a server that answers so, by method and path. */
export function before(server: Record<string, Answer>): void {
  answers = server
  leave()
  asked.length = 0
  wentTo.length = 0
  setActivePinia(createPinia())
}

/** The server refuses, with problem details. */
export function refuse(status: number, type: string, detail: string, more: object = {}): never {
  const error = new FetchError(detail)
  error.data = { status, type, title: type, detail, ...more }
  throw error
}

/** The server cannot be reached. */
export function away(): never {
  throw new FetchError('no response')
}

export const askedFor = () => asked.map(({ method, path }) => `${method} ${path}`)
/** An answer of the server that comes when the test says so. */
export function held<T>(): { answer: Promise<T>, give: (value: T) => void } {
  let give: (value: T) => void = () => undefined
  const answer = new Promise<T>(resolve => give = resolve)
  return { answer, give }
}

/** Lets everything that waits for an answer go on. */
export const settled = () => new Promise(resolve => setTimeout(resolve, 5))
