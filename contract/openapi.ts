import * as yup from 'yup';
import { routes, type BodySchema, type Route } from './routes';

type Json = Record<string, unknown>;

/** An OpenAPI 3.1 document of every route, made from the contract alone. */
export function openApi(version: string, serverUrl: string): Json {
  const paths: Record<string, Json> = {};
  for (const [name, r] of Object.entries(routes) as [string, Route][]) {
    const path = r.path.replace(/:(\w+)/g, '{$1}');
    const params = [...r.path.matchAll(/:(\w+)/g)].map((m) => ({
      name: m[1],
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }));
    paths[path] = {
      ...paths[path],
      [r.method.toLowerCase()]: {
        operationId: name,
        summary: r.summary,
        ...(r.who === 'member' ? { security: [{ session: [] }] } : {}),
        ...(params.length || r.query ? { parameters: [...params, ...queryParams(r)] } : {}),
        ...(r.body
          ? {
              requestBody: { required: true, content: { 'application/json': { schema: jsonSchema(resolve(r.body)) } } },
            }
          : {}),
        responses: {
          '200': { description: 'Done', content: { [r.answers ?? 'application/json']: {} } },
          default: {
            description: 'A problem',
            content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
          },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Gate Path', version },
    servers: [{ url: serverUrl }],
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'gatepath_session' } },
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            fields: { type: 'object', additionalProperties: { type: 'string' } },
          },
        },
      },
    },
  };
}

function queryParams(r: Route): Json[] {
  if (!r.query) return [];
  return Object.entries(r.query.fields).map(([name, schema]) => ({
    name,
    in: 'query',
    required: false,
    schema: jsonSchema(schema as yup.Schema),
  }));
}

function resolve(schema: BodySchema | yup.Reference): yup.Schema {
  return yup.isSchema(schema) &&
    !('fields' in schema) &&
    'resolve' in schema &&
    (schema as { type: string }).type === 'lazy'
    ? ((schema as unknown as yup.Lazy<unknown>).resolve({ value: undefined }) as unknown as yup.Schema)
    : (schema as yup.Schema);
}

/** JSON Schema (2020-12) of a Yup schema, as far as Yup describes itself. */
export function jsonSchema(schema: yup.Schema): Json {
  const d = schema.describe() as yup.SchemaDescription & {
    fields?: Record<string, yup.SchemaDescription>;
    innerType?: yup.SchemaDescription;
  };
  const spec = schema as unknown as { fields?: Record<string, yup.Schema>; innerType?: yup.Schema };
  const told = (schema.spec.meta as { schema?: Json } | undefined)?.schema;
  if (told) return told;
  const out: Json = {};
  const type = d.type === 'mixed' ? undefined : d.type;
  const integer = d.tests.some((t) => t.name === 'integer');
  if (type) out.type = d.nullable ? [integer ? 'integer' : type, 'null'] : integer ? 'integer' : type;
  if (d.oneOf.length) out.enum = d.oneOf;
  for (const t of d.tests) {
    const p = (t.params ?? {}) as Record<string, unknown>;
    if (t.name === 'min') out[d.type === 'string' ? 'minLength' : d.type === 'array' ? 'minItems' : 'minimum'] = p.min;
    if (t.name === 'max') out[d.type === 'string' ? 'maxLength' : d.type === 'array' ? 'maxItems' : 'maximum'] = p.max;
    if (t.name === 'matches' && p.regex instanceof RegExp) out.pattern = p.regex.source;
  }
  if (spec.fields) {
    const entries = Object.entries(spec.fields);
    out.properties = Object.fromEntries(entries.map(([k, v]) => [k, jsonSchema(resolve(v))]));
    const required = entries.filter(([, v]) => !resolve(v).describe().optional).map(([k]) => k);
    if (required.length) out.required = required;
  }
  if (spec.innerType) out.items = jsonSchema(resolve(spec.innerType));
  return out;
}
