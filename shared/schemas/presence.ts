import { object, string } from 'yup'

export const presenceForm = object({ state: string().oneOf(['looking', 'writing', 'gone'] as const).required() })
