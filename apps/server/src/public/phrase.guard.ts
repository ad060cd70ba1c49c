import { createHash, timingSafeEqual } from 'node:crypto';
import { MailbagError } from '@mailbag/core';
import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Request } from 'express';
import { stretchOf } from '../accounts/tries.js';
import { Editions } from '../intakes/editions.service.js';
import { PersonalLinks } from '../intakes/personal-links.service.js';
import { config } from '../platform/config.js';
import { TokenBuckets } from './visitor-limits.js';

const digest = (text: string): Buffer => createHash('sha256').update(text.trim().normalize('NFC').toLowerCase()).digest();
const headerOf = (request: Request, name: string): string => {
  const value = request.headers[name];
  if (typeof value !== 'string') return '';
  try {
    return decodeURIComponent(value);
  } catch {
    return '';
  }
};

/**
 * Lets nobody near a page that has a pass phrase who does not say it, whatever they ask for: it travels in the header X-Mailbag-Phrase, percent-encoded.
 * Whoever was given a personal link (X-Mailbag-Link) needs none.
 */
@Injectable()
export class PhraseGuard implements CanActivate {
  private readonly tries = new TokenBuckets({ maximum: 10 * config.visitorLimits, perSecond: config.visitorLimits / 60 });
  constructor(
    private readonly editions: Editions,
    private readonly links: PersonalLinks,
  ) {}

  /** @throws MailbagError not-found, intake-phrase, intake-too-often */
  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<Request>();
    const { word } = request.params;
    if (typeof word !== 'string') return true;
    const { plan } = await this.editions.ofWord(word);
    const wanted = plan.opening.passPhrase ?? '';
    if (wanted.trim() === '') return true;
    // It is asked for its own secret there.
    if (request.path.endsWith('/personal')) return true;
    const link = headerOf(request, 'x-mailbag-link');
    if (link !== '' && (await this.links.isGiven(word, link))) return true;
    const phrase = headerOf(request, 'x-mailbag-phrase');
    if (phrase === '') throw new MailbagError('intake-phrase', { isWrong: false });
    // Whoever has guessed too often is not told whether the next one is right.
    const asker = `${word} ${stretchOf(request.ip ?? '')}`;
    const wait = this.tries.wait(asker);
    if (wait > 0) throw new MailbagError('intake-too-often', { seconds: wait });
    if (timingSafeEqual(digest(phrase), digest(wanted))) return true;
    this.tries.take(asker);
    throw new MailbagError('intake-phrase', { isWrong: true });
  }
}
