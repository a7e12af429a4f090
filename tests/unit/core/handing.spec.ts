import fc from 'fast-check'
import { afterStep, HANDING_STEPS, HANDING_WAYS, type HandingState, type HandingStep, type HandingWay } from '~~/core/call/handing'

/** Who is on the line, told in other words than the machine's: the independent half of the model. */
interface Model { withThem: boolean, withUs: boolean, ended: boolean }
interface Real { state: HandingState, way: HandingWay }

class Step implements fc.Command<Model, Real> {
  constructor(private readonly step: HandingStep) {}
  check = () => true
  run(model: Model, real: Real): void {
    const after = afterStep(real.state, real.way, this.step)
    // what has ended never goes on, whatever comes late or twice
    if (model.ended) return void expect(after).toBeNull()
    if (after === null) return
    real.state = after
    if (this.step === 'take') Object.assign(model, { withThem: true, withUs: real.way === 'after-a-word' })
    if (this.step === 'give') model.withUs = false
    if (this.step === 'call-ended') Object.assign(model, { withThem: false, withUs: false, ended: true })
    if (['refuse', 'take-back', 'run-out'].includes(this.step)) Object.assign(model, { withThem: false, withUs: true, ended: true })
    model.ended ||= model.withThem && !model.withUs
    const says: Record<HandingState, [boolean, boolean, boolean]> = { asked: [false, true, false], together: [true, true, false], handed: [true, false, true], back: [false, true, true], over: [false, false, true] }
    expect([model.withThem, model.withUs, model.ended]).toEqual(says[real.state])
  }

  toString = () => this.step
}

describe('handing a call to a colleague', () => {
  it('never leaves whoever calls with nobody, whatever happens in whatever order', () => {
    fc.assert(fc.property(fc.constantFrom(...HANDING_WAYS), fc.commands(HANDING_STEPS.map(step => fc.constant(new Step(step))), { maxCommands: 12 }), (way, commands) => {
      fc.modelRun(() => ({ model: { withThem: false, withUs: true, ended: false }, real: { state: 'asked', way } }), commands)
    }), { numRuns: 2000 })
  })

  it.each([
    ['straight', ['take'], 'handed'], ['after-a-word', ['take'], 'together'], ['after-a-word', ['take', 'give'], 'handed'],
    ['after-a-word', ['take', 'refuse'], 'back'], ['straight', ['run-out'], 'back'], ['after-a-word', ['take', 'call-ended'], 'over'],
  ] as const)('%s, by %j it is %s', (way, steps, state) => {
    expect(steps.reduce<HandingState>((before, step) => afterStep(before, way, step)!, 'asked')).toBe(state)
  })

  it('cannot be given before it is taken, and does not run out once it is', () => {
    expect([afterStep('asked', 'after-a-word', 'give'), afterStep('together', 'after-a-word', 'run-out'), afterStep('together', 'after-a-word', 'take')]).toEqual([null, null, null])
  })
})
