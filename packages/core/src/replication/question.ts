import type { z } from 'zod';
import type { World } from '../world/world.js';
import type { History } from './history.js';
import type { Viewer } from './publisher.js';

/** Whom a question is answered: who asks, and what is remembered of the world. */
export interface Asking {
  readonly world: World;
  readonly history: History;
  readonly viewer: Viewer;
}

/** What a client may ask of a world beside what its frames tell, and what it is answered. */
export interface Question<N extends string, Q extends z.ZodObject, A extends z.ZodObject> {
  /** The kind of both messages. */
  readonly name: N;
  readonly asks: Q;
  readonly answers: A;
  /** Answers, or says why this one is not told. */
  answer(asking: Asking, question: z.infer<Q>): z.infer<A> | { readonly refused: string };
}

export const defineQuestion = <N extends string, Q extends z.ZodObject, A extends z.ZodObject>(question: Question<N, Q, A>) => question;

/** The actor in a row of the actors table; 0 where nobody is. */
export function actorInRow({ actors }: World, row: number): number {
  return row < actors.high && actors.live[row] === 1 ? actors.handle(row) : 0;
}
