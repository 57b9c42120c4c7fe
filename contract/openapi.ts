/** The API's description (OpenAPI 3.1), made from the contract alone. */
// Not from its front door: the types there change those of Yup's own lazies.
import { convertSchema } from '@sodaru/yup-to-json-schema/dist/converters/index.js';
import type { Schema, SchemaDescription } from 'yup';
import { NAME } from './answer-fields';
import { DESCRIBING } from './choice';
import { API } from './paths';
import { PROBLEMS, WITH_FIELDS, type ProblemCode } from './problems';
import { isFile, isOther, problemsOf, type AnySchema, type Route } from './route';
import { allRoutes } from './routes';

type Json = Record<string, unknown>;

const JSON_TYPE = 'application/json';
const ref = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });

/** Makes JSON Schemas (2020-12) of Yup's; those that have a name are kept in `parts` and referred to. */
class Describer {
  readonly parts: Record<string, Json> = {};

  of(schema: AnySchema): Json {
    return this.named(this.converted(schema));
  }

  private converted(schema: AnySchema): Json {
    // Choices describe themselves like the rest; the converter's type does not say so.
    return convertSchema(schema as Schema, { context: DESCRIBING, converters: this.converters as never }) as Json;
  }

  /** What the converter knows nothing of: a choice of forms, and something by its name. */
  private readonly converters = {
    mixed: ({ meta = {}, ...d }: SchemaDescription) => {
      if (meta.forms) return { oneOf: meta.forms.map((f) => this.converted(f)) };
      if (meta.values) return { type: 'object', additionalProperties: this.converted(meta.values) };
      if (meta.jsonSchema) return meta.jsonSchema;
      throw new Error(`the API's description cannot tell what this is: ${JSON.stringify(d)}`);
    },
  };

  /** Moves named schemas to the components, closes objects whose schemas are closed, and removes empty entries. */
  private named(schema: unknown): Json {
    if (Array.isArray(schema)) return schema.map((s) => this.named(s)) as unknown as Json;
    if (typeof schema !== 'object' || schema === null) return schema as Json;
    const { [NAME]: name, default: standard, ...rest } = schema as Json & { [NAME]?: string };
    const orNull = Array.isArray(rest['type']) && rest['type'].includes('null');
    if (name && this.parts[name]) return orNull ? { oneOf: [ref(name), { type: 'null' }] } : ref(name);
    if (name) this.parts[name] = {};
    const out: Json = {};
    for (const [key, value] of Object.entries(rest)) out[key] = key === 'enum' ? value : this.named(value);
    if (out['properties']) out['additionalProperties'] = false;
    // An object's default is the empty one, whatever it must hold.
    if (standard !== undefined && typeof standard !== 'object') out['default'] = standard;
    if (orNull && out['enum']) out['enum'] = [...new Set([...(out['enum'] as unknown[]), null])];
    if (!name) return out;
    this.parts[name] = { ...out, ...(orNull ? { type: 'object' } : {}) };
    return orNull ? { oneOf: [ref(name), { type: 'null' }] } : ref(name);
  }
}

/** Returns the OpenAPI 3.1 description of every route. */
export function openApi(version: string, serverUrl: string): Json {
  const describe = new Describer();
  const paths: Record<string, Json> = {};
  for (const [name, r] of allRoutes) {
    const path = r.path.replace(/:(\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [r.method.toLowerCase()]: operation(name, r, describe) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Gate Path',
      version,
      description:
        'Assemble packets per deal, route them to their parties in order, and fetch the sealed copies. ' +
        'Members sign in (`signIn`) and carry the session as a cookie; clients carry the secret of their signing ' +
        'link as `token` in the path. Problems come as RFC 9457 details; their `type` never changes.',
    },
    servers: [{ url: serverUrl + API }],
    paths,
    components: {
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'gatepath_session', description: 'A member’s session.' },
      },
      schemas: { ...describe.parts, ...problemSchemas() },
    },
  };
}

function operation(name: string, r: Route, describe: Describer): Json {
  return {
    operationId: name,
    summary: r.summary,
    // A signing link is no scheme of its own: it is the secret in the path.
    security: r.who === 'member' ? [{ session: [] }] : [],
    parameters: [...parametersIn('path', r.params, describe), ...parametersIn('query', r.query, describe)],
    ...(r.body ? { requestBody: { required: true, content: bodyContent(r, describe) } } : {}),
    responses: { ...success(r, describe), ...failures(r) },
  };
}

function parametersIn(where: 'path' | 'query', schema: AnySchema | undefined, describe: Describer): Json[] {
  if (!schema) return [];
  const { properties = {}, required = [] } = describe.of(schema) as { properties?: Json; required?: string[] };
  return Object.entries(properties).map(([name, s]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema: s,
  }));
}

function bodyContent(r: Route, describe: Describer): Json {
  if (!isFile(r.body)) return { [JSON_TYPE]: { schema: describe.of(r.body!) } };
  // Bytes have no type in JSON Schema (OpenAPI 3.1, 4.8.14.3).
  const file = { contentMediaType: 'application/octet-stream', description: r.body.wanted };
  const schema = { type: 'object', properties: { file }, required: ['file'] };
  return { 'multipart/form-data': { schema } };
}

function success(r: Route, describe: Describer): Json {
  if (!isOther(r.answer))
    return { 200: { description: 'Done', content: { [JSON_TYPE]: { schema: describe.of(r.answer) } } } };
  if (r.answer.kind === 'nothing') return { 204: { description: 'Done; the answer is empty' } };
  const events = r.answer.kind === 'events';
  const schema = events ? { type: 'string' } : { contentMediaType: 'application/octet-stream' };
  const description = events ? 'A message each time something changed' : 'The file';
  return { 200: { description, content: Object.fromEntries(r.answer.types.map((t) => [t, { schema }])) } };
}

/** Returns the problems of a route, by HTTP status. */
function failures(r: Route): Json {
  const byStatus = new Map<number, ProblemCode[]>();
  for (const code of problemsOf(r)) {
    const { status } = PROBLEMS[code];
    byStatus.set(status, [...(byStatus.get(status) ?? []), code]);
  }
  return Object.fromEntries(
    [...byStatus].map(([status, codes]) => [
      status,
      {
        description: `A problem: ${codes.join(', ')}`,
        content: { 'application/problem+json': { schema: problemOf(codes) } },
      },
    ]),
  );
}

const typesOf = (codes: readonly ProblemCode[]) => ({
  properties: { type: { enum: codes.map((c) => `/problems/${c}`) } },
});

const problemOf = (codes: ProblemCode[]): Json => ({ allOf: [ref('Problem'), typesOf(codes)] });

function problemSchemas(): Record<string, Json> {
  const text = { type: 'string' };
  return {
    Problem: {
      type: 'object',
      required: ['type', 'title', 'status', 'detail'],
      properties: {
        type: {
          enum: Object.keys(PROBLEMS).map((c) => `/problems/${c}`),
          description: 'Stable; for programs.',
        },
        title: text,
        status: { type: 'integer' },
        detail: { ...text, description: 'A sentence for people, in their language.' },
        fields: {
          type: 'object',
          additionalProperties: text,
          description: `What is wrong with single fields; with ${WITH_FIELDS.join(', ')}.`,
        },
      },
      additionalProperties: false,
    },
  };
}
