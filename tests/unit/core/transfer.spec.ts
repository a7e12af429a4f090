import fc from 'fast-check'
import { afterStep, TRANSFER_STEPS, TRANSFER_WAYS, type TransferState, type TransferStep, type TransferWay } from '~~/core/call/transfer'

/** Who is on the line, told in other words than the machine's: the independent half of the model. */
interface Model { withThem: boolean, withUs: boolean, ended: boolean }
interface Real { state: TransferState, way: TransferWay }

class Step implements fc.Command<Model, Real> {
  constructor(private readonly step: TransferStep) {}
  check = () => true
  run(model: Model, real: Real): void {
    const after = afterStep(real.state, real.way, this.step)
    // what has ended never goes on, whatever comes late or twice
    if (model.ended) return void expect(after).toBeNull()
    if (after === null) return
    real.state = after
    if (this.step === 'take') Object.assign(model, { withThem: true, withUs: real.way === 'attended' })
    if (this.step === 'give') model.withUs = false
    if (this.step === 'call-ended') Object.assign(model, { withThem: false, withUs: false, ended: true })
    if (['refuse', 'take-back', 'run-out'].includes(this.step)) Object.assign(model, { withThem: false, withUs: true, ended: true })
    model.ended ||= model.withThem && !model.withUs
    const says: Record<TransferState, [boolean, boolean, boolean]> = {
      asked: [false, true, false],
      together: [true, true, false],
      transferred: [true, false, true],
      back: [false, true, true],
      over: [false, false, true],
    }
    expect([model.withThem, model.withUs, model.ended]).toEqual(says[real.state])
  }

  toString = () => this.step
}

describe('transfer a call to a colleague', () => {
  it('never leaves whoever calls with nobody, whatever happens in whatever order', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TRANSFER_WAYS),
        fc.commands(
          TRANSFER_STEPS.map(step => fc.constant(new Step(step))),
          { maxCommands: 12 },
        ),
        (way, commands) => {
          fc.modelRun(() => ({ model: { withThem: false, withUs: true, ended: false }, real: { state: 'asked', way } }), commands)
        },
      ),
      { numRuns: 2000 },
    )
  })

  it.each([
    ['blind', ['take'], 'transferred'], ['attended', ['take'], 'together'], ['attended', ['take', 'give'], 'transferred'],
    ['attended', ['take', 'refuse'], 'back'], ['blind', ['run-out'], 'back'], ['attended', ['take', 'call-ended'], 'over'],
  ] as const)('%s, by %j it is %s', (way, steps, state) => {
    expect(steps.reduce<TransferState>((before, step) => afterStep(before, way, step)!, 'asked')).toBe(state)
  })

  it('cannot be given before it is taken, and does not run out once it is', () => {
    expect([
      afterStep('asked', 'attended', 'give'),
      afterStep('together', 'attended', 'run-out'),
      afterStep('together', 'attended', 'take'),
    ]).toEqual([null, null, null])
  })
})
