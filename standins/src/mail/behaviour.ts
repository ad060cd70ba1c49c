/**
 * How the stand-in treats a recipient, by the beginning of the address (the part before @, up to a dot, plus or dash):
 * `full` refuses for now as long as it stands, `later` refuses the first two tries and then accepts, `unknown` and `nobody` refuse for good,
 * `slow` takes three seconds, `hang` never answers, `drop` closes the connection after the message has been read. Everybody else is accepted.
 */
export type Treatment = 'accept' | 'full' | 'later' | 'unknown' | 'slow' | 'hang' | 'drop';

export function treatmentOf(address: string): Treatment {
  const local = address.slice(0, address.lastIndexOf('@')).toLowerCase();
  const word = local.split(/[.+-]/).find((part) => ['full', 'later', 'unknown', 'nobody', 'slow', 'hang', 'drop'].includes(part));
  return word === 'nobody' ? 'unknown' : ((word as Treatment | undefined) ?? 'accept');
}
