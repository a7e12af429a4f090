/** A seeded generator (mulberry32): the demo is the same every time, relative to now. */
export class Random {
  private state: number

  constructor(seed: number) {
    this.state = seed >>> 0
  }

  /** 0 inclusive to 1 exclusive. */
  next(): number {
    this.state = (this.state + 0x6D2B79F5) >>> 0
    let mixed = Math.imul(this.state ^ (this.state >>> 15), this.state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }

  /** A whole number, both ends inclusive. */
  between(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1))
  }

  chance(share: number): boolean {
    return this.next() < share
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!
  }

  /** Some of them, each once, in a random order. */
  some<T>(list: readonly T[], count: number): T[] {
    const left = [...list]
    return Array.from({ length: Math.min(count, left.length) }, () => left.splice(Math.floor(this.next() * left.length), 1)[0]!)
  }
}
