/** What is known about a text that somebody is about to send. */
export interface CautionFacts {
  text: string
  now: number
  /** Names by which whoever gets it would know who writes: of the sender, of the firm. */
  sender: string[]
  /** The last text of ours to this number, over any line; null if there was none. */
  last: { at: number, by: string, mine: boolean } | null
  /** Last text or call from them. */
  lastHeardAt: number | null
}

export type CautionKind = 'unnamed' | 'link' | 'just-texted'
export interface Caution { kind: CautionKind, words: string }

/** A second text within minutes of a colleague's is one too many (common practice). */
const JUST_NOW = 10 * 60_000
/** Answering somebody who wrote a moment ago needs no introduction (common practice). */
const ANSWERING = 3_600_000

/**
 * What a sender may want to look at again before the text goes. Nothing of it stands in the way.
 * A text introduces its sender the first time (common practice).
 */
export function cautions({ text, now, sender, last, lastHeardAt }: CautionFacts): Caution[] {
  if (text.trim() === '') return []
  const answering = lastHeardAt !== null && now - lastHeardAt <= ANSWERING
  const found: Caution[] = []
  if (!last && !answering && !sender.some(name => name && text.toLowerCase().includes(name.toLowerCase()))) {
    found.push({ kind: 'unnamed', words: 'It is the first text to this number, and it does not say who is writing.' })
  }
  const link = wrongLink(text)
  if (link) found.push({ kind: 'link', words: link })
  if (last && !last.mine && !answering && now - last.at <= JUST_NOW) {
    const minutes = Math.max(1, Math.round((now - last.at) / 60_000))
    found.push({ kind: 'just-texted', words: `${last.by} has texted this number ${minutes} min ago.` })
  }
  return found
}

/** What is wrong with the first link that cannot be right; null if there is none. */
export function wrongLink(text: string): string | null {
  for (const [found] of text.matchAll(/\b(?:https?:|www\.)\S*/gi)) {
    const link = found.replace(/[.,;:!?'"”’]+$/, '')
    if (/^www$/i.test(link) || /^https?:\/{0,2}$/i.test(link)) return `“${found}” is no whole link. Is there a blank in it?`
    const open = (link.match(/\(/g) ?? []).length
    const closed = (link.match(/\)/g) ?? []).length
    if (open > closed) return `A bracket in ${link} is not closed, and telephones end the link there.`
    if (!isReachable(link)) return `${link} leads nowhere. Look at how it is written.`
  }
  return null
}

function isReachable(link: string): boolean {
  const whole = /^www\./i.test(link) ? `https://${link}` : link
  if (!/^https?:\/\/[^/\s]/i.test(whole) || !URL.canParse(whole)) return false
  const { hostname } = new URL(whole)
  return /^[^.]+(\.[^.]+)+$/.test(hostname)
}
