import type { ChildProcess } from 'node:child_process'

interface Options { folder: string, port: number, practicePort: number, env?: Record<string, string> }

export const SMPP_ACCOUNT: { systemId: string, password: string }
export function smppPort(practicePort: number): number
export const GATEWAY_SECRET: string
export function gatewayUrl(practicePort: number): string
export function secretsFor(folder: string): { PLAUDER_CARRIER_KEY: string, PLAUDER_WEBHOOK_SECRET: string, PLAUDER_SEAL_KEY: string }
export function startPractice(options: Options): { child: ChildProcess, open: Promise<void> }
export function startApplication(options: Options & { stderr?: 'inherit' | 'pipe' }): { child: ChildProcess, healthy: Promise<void>, began: { at: string | null } }
export function stop(child: ChildProcess): Promise<void>
