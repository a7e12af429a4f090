// Loaded before a process of the kill test: its clock is as far off as a file says.
import { readFileSync } from 'node:fs'

const off = Number(readFileSync(process.env.KILL_CLOCK, 'utf8'))
const Real = globalThis.Date

globalThis.Date = class Date extends Real {
  constructor(...given) {
    if (given.length === 0) super(Real.now() + off)
    else super(...given)
  }

  static now() {
    return Real.now() + off
  }
}
