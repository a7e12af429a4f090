import type { NationalLanguage } from '../core/text/national'

/** A line of mine as the composer offers it. */
export interface LineChoice {
  id: string
  name: string
  e164: string
  country: string
  active: boolean
  private: boolean
  /** Languages whose national tables its carrier knows. */
  languages: NationalLanguage[]
  mine: boolean
  answeredBy: number
  /** Its carrier cannot be reached. */
  away: boolean
  /** The line over which texts leave after a while as long as it is so; null: they wait. */
  standIn: string | null
  /** What a part costs within the line's country; null while the carrier has not told. */
  price: { microsPerPart: number, currency: string, mostParts: number, microsPerPicture: number | null, mostPictures: number } | null
}

export interface ComposerStart {
  lines: LineChoice[]
  /** The line used last with each number of this record, by E.164. */
  lastLine: Record<string, string>
  /** The last text of ours to each of them, by E.164. */
  texted: Record<string, { at: number, by: string, mine: boolean }>
  /** When it was read, epoch milliseconds: what colleagues answer afterwards is asked about before a text leaves. */
  openedAt: number
  /** Names by which whoever gets a text would know who writes. */
  sender: string[]
}
