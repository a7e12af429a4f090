import { measureText } from '../text/measure'
import type { Filled } from './fill'

interface Length { units: number, parts: number }

/** Somebody whom a text was filled for, and how long it became. */
export interface LengthSample extends Length { id: string, name: string }

/** Somebody for whom nothing would be sent. */
export interface HeldSample { id: string, name: string }

/**
 * How long a template becomes over many people. Tallies of parts of them can be put together, so that a long
 * count can show how far it is, and be stopped.
 */
export interface LengthTally {
  people: number
  /** How many need so many parts. */
  parts: Record<number, number>
  /** How many have a text of so many units. */
  units: Record<number, number>
  /** How many have a character in theirs that takes the dear encoding. */
  dear: number
  /** By what is missing: how many are held back, and some of them. */
  held: Record<string, { people: number, some: HeldSample[] }>
  heldPeople: number
  shortest: LengthSample | null
  longest: LengthSample | null
  /** Those with the most parts, the longest first. */
  most: LengthSample[]
}

const MOST_NAMED = 12

export const emptyTally = (): LengthTally => ({
  people: 0,
  parts: {},
  units: {},
  dear: 0,
  held: {},
  heldPeople: 0,
  shortest: null,
  longest: null,
  most: [],
})

/** Counts one person in. */
export function count(tally: LengthTally, person: HeldSample, filled: Filled): void {
  tally.people++
  if (!filled.ok) {
    tally.heldPeople++
    const reasons = new Set([...filled.holes.map(({ path }) => path), ...filled.problems.map(({ message }) => message)])
    for (const reason of reasons) {
      const held = tally.held[reason] ??= { people: 0, some: [] }
      held.people++
      if (held.some.length < MOST_NAMED) held.some.push(person)
    }
    return
  }
  const { units, parts, encoding } = measureText(filled.text)
  tally.parts[parts] = (tally.parts[parts] ?? 0) + 1
  tally.units[units] = (tally.units[units] ?? 0) + 1
  if (encoding === 'UCS-2') tally.dear++
  // hardly anybody is among the longest: nothing is made for the others
  const length = { units, parts }
  if (!tally.shortest || isShorter(length, tally.shortest)) tally.shortest = { ...person, ...length }
  if (tally.most.length < MOST_NAMED || isShorter(tally.most.at(-1)!, length))
    tally.most = [...tally.most, { ...person, ...length }].sort(longestFirst).slice(0, MOST_NAMED)
  tally.longest = tally.most[0]!
}

/** By parts, which is what costs, then by units. */
const isShorter = (a: Length, b: Length) => a.parts - b.parts < 0 || (a.parts === b.parts && a.units < b.units)
const longestFirst = (a: LengthSample, b: LengthSample) => b.parts - a.parts || b.units - a.units

/** Two tallies of different people as one. */
export function together(a: LengthTally, b: LengthTally): LengthTally {
  const sum = (x: Record<number, number>, y: Record<number, number>) =>
    Object.fromEntries([...new Set([...Object.keys(x), ...Object.keys(y)])].map(key => [key, (x[+key] ?? 0) + (y[+key] ?? 0)]))
  const held: LengthTally['held'] = {}
  for (const [reason, { people, some }] of [...Object.entries(a.held), ...Object.entries(b.held)]) {
    const before = held[reason] ?? { people: 0, some: [] }
    held[reason] = { people: before.people + people, some: [...before.some, ...some].slice(0, MOST_NAMED) }
  }
  const best = (x: LengthSample | null, y: LengthSample | null, wins: (x: LengthSample, y: LengthSample) => boolean) =>
    !x ? y : !y ? x : wins(y, x) ? y : x
  return {
    people: a.people + b.people,
    parts: sum(a.parts, b.parts),
    units: sum(a.units, b.units),
    dear: a.dear + b.dear,
    held,
    heldPeople: a.heldPeople + b.heldPeople,
    shortest: best(a.shortest, b.shortest, isShorter),
    longest: best(a.longest, b.longest, (x, y) => isShorter(y, x)),
    most: [...a.most, ...b.most].sort(longestFirst).slice(0, MOST_NAMED),
  }
}

/** The usual length: half of the people have a text of so many units or fewer. */
export function usualUnits({ units }: LengthTally): number | null {
  const sorted = Object.entries(units).map(([key, people]) => [Number(key), people] as const).sort(([a], [b]) => a - b)
  const all = sorted.reduce((sum, [, people]) => sum + people, 0)
  let seen = 0
  for (const [length, people] of sorted) if ((seen += people) * 2 >= all) return length
  return null
}

/** The parts that most people need, and how many need more. */
export function usualParts({ parts }: LengthTally): { parts: number, more: number } | null {
  const sorted = Object.entries(parts).map(([key, people]) => [Number(key), people] as const)
  if (sorted.length === 0) return null
  const [usual] = sorted.reduce((most, one) => one[1] > most[1] ? one : most)
  return { parts: usual, more: sorted.reduce((sum, [key, people]) => key > usual ? sum + people : sum, 0) }
}
