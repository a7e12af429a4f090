import { Liquid } from 'liquidjs'
import { FIRST_NAMES, LAST_NAMES } from '../demo/names'
import { makeFiller } from '../core/template/fill'
import { count, emptyTally } from '../core/template/length'
import { exitCode, figure, size } from './support'

/** Filling and measuring a template with four fields over 100,000 people, against liquidjs that only renders it, in turns. */
const PEOPLE = size(100_000, 1_000)
const ROUNDS = 5
const BODY
  = 'Hi {{ person.first_name | default: "there" }}, {{ sender.first_name }} from {{ firm.name }}. Your trial week for {{ company.name }} starts on Thursday. OK for you?'

const values = Array.from({ length: PEOPLE }, (_, n) => ({
  person: { first_name: FIRST_NAMES[n % FIRST_NAMES.length]! },
  sender: { first_name: 'Ada' },
  firm: { name: 'Pannier & Post' },
  company: { name: `${LAST_NAMES[n % LAST_NAMES.length]!} & Co` },
}))
const ids = values.map((_, n) => ({ id: String(n), name: 'somebody' }))

const engine = new Liquid({ ownPropertyOnly: true })
const parsed = engine.parse(BODY)
const fill = makeFiller(BODY)

function bare(): number {
  const begun = performance.now()
  let length = 0
  for (const value of values) length += String(engine.renderSync(parsed, value)).length
  if (length === 0) throw new Error('Nothing was rendered.')
  return performance.now() - begun
}

function ours(): number {
  const begun = performance.now()
  const tally = emptyTally()
  values.forEach((value, n) => count(tally, ids[n]!, fill(value, { zone: 'UTC', format: { hours: 12, dayFirst: false } })))
  if (tally.heldPeople > 0 || tally.people !== PEOPLE) throw new Error('Not everybody was filled.')
  return performance.now() - begun
}

bare()
ours()
const rounds = Array.from({ length: ROUNDS }, () => ({ bare: bare(), ours: ours() }))
const best = (key: 'bare' | 'ours') => Math.min(...rounds.map(round => round[key]))
const ratio = best('ours') / best('bare')
console.log(`# ${PEOPLE} people: liquidjs alone ${best('bare').toFixed(0)} ms, filled, measured and counted ${best('ours').toFixed(0)} ms`)
figure('fill-and-measure/liquidjs', ratio, '<=1.5', ratio <= 1.5)
process.exit(exitCode())
