import { ValidationPipe } from '@nestjs/common';

/** How everything that comes from outside is held against its class in the contract. */
export const validation = new ValidationPipe({ transform: true, whitelist: true, forbidUnknownValues: true });

/** @throws BadRequestException with the sentences of what is wrong */
export const validated = <T extends object>(value: unknown, as: new () => T): Promise<T> =>
  validation.transform(value, { type: 'body', metatype: as }) as Promise<T>;
