import type { BulkPace } from '~~/shared/bulk-texts'
import { many } from './count'

/** Why a bulk text has changed its pace, in a sentence. */
export function sayPace({ what, waiting, anHour }: BulkPace): string {
  const wait = `${many(waiting, 'answer waits', 'answers wait')}`
  if (what === 'waits') return `It waits: ${wait}, an hour’s work or more.`
  if (what === 'goes-on') return `It goes on: ${wait}.`
  return anHour === null ? 'It goes as fast as its lines, by hand.' : `It goes by ${many(anHour, 'answer', 'answers')} an hour, by hand.`
}
