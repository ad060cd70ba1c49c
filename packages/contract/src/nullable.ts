import { ValidateIf } from 'class-validator';

/** A part of an answer that is there and may be null. Unlike one that is optional, it is never left out. */
export const Nullable = (): PropertyDecorator => ValidateIf((_, value) => value !== null);
