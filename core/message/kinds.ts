/**
 * What a message can be in this version. A kind more: its name here, what is only true of it in a table of its own
 * beside `text_message`, and the compiler says what else is missing.
 */
export const MESSAGE_KINDS = ['text'] as const
export type MessageKind = typeof MESSAGE_KINDS[number]
