import type { Conditions } from '../core/conditions/conditions'
import type { Module } from './modules'

/**
 * How people get into a group: by hand; by a rule, which asks anew each time; or by a field, a rule that asks for nothing but a
 * tag, a choice or a yes, so that they can be put in by hand all the same.
 */
export type GroupWay = 'hand' | 'rule' | 'field'

/** Of whom a rule asks what. */
export interface GroupRule { module: Module, conditions: Conditions }

export interface GroupHead {
  id: string
  name: string
  way: GroupWay
  /** Null for one by hand. */
  rule: GroupRule | null
  madeBy: { id: string, firstName: string }
  mayEdit: boolean
}

/** A group that a record is in. */
export interface GroupOn { id: string, name: string, way: GroupWay }

/** Somebody in a group. */
export interface GroupPerson {
  id: string
  module: Module
  name: string
  title: string | null
  company: string | null
  city: string | null
  owner: string
  lastContactAt: number | null
}

export interface GroupPeople { rows: GroupPerson[], total: number, page: number, size: number }

/**
 * What was sent to a group, and what came back.
 * @property texted to how many of its people a bulk text has gone, and how many of these have written since
 */
export type GroupFeedItem
  = | { kind: 'sent', at: number, bulkId: string, name: string, by: string, texted: number, answered: number, mayOpen: boolean }
    | { kind: 'came-in', at: number, activityId: string, recordId: string, name: string, words: string | null }

/** Where a page of the feed ends: of the last item, when it was, epoch milliseconds, and its id. */
export interface FeedPlace { at: number, id: string }
export interface GroupFeed { items: GroupFeedItem[], /** Where it goes on; null where that was all. */ next: FeedPlace | null }
