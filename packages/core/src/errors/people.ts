import { t } from '../words/words.js';
import { told } from './entry.js';

export const peopleErrors = {
  'account-not-allowed': told<{ role: string }>(
    (e) => t`Only ${e.role}s can do that. Ask an administrator to do it, or to give you that role.`,
    403,
  ),
  'account-last-administrator': told(() => t`Mailbag needs one administrator at least. Make somebody else one first.`),
  'account-values-hidden': told(() => t`Your account does not show the values of records. Ask an administrator if you need them.`, 403),
  'account-passwords-hidden': told(() => t`Your account does not show passwords of copies. Ask an administrator if you need them.`, 403),
  'account-disabled': told(() => t`This account is closed. Ask an administrator to open it again.`, 403),
  'invitation-over': told(() => t`This invitation is no longer valid. Ask for a new one.`),
  'account-exists': told(() => t`An administrator is already set up. Sign in instead.`, 409),
  'account-sign-in-refused': told(() => t`The e-mail address or the password is wrong. Check both and try again.`, 401),
  'account-too-many-tries': told<{ seconds: number }>(
    (e) => t`Too many attempts. Wait ${e.seconds} ${e.seconds === 1 ? t`second` : t`seconds`}, then try again.`,
    429,
  ),
  'password-weak': told(
    () =>
      t`That password is easy to guess: it is a common one, or made from one or from your own name. Use a few words that have nothing to do with each other.`,
  ),
  'account-signed-out': told(() => t`You are signed out. Sign in to continue; your work is saved.`, 401),
};
