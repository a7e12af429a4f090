import { split } from 'split-sms'
import { charactersUnder, NO_TABLES, type Tables } from './tables'

/**
 * A text on its way through the air: cut into parts, each in octets as a telephone gets them, and put
 * together again by the handset. Independent of the application's own counting, on purpose.
 */
export interface Part {
  /** Names the text to which the part belongs, as in the header of a joined part. */
  reference: number
  index: number
  of: number
  coding: 'gsm' | 'ucs2'
  /** The national tables that the header names. */
  tables: Tables
  /** Septets, one a number, or UCS-2 octets in big-endian order. */
  data: number[]
}

const ESCAPE = 0x1B
/** Octets of user data in a part, of its header's own length, of the element that joins parts and of one that names a table. */
const [OCTETS, LENGTH, JOINING, NAMING] = [140, 1, 5, 3]

/** Whether a text can be said in national tables. */
export const isSayable = (text: string, tables: Tables) => toSeptets(text, tables).every(septets => septets !== null)

/** Cuts a text into parts; in national tables only what is sayable in them. */
export function cut(text: string, reference: number, tables: Tables = NO_TABLES): Part[] {
  if (!tables.single && !tables.locking) return cutPlain(text, reference)
  const characters = sayable(text, tables)
  const named = NAMING * (Number(tables.single > 0) + Number(tables.locking > 0))
  const holds = (header: number) => Math.floor((OCTETS - header) * 8 / 7)
  const whole = characters.flat()
  if (whole.length <= holds(LENGTH + named)) return [{ reference, index: 0, of: 1, coding: 'gsm', tables, data: whole }]
  const parts: number[][] = [[]]
  for (const septets of characters) {
    if (parts.at(-1)!.length + septets.length > holds(LENGTH + JOINING + named)) parts.push([])
    parts.at(-1)!.push(...septets)
  }
  return parts.map((data, index) => ({ reference, index, of: parts.length, coding: 'gsm', tables, data }))
}

function cutPlain(text: string, reference: number): Part[] {
  const { characterSet, parts } = split(text)
  const coding = characterSet === 'GSM' ? 'gsm' : 'ucs2'
  return parts.map(({ content }, index) => ({
    reference,
    index,
    of: parts.length,
    coding,
    tables: NO_TABLES,
    data: coding === 'gsm' ? sayable(content, NO_TABLES).flat() : [...Buffer.from(content, 'utf16le').swap16()],
  }))
}

/** What a telephone shows once all parts are there, in whatever order they came; null before. */
export function join(parts: Part[]): string | null {
  const inOrder = [...parts].sort((a, b) => a.index - b.index)
  if (inOrder.length !== parts[0]?.of) return null
  return inOrder
    .map(({ coding, tables, data }) =>
      coding === 'gsm' ? fromSeptets(data, tables ?? NO_TABLES) : Buffer.from(data).swap16().toString('utf16le'),
    )
    .join('')
}

const sayable = (text: string, tables: Tables) => toSeptets(text, tables).filter(septets => septets !== null)

/** Each character in one septet, or two behind an escape; null for one that is in neither table. */
function toSeptets(text: string, tables: Tables): (number[] | null)[] {
  const { plain, escaped } = charactersUnder(tables)
  return [...text].map((char) => {
    const code = plain.indexOf(char)
    if (code >= 0 && code !== ESCAPE) return [code]
    const [found] = Object.entries(escaped).find(([, one]) => one === char) ?? []
    return found === undefined ? null : [ESCAPE, Number(found)]
  })
}

function fromSeptets(septets: number[], tables: Tables): string {
  const { plain, escaped } = charactersUnder(tables)
  let text = ''
  for (let i = 0; i < septets.length; i++) {
    text += septets[i] === ESCAPE ? escaped[septets[++i]!] ?? ' ' : plain[septets[i]!]
  }
  return text
}
