import { can } from '~~/shared/permissions'
import { notAllowed } from '../http/problem'
import type { SignedIn } from '../identity/sign-in'

/** @throws Problem 403 for who has nothing to do with the money */
export function mustEditMoney(asker: SignedIn): void {
  if (!can(asker, 'money.edit', {})) throw notAllowed('see what is paid and what with; an admin does')
}
