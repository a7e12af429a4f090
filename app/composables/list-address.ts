import type { LocationQuery, LocationQueryRaw } from 'vue-router'
import { isGroup, NO_CONDITIONS, type Condition, type Conditions } from '~~/core/conditions/conditions'
import { firstLook } from '~~/shared/columns'
import type { Module } from '~~/shared/modules'

/** All that says which list is on screen. */
export interface ListState {
  words: string
  conditions: Conditions
  columns: string[]
  sort: string
  direction: 'up' | 'down'
  page: number
}

/** How a module's list looks when nobody has asked for anything. */
export const plainList = (module: Module): ListState => ({ words: '', conditions: NO_CONDITIONS, page: 1, ...firstLook(module) })

/** The list that an address says; what it does not say, or says wrongly, is as at first. */
export function readListAddress(module: Module, query: LocationQuery): ListState {
  const plain = plainList(module)
  const text = (key: string) => typeof query[key] === 'string' ? query[key] : ''
  const columns = text('columns').split(',').filter(Boolean)
  return {
    words: text('words'),
    conditions: conditionsIn(text('where')) ?? plain.conditions,
    columns: columns.length > 0 ? columns : plain.columns,
    sort: text('sort') || plain.sort,
    direction: text('direction') === 'up' ? 'up' : text('direction') === 'down' ? 'down' : plain.direction,
    page: /^[1-9]\d{0,5}$/.test(text('page')) ? Number(text('page')) : 1,
  }
}

/** The address of a list: only what is not as at first. */
export function listAddress(module: Module, { words, conditions, columns, sort, direction, page }: ListState): LocationQueryRaw {
  const plain = plainList(module)
  return {
    ...words && { words },
    ...conditions.of.length > 0 && { where: JSON.stringify(conditions) },
    ...columns.join() !== plain.columns.join() && { columns: columns.join() },
    ...(sort !== plain.sort || direction !== plain.direction) && { sort, direction },
    ...page > 1 && { page: String(page) },
  }
}

/** Conditions as far as their form goes; whether there are such fields is for the server to say. */
function conditionsIn(json: string): Conditions | null {
  try {
    const read: unknown = JSON.parse(json)
    return isConditions(read) ? read : null
  }
  catch {
    return null
  }
}

const DEEPEST = 3

function isConditions(read: unknown, depth = 1): read is Conditions {
  if (!read || typeof read !== 'object' || depth > DEEPEST) return false
  const { match, of } = read as Partial<Conditions>
  return (match === 'all' || match === 'any') && Array.isArray(of) && of.every((one: Condition | Conditions | null) =>
    one && typeof one === 'object' && (isGroup(one) ? isConditions(one, depth + 1) : typeof one.field === 'string' && typeof one.test === 'string'))
}
