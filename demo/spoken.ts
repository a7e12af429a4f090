import { v7 as uuid } from 'uuid'
import { peaksOf } from '../core/sound/peaks'
import { madeUpSound } from '../practice/exchange/sound'

/** What the colleagues of Pannier & Post leave on mailboxes. The sound is made up, as long as the words would take. */
const SPOKEN = [
  { name: 'Short hello', colleague: 'ada', team: 'sales', words: 'Hello, this is Ada Lund of Pannier and Post, about the cargo bikes that you asked for. I send you a text with my number, so that you can answer when it suits you.' },
  { name: 'Trial week ends', colleague: 'mika', team: 'sales', words: 'Hello, this is Mika of Pannier and Post. Your trial week ends soon, and I would like to hear how the bikes did. I call again tomorrow; a text reaches me before that.' },
  { name: 'Trial shift', colleague: 'noor', team: 'recruiting', words: 'Hello, this is Noor of Pannier and Post, about your trial shift. Where and when stands in the text that follows.' },
] as const

/** People say about so many characters a second (common practice: 150 words a minute). */
const CHARACTERS_A_SECOND = 15
const BARS = 240
/** Of the WAV file, before its samples of 8 bits. */
const HEADER = 44

export function spokenRows(colleagues: Record<string, string>, teams: Record<string, string>, now: Date) {
  return SPOKEN.map(({ name, colleague, team, words }) => {
    const ms = Math.round(words.length / CHARACTERS_A_SECOND) * 1_000
    const sound = madeUpSound(name, ms, 1)
    const samples = Float32Array.from(sound.subarray(HEADER), byte => (byte - 128) / 128)
    return { id: uuid(), name, words, ms, ownerId: colleagues[colleague]!, teamId: teams[team]!, peaks: peaksOf(samples, BARS), sound, madeAt: now }
  })
}
