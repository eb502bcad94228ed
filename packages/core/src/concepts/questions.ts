import type { Asking } from '../replication/question.js';
import { abilitiesQuestion } from './abilities/question.js';
import { whyQuestion } from './attributes/question.js';

/** The messages in which clients ask what concepts answer, and those in which they are answered: a line for each question. */
export const ASKS = [whyQuestion.asks, abilitiesQuestion.asks] as const;
export const ANSWERS = [whyQuestion.answers, abilitiesQuestion.answers] as const;
const QUESTIONS = [whyQuestion, abilitiesQuestion] as const;

type Question = (typeof QUESTIONS)[number];
export type Asked = ReturnType<Question['asks']['parse']>;
export type Answer = ReturnType<Question['answers']['parse']>;

/** Answers a question, or says why it is not told. */
export function answerTo(asking: Asking, asked: Asked): Answer | { readonly refused: string } {
  const question = QUESTIONS.find(({ name }) => name === asked.t)!;
  return question.answer(asking, asked as never);
}
