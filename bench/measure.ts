import { split } from 'split-sms'
import { measureText } from '../core/text/measure'
import { exitCode, figure, size } from './support'

/** Characters a second of `measureText` against split-sms, on the same texts in the same run. */
const TEXTS = [
  'Hi Iris, Ada from Pannier & Post. Your trial week starts on Thursday 3 December.',
  `Hi Joss, a mechanic comes to Rye & Reason on Tuesday before 11 to see to the racks {two of four} ~ €0. ${'Reply here if that does not suit. '.repeat(6)}`,
  `It’s time for winter tyres – all of our bikes get them, no charge. ${'Schöne Grüße aus der Werkstatt 😀 '.repeat(8)}`,
]
const MS = size(1_500, 50)
const CHARACTERS = TEXTS.reduce((sum, text) => sum + text.length, 0)

function charactersASecond(measure: (text: string) => unknown): number {
  const round = () => TEXTS.forEach(text => measure(text))
  for (let i = 0; i < 2_000; i++) round()
  const begun = performance.now()
  let rounds = 0
  while (performance.now() - begun < MS) {
    for (let i = 0; i < 50; i++) round()
    rounds += 50
  }
  return rounds * CHARACTERS / (performance.now() - begun) * 1_000
}

const theirs = charactersASecond(text => split(text))
const ours = charactersASecond(measureText)
figure('measure-text/split-sms', ours / theirs, '>=8', ours / theirs >= 8)
process.exit(exitCode())
