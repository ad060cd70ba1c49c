import { SetMetadata } from '@nestjs/common';

/** A class of the contract, or a list of them. */
export type AnswerClass = new () => object;
export type Answered = AnswerClass | readonly [AnswerClass];

export const ANSWER = 'answer';

/** What a handler answers: validated where the tests run, and what a description of the interface is made from. */
export const Answers = (answer: Answered): MethodDecorator => SetMetadata(ANSWER, answer);
