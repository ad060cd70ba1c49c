import { t } from '../words/words.js';
import { told } from './entry.js';

export const peopleErrors = {
  'account-not-allowed': told<{ role: string }>(
    (e) => t`That is for ${e.role}s. Ask an administrator to do it, or to give you the right.`,
    403,
  ),
  'account-last-administrator': told(() => t`Mailbag needs one administrator at least. Make somebody else one first.`),
  'account-values-hidden': told(() => t`Your account does not show the values of records. Ask an administrator if you need them.`, 403),
  'account-passwords-hidden': told(() => t`Your account does not show passwords of copies. Ask an administrator if you need them.`, 403),
  'account-disabled': told(() => t`This account is closed. Ask an administrator to open it again.`, 403),
  'invitation-over': told(() => t`This invitation no longer holds. Ask for a new one.`),
  'account-exists': told(() => t`An administrator is already set up. Sign in instead.`, 409),
  'account-sign-in-refused': told(() => t`That e-mail address and password do not go together. Check both and try again.`, 401),
  'account-too-many-tries': told<{ seconds: number }>(
    (e) => t`Too many tries. Wait ${e.seconds} ${e.seconds === 1 ? t`second` : t`seconds`}, then try again.`,
    429,
  ),
  'password-weak': told(
    () =>
      t`That password is guessed easily: it is a common one, or made of one or of your own name. Take a few words that do not belong together.`,
  ),
  'account-signed-out': told(() => t`You are signed out. Sign in to go on; your work is saved.`, 401),
};
