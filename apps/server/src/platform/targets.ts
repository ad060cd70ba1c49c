import { lookup } from 'node:dns/promises';
import type { LookupAddress, LookupOptions } from 'node:dns';
import { lookup as lookUp } from 'node:dns';
import { BlockList, Socket, isIP } from 'node:net';
import { MailbagError } from '@mailbag/core/errors';
import { config } from './config.js';

/** Addresses that lead to this machine or no farther than its own wire: RFC 6890 (loopback, this host, link-local), RFC 5771 and RFC 4291 (multicast). */
const local = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['224.0.0.0', 4],
  ['255.255.255.255', 32],
] as const)
  local.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 128],
  ['::1', 128],
  ['fe80::', 10],
  ['ff00::', 8],
  ['64:ff9b::7f00:0', 104],
] as const)
  local.addSubnet(net, bits, 'ipv6');

/** @param address an IP address */
export const isLocalAddress = (address: string): boolean => local.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

/** Which local targets are allowed: `all`, or names and addresses with or without a port. */
export function isAllowedTarget(allowed: readonly string[], names: readonly string[], port: number | string): boolean {
  if (allowed.includes('all')) return true;
  const loopback = names.some((name) => name === '127.0.0.1' || name === '::1') ? ['localhost'] : [];
  return [...names, ...loopback].some((name) => allowed.includes(name) || allowed.includes(`${name}:${port}`));
}

const refusal = (host: string): MailbagError => new MailbagError('target-local', { host });
const bare = (host: string): string => host.toLowerCase().replace(/^\[(.*)\]$/, '$1');

/**
 * Whether a database, mail server, printer or register may stand at an address. Sockets of this machine never may.
 * @param host a name or an address; one that cannot be found passes, since reaching it fails with its own sentence
 * @throws MailbagError target-local
 */
export async function assertTarget(host: string, port: number): Promise<void> {
  if (/[/\\\0]/.test(host)) throw refusal(host);
  const name = bare(host);
  const addresses = isIP(name) ? [name] : (await lookup(name, { all: true }).catch(() => [])).map(({ address }) => address);
  for (const address of addresses)
    if (isLocalAddress(address) && !isAllowedTarget(config.localTargets, [name, address], port)) throw refusal(host);
}

/** The same for an address such as `ipp://printer:631/ipp/print`. @throws MailbagError target-local, target-wrong */
export async function assertTargetUrl(text: string, usualPort: number): Promise<void> {
  const url = URL.canParse(text.trim()) ? new URL(text.trim()) : null;
  if (!url?.hostname) throw new MailbagError('target-wrong', { address: text });
  await assertTarget(url.hostname, Number(url.port) || usualPort);
}

type Found = (error: Error | null, address: string | LookupAddress[], family?: number) => void;
type LookUp = (host: string, options: LookupOptions, found: Found) => void;

/** Finds addresses, and refuses those that are local: what a name leads to when it is used, not when it was looked at. */
const guarded =
  (lookUpFirst: LookUp, port: number | string): LookUp =>
  (host, options, found) =>
    lookUpFirst(host, options, (error, address, family) => {
      const addresses = Array.isArray(address) ? address.map((one) => one.address) : [address];
      const wrong =
        !error && addresses.some((one) => isLocalAddress(one) && !isAllowedTarget(config.localTargets, [host.toLowerCase(), one], port));
      found(wrong ? refusal(host) : error, address, family);
    });

type Connect = (this: Socket, ...args: unknown[]) => Socket;
interface Options {
  host?: string;
  port?: number | string;
  path?: string;
  lookup?: LookUp;
}
let isGuarded = false;

/**
 * From here on, no connection of this thread leads to a local target that is not allowed, whoever opens it and however it got there:
 * by a name whose address changed, or by a redirection.
 */
export function guardTargets(): void {
  if (isGuarded || config.localTargets.includes('all')) return;
  isGuarded = true;

  const connect = Socket.prototype.connect as unknown as Connect;
  const guardedConnect: Connect = function (...args) {
    const [first, second, third] = (Array.isArray(args[0]) ? args[0] : args) as unknown[];
    const onConnected = [first, second, third].find((one) => typeof one === 'function');
    const options: Options =
      typeof first === 'object' && first !== null
        ? { ...first }
        : typeof first === 'string' && !/^\d+$/.test(first)
          ? { path: first }
          : { port: first as number, ...(typeof second === 'string' ? { host: second } : {}) };
    const host = bare(options.host ?? 'localhost');
    const port = options.port ?? 0;
    if (options.path !== undefined || (isIP(host) && isLocalAddress(host) && !isAllowedTarget(config.localTargets, [host], port))) {
      process.nextTick(() => this.destroy(refusal(options.path ?? host)));
      return this;
    }
    options.lookup = guarded(options.lookup ?? (lookUp as unknown as LookUp), port);
    return connect.call(this, options, ...(onConnected ? [onConnected] : []));
  };
  (Socket.prototype as unknown as { connect: Connect }).connect = guardedConnect;
}
