import type { Request } from 'express';
import { type FindOptions, type Model, type ModelStatic, Op, type WhereOptions } from 'sequelize';
import { z } from 'zod';
import { HttpProblem } from './problems.js';

/** How much of a list is sent at a time, where nothing else is asked for, and at most. */
export const PAGE = { usual: 50, most: 200 } as const;

const querySchema = z.object({
  after: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(PAGE.most).default(PAGE.usual),
});
const cursorSchema = z.tuple([z.string(), z.string()]);

/** A part of a list, and where the next one begins: null after the last. */
export interface Page<M> {
  readonly rows: readonly M[];
  readonly next: string | null;
}

/** By what a list goes: a column, and the one that tells apart what is alike in it. */
export interface Sorting {
  readonly by: string;
  readonly then: string;
  readonly descending?: boolean;
}

const written = (value: unknown): string => (value instanceof Date ? value.toISOString() : String(value));

/**
 * The part of a list that a request asks for, by `limit` and by `after`: the `next` of the part before. What comes or goes
 * meanwhile shifts nothing.
 * @throws HttpProblem 400 where these make no sense
 */
export async function pageOf<M extends Model>(
  model: ModelStatic<M>,
  request: Request,
  { by, then, descending = false }: Sorting,
  options: { readonly where?: WhereOptions; readonly attributes?: FindOptions['attributes'] } = {},
): Promise<Page<M>> {
  const query = querySchema.safeParse(request.query);
  if (!query.success) throw new HttpProblem(400, 'That is no part of a list', `limit is from 1 to ${PAGE.most}.`);
  const { after, limit } = query.data;
  const beyond = descending ? Op.lt : Op.gt;
  const direction = descending ? 'DESC' : 'ASC';
  let where: WhereOptions = options.where ?? {};
  if (after !== undefined) {
    const [value, tie] = cursor(after);
    where = { [Op.and]: [where, { [Op.or]: [{ [by]: { [beyond]: value } }, { [by]: value, [then]: { [beyond]: tie } }] }] };
  }
  const rows = await model.findAll({
    ...(options.attributes && { attributes: options.attributes }),
    where: where as FindOptions<M>['where'],
    order: [
      [by, direction],
      [then, direction],
    ],
    limit: limit + 1,
  });
  const page = rows.slice(0, limit);
  const last = page.at(-1);
  const next =
    rows.length > limit && last
      ? Buffer.from(JSON.stringify([written(last.get(by)), written(last.get(then))])).toString('base64url')
      : null;
  return { rows: page, next };
}

function cursor(text: string): [string, string] {
  try {
    return cursorSchema.parse(JSON.parse(Buffer.from(text, 'base64url').toString()));
  } catch {
    throw new HttpProblem(400, 'That is no place in a list', 'after is the next of the part before.');
  }
}
