import { pickLine, pickNumber, type LeftOutReason } from '~~/core/bulk/fate'
import { formatOfCountry } from '~~/core/hours/format'
import { nextReachable } from '~~/core/hours/reachable'
import { hoursOf, wishOf } from '~~/core/hours/wish'
import { showRef } from '~~/core/message/ref'
import { readAnswers } from '~~/core/template/fill-ins'
import { measureText, MOST_PARTS } from '~~/core/text/measure'
import type { LineChoice } from '~~/shared/composer'
import { fullLabel } from '~~/shared/fields'
import { Budget } from '../http/budget'
import { firmHome } from '../identity/firm'
import type { SignedIn } from '../identity/sign-in'
import { readHouse, type House } from '../hours/house'
import { placesOf, zonesOf } from '../records/phones'
import { catalogueOf } from '../templates/catalogue'
import { fillerOf } from '../templates/fillers'
import { personValues } from '../templates/people'
import { senderValues } from '../templates/values'
import { linesOf } from '../texting/lines'
import { freshRef } from '../texting/refs'
import { drawFor } from './draw'
import { factsOf, ownOf, type BulkPersonFacts, type Own } from './facts'
import type { StoredBulk } from './one'

/** What the check has found of somebody. */
export interface Judged {
  recordId: string
  standing: 'ready' | 'left-out'
  reason: LeftOutReason | null
  detail: string | null
  lately: boolean
  phoneId: string | null
  e164: string | null
  lineId: string | null
  zones: string | null
  places: string
  wishFrom: number | null
  wishTo: number | null
  words: string | null
  units: number | null
  parts: number | null
  ref: string | null
}

const DAY = 86_400_000
/** So long one piece computes without letting others have their turn. */
const COMPUTING_MS = 60_000

type Line = LineChoice & { shared: boolean }

/** The rules about hours as they are now, and what was found by them. */
interface Hour { now: Date, house: House, reached: Map<string, boolean> }

/** Tells of people what they would get, or why nothing; everything that is the same for all is read once. */
export async function makeJudge(asker: SignedIn, bulk: StoredBulk): Promise<(ids: string[], now: Date) => Promise<Judged[]>> {
  const answersSomebody = bulk.answersId !== null
  const lines: Line[] = (await linesOf(asker))
    .filter(line => line.active && (bulk.lineId ? line.id === bulk.lineId : answersSomebody || !line.private))
    .map(line => ({ ...line, shared: !line.mine }))
  const answers = readAnswers(bulk.fillIns, bulk.answers)
  const home = await firmHome()
  const always = {
    sender: senderValues(asker),
    firm: { name: home.name },
    fill_in: answers.ok ? answers.values : {},
    ...(answers.ok && { 'fill-in as typed': answers.typed }),
  }
  const labels = new Map(Object.values(await catalogueOf(bulk.modules, bulk.fillIns)).flat().map(field => [field.path, fullLabel(field)]))
  const pictures = bulk.pictureIds.length
  const fill = fillerOf(bulk.body)
  const hasRef = bulk.body.includes('message.')
  /** Whether they are ever reached: for all of one place and one wish the same. */
  function reachable({ now, house, reached }: Hour, { zones, places, wishFrom, wishTo }: Pick<Judged, 'places' | 'wishFrom' | 'wishTo'> & { zones: string }): boolean {
    const key = `${zones} ${places} ${wishFrom} ${wishTo}`
    const known = reached.get(key) ?? nextReachable(now, zones.split(' '), hoursOf(wishOf({ wishFrom, wishTo }), house(places.split(' ')))) !== null
    reached.set(key, known)
    return known
  }

  function judge(person: BulkPersonFacts, own: Own | undefined, hour: Hour): Omit<Judged, 'recordId'> {
    const left = (reason: LeftOutReason, more: Partial<Judged> = {}) => ({ ...NOTHING, ...more, standing: 'left-out' as const, reason })
    const number = pickNumber(person.numbers ?? [], { way: bulk.numberWay, label: bulk.numberLabel }, own?.phoneId)
    if (typeof number === 'string') return left(number)
    const known = { phoneId: number.phoneId, e164: number.e164, lately: number.lately }
    const line = pickLine(lines, number, bulk.spread ? drawFor(bulk.id, person.id, ' line') : null)
    if (!line) return left('no-line', known)
    if (!takesPictures(pictures, line)) return left('no-pictures', known)
    if (answersSomebody && !number.waits) return left('answered', known)
    const address = { zone: person.zone, country: person.own_country, region: person.region }
    const zones = zonesOf(address, number.e164)
    const places = placesOf(address, number.e164).join(' ')
    const place = { ...known, lineId: line.id, zones: zones.join(' '), places, wishFrom: person.wish_from, wishTo: person.wish_to }
    if (zones.length === 0) return left('zone-unknown', place)
    if (!reachable(hour, place)) return left('never-in-hours', place)
    if (own?.words) {
      const text = { ...place, ...measured(own.words, line, pictures), ref: own.ref }
      return own.wording === bulk.wording ? within(text, line) : left('own-words-old', text)
    }
    const ref = hasRef ? freshRef() : null
    const filled = fill(
      { ...always, ...personValues(person), message: { ref: ref && showRef(ref) } },
      { zone: zones[0]!, format: formatOfCountry(person.country ?? home.country) },
    )
    if (!filled.ok) {
      const missing = [...filled.holes.map(({ path }) => labels.get(path) ?? path), ...filled.problems.map(({ message }) => message)]
      return left('empty-field', { ...place, detail: [...new Set(missing)].join(', '), words: filled.gapped, ref })
    }
    return within({ ...place, ...measured(filled.text, line, pictures), ref }, line)
  }

  return async (ids, now) => {
    const since = new Date(now.getTime() - bulk.latelyDays * DAY)
    const facts = await factsOf(asker, ids, { body: bulk.body, lineIds: lines.map(({ id }) => id), since, answers: answersSomebody })
    const own = await ownOf(bulk.id, ids)
    const hour: Hour = { now, house: await readHouse(now), reached: new Map() }
    const budget = new Budget(COMPUTING_MS)
    const judged: Judged[] = []
    for (const id of ids) {
      const person = facts.get(id)
      // gone meanwhile, or no longer to be seen: nothing is said of them
      if (person) judged.push({ recordId: id, ...judge(person, own.get(id), hour) })
      await budget.makeRoom()
    }
    return judged
  }
}

/** With pictures it is one message, whatever its length. */
function measured(words: string, { languages }: Line, pictures: number) {
  const { units, parts } = measureText(words, languages)
  return { words, units, parts: pictures > 0 ? 1 : parts }
}

const takesPictures = (pictures: number, { price }: Line): boolean =>
  pictures === 0 || (!!price && price.microsPerPicture !== null && pictures <= price.mostPictures)

/** Ready, unless it has more parts than the line's carrier takes. */
const within = (text: Partial<Judged> & { parts: number }, { price }: Line): Omit<Judged, 'recordId'> =>
  text.parts > (price?.mostParts ?? MOST_PARTS)
    ? { ...NOTHING, ...text, standing: 'left-out', reason: 'too-long' }
    : { ...NOTHING, ...text }

const NOTHING: Omit<Judged, 'recordId'> = {
  standing: 'ready',
  reason: null,
  detail: null,
  lately: false,
  phoneId: null,
  e164: null,
  lineId: null,
  zones: null,
  places: '',
  wishFrom: null,
  wishTo: null,
  words: null,
  units: null,
  parts: null,
  ref: null,
}
