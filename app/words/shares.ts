import { difference, wilson } from '~~/core/numbers/wilson'
import type { Hits } from '~~/shared/bulk-texts'
import type { VersionResult } from '~~/shared/template'

const percent = (share: number) => `${Math.round(share * 100)} %`

/** "31 % (21 to 43)": a share with the interval in which it may as well be. */
export function sayShare(hits: number, of: number): string {
  const found = wilson(hits, of)
  return found ? `${percent(found.share)} (${Math.round(found.low * 100)} to ${Math.round(found.high * 100)})` : 'not yet'
}

/** What a text has made of those who got it, beside those who were held back, in a plain sentence. */
export function sayWhatItMade(got: Hits, held: Hits): string {
  const [first, second] = [wilson(got.hits, got.of), wilson(held.hits, held.of)]
  if (!first || !second) return 'Nothing can be said as long as nobody has got it.'
  const { low, high, verdict } = difference(first, second)
  const [least, most] = [low, high].map(share => Math.round(Math.abs(share) * 100)).sort((a, b) => a - b)
  if (verdict === 'open') return 'No difference can be told: with so few people, chance alone makes one like this.'
  return `Of a hundred, the text itself made ${least} to ${most} ${verdict === 'first' ? 'more' : 'fewer'} write. Chance alone hardly makes that.`
}

/** Whether one audience has answered more than the other, in a plain sentence. */
export function sayWhichMore(one: { name: string, hits: Hits }, other: { name: string, hits: Hits }): string {
  const [first, second] = [wilson(one.hits.hits, one.hits.of), wilson(other.hits.hits, other.hits.of)]
  if (!first || !second) return ''
  const { low, high, verdict } = difference(first, second)
  if (verdict === 'open') return `Whether “${one.name}” or “${other.name}” answers more cannot be told: with so few people, chance alone makes such a difference.`
  const [least, most] = [low, high].map(share => Math.round(Math.abs(share) * 100)).sort((a, b) => a - b)
  const [more, less] = verdict === 'first' ? [one, other] : [other, one]
  return `Of a hundred in “${more.name}” ${least} to ${most} more have answered than in “${less.name}”. Chance alone hardly makes that.`
}

/** Whether one version was answered more than the other, in a plain sentence. */
export function sayDifference(one: VersionResult, other: VersionResult): string {
  const [first, second] = [wilson(one.answered, one.waited), wilson(other.answered, other.waited)]
  if (!first || !second) return `There is nothing to compare yet: a text counts when three days have passed.`
  const { low, high, verdict } = difference(first, second)
  const points = [low, high].map(share => Math.round(Math.abs(share) * 100)).sort((a, b) => a - b)
  if (verdict === 'open')
    return `Whether version ${one.version} or ${other.version} brings more answers cannot be told yet: with so few texts, chance alone makes such a difference.`
  const [better, worse] = verdict === 'first' ? [one, other] : [other, one]
  return `Version ${better.version} brings more answers than version ${worse.version}, by ${points[0]} to ${points[1]} of a hundred. Chance alone hardly makes that.`
}
