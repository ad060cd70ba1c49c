// What the decorators of the contract write down, they write by this.
import 'reflect-metadata';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import * as contract from '@mailbag/contract';
import type { FieldValues, Resolver } from 'react-hook-form';
import type { RequestName } from './use-contract-form';

/** Judges a body as the server will. It is loaded with the first form that is sent: it brings all classes of the contract along. */
export const resolverOf = <Values extends FieldValues>(name: RequestName): Resolver<Values> =>
  classValidatorResolver(
    contract[name] as never,
    { validator: { whitelist: true, forbidUnknownValues: true } },
    { raw: true },
  ) as Resolver<Values>;
