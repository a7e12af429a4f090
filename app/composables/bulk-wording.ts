import type { FillIn } from '~~/core/template/fill-ins'

/** What a text to many says while it is being written. */
export interface BulkWording {
  /** As a template is stored. */
  body: string
  templateId: string | null
  templateVersion: number | null
  fillIns: FillIn[]
  /** What is filled in for all, by the keys of the fill-ins. */
  answers: Record<string, string>
  /** Pictures that go with each text. */
  pictureIds: string[]
}

/** Where the browser keeps what is being written on a bulk text's own page. */
export const keptOnPage = (bulkId: string): string => `plauder-bulk-${bulkId}`

export const unwritten = (): BulkWording => ({ body: '', templateId: null, templateVersion: null, fillIns: [], answers: {}, pictureIds: [] })
