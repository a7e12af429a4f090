import type { LineStep } from '~~/core/lines/life'
import type { ZoneRules } from '~~/core/hours/rules'
import type { LinePorting, NumberOffered, SetUpLine } from '~~/shared/set-up'
import { sum } from './money'
import { shortDay } from './time'

export const STEP_WORDS: Record<LineStep, string> = {
  'pause': 'Pause it',
  'go-on': 'Let it go on',
  'end': 'End it',
  'keep': 'Keep it after all',
  'take-up': 'Take it up again',
}

/** By which a number is brought over; “…” is the carrier that has it. */
export const PORTING_STEPS = ['Asked for', '… agrees', 'It moves', 'In use here'] as const

/** The step at which it is: those before it are done. */
export const portingAt = ({ state }: Pick<LinePorting, 'state'>): number => state === 'agreed' ? 2 : 1

type Shown = Pick<SetUpLine, 'state' | 'turnsAt' | 'rent' | 'rented' | 'porting'>

const aMonth = ({ rent }: Shown) => rent ? `${sum(rent)} a month` : null

/** What a line is, in a sentence: "In use, paid until 31 Dec, $1.15 a month". */
export function sayLine(line: Shown, zone: ZoneRules): string {
  const day = line.turnsAt === null ? null : shortDay(line.turnsAt, zone)
  const paid = [day && `paid until ${day}`, aMonth(line)].filter(Boolean).join(', ')
  switch (line.state) {
    case 'ordered':
      if (line.porting) return `Being brought over from ${line.porting.from}`
      return `Asked for${day ? `; the carrier usually gives it by ${day}` : ''}`
    case 'active': return paid ? `In use, ${paid}` : 'In use'
    case 'paused': return `Paused: it is silent${paid ? `, and ${paid}` : ''}`
    case 'ending': return `In use until ${day ?? 'its month is over'}, then it ends`
    case 'ended': return day ? `Ended on ${day}` : 'Ended'
  }
}

/** What a step will do, before it is taken. */
export function sayStep(step: LineStep, line: Shown, zone: ZoneRules): string {
  const day = line.turnsAt === null ? null : shortDay(line.turnsAt, zone)
  switch (step) {
    case 'pause': return `Nothing leaves over it and it does not ring, until it goes on. What comes in is kept. A text that is to leave meanwhile is not sent, and its author is told.${line.rented ? ' It stays yours, and is paid for.' : ''}`
    case 'go-on': return 'It is texted and called from again.'
    case 'end':
      if (line.porting) return `It stays with ${line.porting.from}. Nothing has been paid for it.`
      if (line.state === 'ordered') return 'It is not taken. Nothing has been paid for it.'
      return line.rented
        ? `Its month is paid until ${day}: ${line.state === 'paused' ? 'it goes on until then' : 'until then it works as before'}, and can be kept after all. Then the number is the carrier’s again.`
        : 'It is not texted and called from any more. End it at its carrier too, who knows nothing of this.'
    case 'keep': return `It goes on${day ? `, and is paid for again on ${day}` : ''}.`
    case 'take-up': return line.rented
      ? `Its number is taken at the carrier again${line.rent ? `, for ${sum(line.rent)} a month from today` : ''}. What was written over it is where it was.`
      : 'It is texted and called from again, if its carrier still has it for you.'
  }
}

const DOES: Record<NumberOffered['does'][number], string> = { text: 'texts', picture: 'pictures', call: 'calls' }

/** "texts, pictures and calls; $1.15 a month; there at once" */
export function sayOffer({ does, rent, setUp, days }: NumberOffered): string {
  const can = does.map(one => DOES[one])
  return [
    `${can.slice(0, -1).join(', ')}${can.length > 1 ? ' and ' : ''}${can.at(-1)}`,
    `${sum(rent)} a month${setUp.micros > 0 ? ` and ${sum(setUp)} once` : ''}`,
    days === 0 ? 'there at once' : `there in about ${days} days`,
  ].join('; ')
}
