import { array, boolean, number, object, string, type InferType } from 'yup'
import { TRANSFER_STEPS, TRANSFER_WAYS, STEP_OF } from '../../core/call/transfer'
import { CALLS_WITH } from '../calling'
import { day, freshId, idOf, line } from './common'
import { effectChoice } from './effect'

export const dialForm = object({
  /** Made by the browser: dialling the same again gives the first call. */
  id: freshId().required(),
  /** Of a record, or else a number as somebody typed it. */
  phoneId: idOf('phone').nullable().default(null),
  number: string().trim().max(40, 'That is no telephone number.').nullable().default(null),
  /** Left out, it is chosen: the line used last with the number, else the nearest. */
  lineId: idOf('line').nullable().default(null),
  /** Called for a round, so only while I have them in hand there. */
  roundId: idOf('round').nullable().default(null),
  /** "Yes, at night": for this one call. */
  nightAllowed: boolean().default(false),
})
export type DialForm = InferType<typeof dialForm>

export const callNotesForm = object({
  notes: string().defined().max(10_000, 'The notes are too long. Put what matters into a note of its own.'),
})

const time = () => string().matches(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time such as 09:30.')

export const disposeForm = object({
  dispositionId: idOf('disposition').required('Say how it went.'),
  choices: array().of(effectChoice.required()).max(20).default([]),
})
export type DisposeForm = InferType<typeof disposeForm>

export const taskForm = object({
  id: freshId().required(),
  kind: string().oneOf(['task', 'call-back'] as const).default('task'),
  title: string().trim().max(200, 'Say it in 200 characters.').required('Say what is to be done.'),
  day: day().required('Choose a day.'),
  time: time().required('Choose a time.'),
})
export type TaskForm = InferType<typeof taskForm>

/** What becomes of what somebody asked for in a text: a task, or nothing. */
export const requestForm = object({ activityId: idOf('entry').required(), task: taskForm.nullable().default(null) })
export type RequestForm = InferType<typeof requestForm>

/** What is to be done is put in other words, to another time, or into other hands. */
export const changeTaskForm = taskForm.pick(['title', 'day', 'time']).shape({ colleagueId: idOf('colleague').required() })
export type ChangeTaskForm = InferType<typeof changeTaskForm>

/** A note at a moment of a recording. */
export const markForm = object({
  id: freshId().required(),
  atMs: number().integer().min(0).required(),
  words: string().trim().max(500, 'Say it in 500 characters.').required('Say what is to be noted here.'),
})
export type MarkForm = InferType<typeof markForm>

/** How I call: in the browser, or with telephones of my own. */
export const MOST_OWN_PHONES = 5
export const howICallForm = object({
  callsWith: string().oneOf(CALLS_WITH).required(),
  phones: array()
    .of(
      object({
        number: string().trim().max(40, 'That is no telephone number.').required('Write the number.'),
        label: line(40).required('Say which telephone it is.'),
      }).required(),
    )
    .max(MOST_OWN_PHONES, `${MOST_OWN_PHONES} telephones at most.`)
    .default([]),
})
export type HowICallForm = InferType<typeof howICallForm>

export const tonesForm = object({ tones: string().matches(/^[0-9*#]{1,32}$/, 'Tones are the digits, * and #.').required() })

/** How good a call was; null takes that away. */
export const ratingForm = object({ rating: number().integer().min(1).max(5).nullable().defined() })

export const transferForm = object({
  id: freshId().required(),
  toId: idOf('colleague').required('Choose a colleague.'),
  way: string().oneOf(TRANSFER_WAYS).required(),
})
export type TransferForm = InferType<typeof transferForm>

/** What people do with it; the rest happens by itself. */
export const handStepForm = object({ step: string().oneOf(TRANSFER_STEPS.filter(step => STEP_OF[step] !== 'nobody')).required() })

export const leaveForm = object({ spokenId: idOf('spoken').required('Choose what is said.') })

/** Mailboxes hang up on longer ones. */
export const LONGEST_SPOKEN_MS = 120_000
export const TOO_LONG_SPOKEN = 'Two minutes at most: mailboxes hang up on longer ones. Speak it again, shorter.'

export const spokenForm = object({
  name: line(60).required('Give it a name.'),
  words: string().trim().max(2_000, 'Write it shorter.').required('Write down what is said: it stands on the timeline.'),
  teamId: idOf('team').nullable().default(null),
  /** A WAV file in base64; left out where a message that is there keeps its sound. */
  sound: string().matches(/^[A-Za-z0-9+/]*={0,2}$/, 'Send the sound as base64.').nullable().default(null),
})
export type SpokenForm = InferType<typeof spokenForm>
