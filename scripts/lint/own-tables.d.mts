import type { Rule } from 'eslint'

export const ownTables: Rule.RuleModule
export function homesOf(folder: string): Map<string, string>
