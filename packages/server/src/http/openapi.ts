import { STATUS_CODES } from 'node:http';
import { OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi';
import { z } from 'zod';
import { OPERATIONS, problemDetails, problemsOf, writes } from './description.js';
import { WRITE_HEADER } from './sessions.js';

/** The operations as OpenAPI 3.1. */
export function openApi(): object {
  const registry = new OpenAPIRegistry();
  registry.registerComponent('securitySchemes', 'session', { type: 'apiKey', in: 'cookie', name: 'ember_session' });
  for (const operation of OPERATIONS) {
    const { method, path, summary, open, query, headers, body, bodyAlso, answers } = operation;
    const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
    const content = body && { schema: body };
    const given = writes(operation) ? z.object({ [WRITE_HEADER]: z.string() }).extend(headers?.shape ?? {}) : headers;
    registry.registerPath({
      method,
      path,
      summary,
      ...(open && { security: [] }),
      request: {
        ...(names.length > 0 && { params: z.object(Object.fromEntries(names.map((name) => [name, z.string()]))) }),
        ...(query && { query }),
        ...(given && { headers: given }),
        ...(content && {
          body: { required: true, content: { 'application/json': content, ...(bodyAlso !== undefined && { [bodyAlso]: content }) } },
        }),
      },
      responses: {
        ...Object.fromEntries(
          Object.entries(answers).map(([status, { says, body: schema, kind }]) => [
            status,
            { description: says, ...(schema && { content: { [kind ?? 'application/json']: { schema } } }) },
          ]),
        ),
        ...Object.fromEntries(
          problemsOf(operation).map((status) => [
            status,
            { description: STATUS_CODES[status] ?? 'What went wrong', content: { 'application/problem+json': { schema: problemDetails } } },
          ]),
        ),
      },
    });
  }
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: { title: 'Eager Ember', version: '1' },
    security: [{ session: [] }],
  });
}
