import { join } from 'node:path'
import { Journal } from './journal'
import type { PapersEvent, World } from './world'

/** What the carrier reads of papers; the rest it files. */
export interface Handed { firm: string, brand: string, agree: string, samples: string[], files: number }

/** Papers of its one customer for a country: being looked at until a day, or answered. */
export interface Looked { country: string, ref: string, handed: Handed, state: 'looked-at' | 'accepted' | 'asked-back', until: number, turn: number }

type Entry = { do: 'keep', looked: Looked }

/** Invented, of the size that such looks take: in how many days it answers, at least and at most. */
export const PAPERS_WANTED = [
  { country: 'US', leastDays: 7, mostDays: 15 },
  { country: 'CA', leastDays: 4, mostDays: 10 },
]

const LOOK_EVERY_MS = 60_000
const DAY = 86_400_000
/** Who says less about how people agree is asked (common practice). */
const LEAST_AGREE = 40

/** What is wrong with papers, in words for whoever wrote them; null where nothing is (common practice: the usual reasons). */
export function wrongWith({ firm, brand, agree, samples }: Handed): string | null {
  const names = [firm, brand].filter(Boolean).map(name => name.toLowerCase())
  if (agree.trim().length < LEAST_AGREE) return 'How do people agree to be texted? Write where they do it, and what they read there.'
  if (!/\bstop\b/i.test(agree) && !samples.some(sample => /\bstop\b/i.test(sample)))
    return 'Nowhere it is said how people end it. Name STOP where they agree, or in a sample.'
  if (!samples.some(sample => names.some(name => sample.toLowerCase().includes(name))))
    return `No sample says who writes. Name ${brand || firm} in one of them.`
  return null
}

/** The desk of the practice carrier at which papers are looked through, after days of its own. */
export class Desk {
  private readonly papers = new Map<string, Looked>()
  private readonly journal: Journal<Entry>

  constructor(
    folder: string,
    private readonly world: World,
    private readonly tell: (event: PapersEvent) => Promise<void>,
    private readonly now: () => number = Date.now,
  ) {
    this.journal = new Journal<Entry>(join(folder, 'papers'), ({ looked }) => this.papers.set(looked.country, looked))
  }

  open(): () => void {
    const look = () => void this.look()
    look()
    const timer = setInterval(look, LOOK_EVERY_MS).unref()
    return () => clearInterval(timer)
  }

  all = (): Looked[] => [...this.papers.values()]

  /** Papers that are being looked at are not begun anew. Null for a country of which it wants none. */
  async take(country: string, handed: Handed): Promise<Looked | null> {
    const wanted = PAPERS_WANTED.find(one => one.country === country)
    if (!wanted) return null
    const known = this.papers.get(country)
    if (known?.state === 'looked-at') return known
    const turn = (known?.turn ?? 0) + 1
    return this.keep({ country, ref: `PP-${country}-1001`, handed, state: 'looked-at', until: this.now() + wanted.leastDays * DAY, turn })
  }

  /** Lets the days be over. */
  async hasten(country: string): Promise<void> {
    const known = this.papers.get(country)
    if (known?.state === 'looked-at') await this.answer(known)
  }

  private async look(): Promise<void> {
    for (const looked of this.papers.values()) if (looked.state === 'looked-at' && looked.until <= this.now()) await this.answer(looked)
  }

  private async answer(looked: Looked): Promise<void> {
    const wrong = wrongWith(looked.handed)
    const { country, ref, turn } = await this.keep({ ...looked, state: wrong ? 'asked-back' : 'accepted', until: this.now() })
    const id = `ev-papers-${country}-${turn}`
    if (this.world.events.some(event => event.id === id)) return
    const type = wrong ? 'papers.asked-back' as const : 'papers.accepted' as const
    await this.tell({ id, type, at: new Date(this.now()).toISOString(), data: { country, ref, words: wrong ?? '' } })
  }

  private async keep(looked: Looked): Promise<Looked> {
    const kept = this.journal.append({ do: 'keep', looked })
    this.papers.set(looked.country, looked)
    await kept
    return looked
  }
}
