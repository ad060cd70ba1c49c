import type { CallHandler, ExecutionContext, NestInterceptor } from '@nestjs/common';
import { BadRequestException, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { plainToInstance } from 'class-transformer';
import type { ValidationError } from 'class-validator';
import { validateSync } from 'class-validator';
import type { Observable } from 'rxjs';
import { map } from 'rxjs';
import type { Answered } from './answers.js';
import { ANSWER } from './answers.js';

const faultsOf = (errors: readonly ValidationError[], before = ''): string[] =>
  errors.flatMap(({ property, constraints = {}, children = [] }) => [
    ...Object.values(constraints).map((why) => `${before}${why}`),
    ...faultsOf(children, `${before}${property}.`),
  ]);

/** Holds every answer, as it leaves, against its class in the contract. It costs more than the answer, so it is there only where somebody looks: in tests. */
@Injectable()
export class AnswersInterceptor implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const answer = this.reflector.get<Answered | undefined>(ANSWER, context.getHandler());
    if (!answer) return next.handle();
    const [kind] = Array.isArray(answer) ? answer : [answer];
    return next.handle().pipe(
      map((value: unknown) => {
        // As it will be read: dates as texts, what is undefined left out.
        const sent = JSON.parse(JSON.stringify(value)) as unknown;
        if (Array.isArray(sent) !== Array.isArray(answer))
          throw new BadRequestException(`${context.getHandler().name} answers no ${kind!.name}`);
        for (const one of [sent].flat()) {
          const errors = validateSync(plainToInstance(kind as new () => object, one as object), {
            whitelist: true,
            forbidNonWhitelisted: true,
          });
          const faults = faultsOf(errors);
          if (faults.length > 0)
            throw new BadRequestException(`The answer of ${context.getHandler().name} is no ${kind!.name}: ${faults.join('; ')}`);
        }
        return value;
      }),
    );
  }
}
