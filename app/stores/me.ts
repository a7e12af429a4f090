import { defineStore } from 'pinia'
import type { ZoneRules } from '~~/core/hours/rules'
import type { Permission, Role, Scope } from '~~/shared/permissions'
import type { ChosenFormat } from '~~/core/hours/format'
import type { ToldForm } from '~~/shared/schemas/sign-in'
import { api } from '~/composables/api'
import { problemIn } from '~/composables/trying'
import { readAs } from '~/words/reader'

export interface Me {
  id: string
  name: string
  firstName: string
  role: Role
  /** How far each right of theirs reaches. */
  rights: Record<Permission, Scope>
  /** Until when somebody from outside helps (instant); null for all others. */
  helpsUntil: number | null
  title: string
  firm: string
  takeBackSeconds: number
  /** After so long what knocks goes on to others. */
  knockMinutes: number
  /** Whether letters and signs by themselves are keys. */
  singleKeys: boolean
  /** How they are told of what comes in. */
  told: ToldForm
  /** How they read times and days; null is as their browser does. */
  format: ChosenFormat
  /** Whether this Plauder can mail. */
  mails: boolean
  /** What broke and waits for an admin. */
  stuck: number
  /** They have to read the terms of use before they text. */
  termsUnread: boolean
  /** How many could not text for want of money, for an admin. */
  asks: number
  zone: ZoneRules
  teams: { id: string, name: string }[]
}

/** Who is signed in here. */
export const useMe = defineStore('me', () => {
  const me = shallowRef<Me | null>(null)
  /** The sign-in has ended while a page is open. */
  const expired = ref(false)
  /** Who has signed in in another tab of this browser meanwhile. */
  const replacedBy = ref<string | null>(null)

  /** Asks the server who this is; null if nobody is signed in. */
  async function load(): Promise<Me | null> {
    try {
      me.value = await api<Me>('/api/me', { asAnybody: true })
      readAs(me.value.format)
      expired.value = false
      replacedBy.value = null
    }
    catch (error) {
      if (problemIn(error).details.status !== 401) throw error
      if (!me.value) expired.value = false
    }
    return me.value
  }

  /** What is owed, to an admin or by them, may be more, or less, than it was. */
  async function countAgain(): Promise<void> {
    const { stuck, asks, termsUnread } = await api<Me>('/api/me')
    if (me.value) me.value = { ...me.value, stuck, asks, termsUnread }
  }

  /** @param code of an app, or for recovery, where one is asked for */
  async function signIn(mail: string, password: string, code: string): Promise<void> {
    await api('/api/sign-in', { method: 'POST', body: { mail, password, code }, asAnybody: true })
    const before = me.value?.id
    await load()
    // somebody else signed in over the page: what is on it belongs to another
    if (before && before !== me.value?.id) window.location.assign('/')
  }

  async function signOut(): Promise<void> {
    await api('/api/sign-out', { method: 'POST', body: {}, asAnybody: true })
    window.location.assign('/sign-in')
  }

  /** Whether they may do this at all, with whatever is theirs. */
  const may = (permission: Permission): boolean => !!me.value && me.value.rights[permission] !== 'none'

  return { me, may, expired, replacedBy, load, signIn, signOut, countAgain }
})
