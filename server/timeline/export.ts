import { Readable } from 'node:stream'
import type { InferType } from 'yup'
import { showRef } from '~~/core/message/ref'
import { sayMoney } from '~~/core/numbers/money'
import { writeCsv } from '~~/core/formats/write-csv'
import { sideOf } from '~~/core/timeline/kinds'
import type { timelineExport } from '~~/shared/schemas/timeline'
import type { TimelineEntry } from '~~/shared/timeline'
import { note } from '../identity/audit'
import type { SignedIn } from '../identity/sign-in'
import { authorize } from '../records/one'
import { readTimeline } from './read'
import { sifted } from './sieve'

const COLUMNS: { heading: string, of: (entry: TimelineEntry) => string }[] = [
  { heading: 'Time (UTC)', of: ({ at }) => new Date(at).toISOString() },
  { heading: 'Kind', of: ({ kind }) => kind },
  { heading: 'By', of: entry => entry.colleague?.name ?? (sideOf(entry.kind) === 'ours' ? 'Plauder' : '') },
  { heading: 'With', of: ({ via, meantFor }) => meantFor?.name ?? via?.name ?? '' },
  { heading: 'Number', of: ({ message, call }) => message?.remote ?? call?.remote ?? '' },
  { heading: 'Line', of: ({ message, call }) => message?.line.name ?? call?.line ?? '' },
  { heading: 'Words', of: ({ words }) => words ?? '' },
  { heading: 'State', of: ({ message, call }) => message?.state ?? call?.disposition?.name ?? '' },
  { heading: 'Name', of: ({ message }) => message?.name ?? message?.template?.name ?? '' },
  { heading: 'Template', of: ({ message }) => message?.template ? `${message.template.name} (v${message.template.version})` : '' },
  { heading: 'Ref', of: ({ message }) => message?.ref ? showRef(message.ref) : '' },
  { heading: 'Parts', of: ({ message }) => message ? String(message.parts) : '' },
  {
    heading: 'Cost',
    of: ({ message }) => message?.costMicros != null && message.currency
      ? sayMoney({ micros: message.costMicros, currency: message.currency })
      : '',
  },
  { heading: 'Details', of: ({ data }) => Object.keys(data).length > 0 ? JSON.stringify(data) : '' },
]

/**
 * A record's timeline as a file, newest first and narrowed as it is on screen: CSV (RFC 4180), or JSON lines with entries as
 * the interface gives them. It is read page by page, and noted in the audit log.
 *
 * @throws Problem 404 or 403 for who may not take this record out
 */
export async function exportTimeline(
  asker: SignedIn,
  recordId: string,
  query: InferType<typeof timelineExport>,
  now: Date,
): Promise<Readable> {
  await authorize(asker, 'record.export', recordId)
  await note('timeline-exported', asker.id, now, { recordId, format: query.format })
  const pages = pagesOf(asker, recordId, query)
  return Readable.from(query.format === 'csv' ? asCsv(pages) : asLines(pages))
}

async function* pagesOf(asker: SignedIn, recordId: string, query: InferType<typeof timelineExport>): AsyncGenerator<TimelineEntry[]> {
  const which = sifted(query, asker.zone)
  let before: TimelineEntry | undefined
  for (;;) {
    const page = await readTimeline(asker, recordId, before, which)
    yield page.entries
    if (!page.more) return
    before = page.entries.at(-1)
  }
}

async function* asCsv(pages: AsyncIterable<TimelineEntry[]>): AsyncGenerator<string> {
  yield `\uFEFF${writeCsv([COLUMNS.map(({ heading }) => heading)])}`
  for await (const entries of pages) yield writeCsv(entries.map(entry => COLUMNS.map(({ of }) => of(entry))))
}

async function* asLines(pages: AsyncIterable<TimelineEntry[]>): AsyncGenerator<string> {
  for await (const entries of pages) yield entries.map(entry => `${JSON.stringify(entry)}\n`).join('')
}
