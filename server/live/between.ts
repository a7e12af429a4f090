import { EventEmitter } from 'node:events'

/** What processes of Plauder tell each other: what is true now and is kept nowhere. Each topic is one module's own. */
export type Topic = 'notice' | 'presence' | 'sign-out' | 'carriers'

const bus = new EventEmitter().setMaxListeners(0)
let passOn: (topic: Topic, message: unknown) => void = () => {}

/** Tells everybody here at once, and those in other processes as soon as may be. */
export function say(topic: Topic, message: unknown): void {
  bus.emit(topic, message)
  passOn(topic, message)
}

/** Calls back with everything that is said; gives how to stop. */
export function hear<Message>(topic: Topic, listener: (message: Message) => void): () => void {
  bus.on(topic, listener)
  return () => bus.off(topic, listener)
}

/** Where there are other processes: how to reach them; gives what to call with what they say. */
export function joinOthers(reach: (topic: Topic, message: unknown) => void): (topic: Topic, message: unknown) => void {
  passOn = reach
  return (topic, message) => bus.emit(topic, message)
}
