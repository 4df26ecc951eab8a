import { toJSONSchema } from 'zod';
import { MOST_LEAST } from '@/core/compare/compare-address';
import { END_MARKS, LEDGER_ONLY, TEXT_MAX } from '@/core/compare/ledger-filter';
import { LOOK_NAMES, MEASURE_NAMES } from '@/core/compare/measures';
import { SIDES } from '@/core/faults/fault-list';
import { GROUPING_NAMES } from '@/core/figures/groupings';
import { POWER_TIMES } from '@/core/figures/populations';
import { eventIn } from '@/core/formats/event-in';
import { ledgerSchema } from '@/core/formats/ledger-schema';
import { VISIT_SHEETS } from '@/core/formats/ledger-tables';
import { rowSchema } from '@/core/formats/row-object';
import { MEANS_KIND_NAMES } from '@/core/records/means-kind';
import { RECORDS } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import type * as z from '@/core/units/schema';
import { EXPORTS } from '../formats/export-names';
import type { ListName } from './lists';

type Schema = object;
type Parameter = { name: string; in: 'query' | 'path' | 'header'; required?: boolean; description: string; schema: Schema; example?: unknown };
type Operation = {
  id: string;
  tag: string;
  summary: string;
  parameters?: Parameter[];
  body?: { schema: Schema; example?: object };
  /** `schema` is JSON's where no `type` is named; `content`: of each type where there are several. */
  answers: Record<string, { description: string; schema?: Schema; type?: string; content?: Readonly<Record<string, Schema>> }>;
};

const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });
const made = (schema: z.ZodMiniType): Schema => {
  const { $schema: _, ...rest } = toJSONSchema(schema, { unrepresentable: 'any', io: 'input', reused: 'inline' }) as { $schema?: string };
  return rest;
};
const idSchema = { type: 'string', format: 'uuid' };

const household: Parameter = { name: 'household', in: 'query', description: 'which household, for a token that opens several', schema: idSchema };
const ETAG: Parameter = {
  name: 'If-None-Match',
  in: 'header',
  description: 'the ETag of an earlier answer: 304 where nothing has changed',
  schema: { type: 'string' },
};
const NOT_CHANGED = { 304: { description: 'nothing has changed' } };
const NONE: Operation['answers'][string] = { description: 'there is no such thing', schema: ref('Problem'), type: 'application/problem+json' };
const PAGE: Parameter[] = [
  household,
  {
    name: 'limit',
    in: 'query',
    description: 'visits of one page, or things of a list: 1 to 500',
    schema: { type: 'integer', minimum: 1, maximum: 500, default: 100 },
  },
  { name: 'cursor', in: 'query', description: '“next” of the page before', schema: { type: 'string' } },
];
const VISIT_PAGE: Parameter[] = [
  ...PAGE,
  { name: 'from', in: 'query', description: 'from this date or time on: 2025-10-14 (UTC), 2025-10-14T13:52:00+02:00', schema: { type: 'string' } },
  { name: 'to', in: 'query', description: 'before this date or time', schema: { type: 'string' } },
  { name: 'site', in: 'query', description: 'at this site', schema: idSchema },
  ETAG,
];
const oneOf = (name: string, description: string, list: readonly string[]): Parameter => ({ name, in: 'query', description, schema: { enum: [...list] } });
const idOf = (name: string, description: string): Parameter => ({ name, in: 'query', description, schema: idSchema });
const dayOf = (name: string, description: string): Parameter => ({ name, in: 'query', description, schema: { type: 'string', format: 'date' } });
/** What the page Compare has in its address. */
const COMPARE: Parameter[] = [
  {
    name: 'by',
    in: 'query',
    description: `what it is grouped by, two of them with a comma: ${GROUPING_NAMES.join(', ')}`,
    schema: { type: 'string', default: 'network' },
    example: 'network',
  },
  oneOf('and', 'what each of these is grouped by', GROUPING_NAMES),
  oneOf('look', 'which figures', LOOK_NAMES),
  oneOf('sort', 'the figure whose best stands first, one of the look', MEASURE_NAMES),
  { name: 'least', in: 'query', description: 'groups of so many visits at least', schema: { type: 'integer', minimum: 0, maximum: MOST_LEAST, default: 0 } },
  ...(['network', 'site', 'car', 'driver'] as const).map((n) => idOf(n, `of this ${n}`)),
  dayOf('since', 'from this day on'),
  dayOf('until', 'to this day'),
  oneOf('means', 'that ran on these means', MEANS_KIND_NAMES),
  { name: 'faults', in: 'query', description: '“any”, or the code of a fault', schema: { type: 'string' } },
  oneOf('only', 'with this alone', LEDGER_ONLY),
  { name: 'text', in: 'query', description: 'with these words in the site, the network or a note', schema: { type: 'string', maxLength: TEXT_MAX } },
  oneOf('without', 'without the faults of this side', SIDES),
  oneOf('time', 'from where on power is waited for', POWER_TIMES),
  oneOf('mark', 'what tells that there is power', END_MARKS),
];
const pageSchema = (items: Schema): Schema => ({
  type: 'object',
  required: ['items', 'next'],
  properties: { items: { type: 'array', items }, next: { type: ['string', 'null'], description: 'the cursor of the next page; null on the last' } },
});
const SENTENCE: Schema = {
  type: 'object',
  required: ['degree', 'text', 'working'],
  properties: {
    degree: { enum: ['empty', 'one', 'thin', 'cannot_tell', 'probably', 'clearly'] },
    text: { type: 'string' },
    working: { type: 'array', items: { type: 'array', items: { type: 'string' } } },
  },
};
const record = (type: RecordType, more: Record<string, Schema> = {}): Schema => ({
  allOf: [
    { type: 'object', required: ['id', 'archived'], properties: { id: idSchema, archived: { type: 'boolean', description: 'put away' }, ...more } },
    made(RECORDS[type] as unknown as z.ZodMiniType),
  ],
});

const list = (name: ListName, summary: string): Operation => ({
  id: `list_${name}`,
  tag: 'Visits',
  summary,
  parameters: VISIT_PAGE,
  answers: { 200: { description: 'a page', schema: pageSchema(ref(SCHEMA_OF[name])) }, ...NOT_CHANGED },
});
const SCHEMA_OF: Readonly<Record<ListName, string>> = { visits: 'Visit', attempts: 'Attempt', readings: 'Reading', bills: 'Bill', events: 'Event' };

/** Every operation of the API, by path and method. What each answers is made of the same schemas and columns as the answer. */
export const OPERATIONS: Readonly<Record<string, Readonly<Record<string, Operation>>>> = {
  '/visits': { get: list('visits', 'Visits with what is derived of each, and why a figure is not known') },
  '/visits/{visitId}': {
    get: {
      id: 'read_visit',
      tag: 'Visits',
      summary: 'One visit with its attempts, readings, bills and events',
      parameters: [{ name: 'visitId', in: 'path', required: true, description: 'its id', schema: idSchema }, household, ETAG],
      answers: {
        200: {
          description: 'the visit',
          schema: {
            type: 'object',
            required: ['visit', 'attempts', 'readings', 'bills', 'events'],
            properties: {
              visit: ref('Visit'),
              ...Object.fromEntries((['attempts', 'readings', 'bills', 'events'] as const).map((n) => [n, { type: 'array', items: ref(SCHEMA_OF[n]) }])),
            },
          },
        },
        ...NOT_CHANGED,
        404: { ...NONE, description: 'there is none, or it is private to somebody else' },
      },
    },
  },
  '/attempts': { get: list('attempts', 'Every try to start, with all its times. A page holds those of “limit” visits') },
  '/readings': { get: list('readings', 'What was read of battery, power, energy and cost. A page holds those of “limit” visits') },
  '/bills': { get: list('bills', 'What was charged. A page holds those of “limit” visits') },
  '/events': {
    get: list('events', 'The record itself, as it was sent, taken back or not. A page holds those of “limit” visits'),
    post: {
      id: 'send_events',
      tag: 'Visits',
      summary: 'Events in: each is judged by itself, and what is there already is told so. Needs a token that writes',
      parameters: [household],
      body: {
        schema: {
          type: 'object',
          required: ['events'],
          additionalProperties: false,
          properties: {
            source: { type: 'string', minLength: 1, maxLength: 60, description: 'what they come from; else the name of the token' },
            events: { type: 'array', minItems: 1, maxItems: 500, items: ref('EventIn') },
          },
        },
      },
      answers: {
        200: {
          description: 'what became of each, in their order',
          schema: {
            type: 'object',
            required: ['results'],
            properties: {
              results: {
                type: 'array',
                items: {
                  type: 'object',
                  required: ['id', 'status'],
                  properties: {
                    id: { type: 'string' },
                    status: { enum: ['taken', 'already', 'refused', 'conflict'] },
                    pointer: { type: 'string', description: 'where in the request, as a JSON pointer' },
                    detail: { type: 'string' },
                  },
                },
              },
            },
          },
        },
      },
    },
  },
  '/places': {
    get: {
      id: 'list_places',
      tag: 'Places and prices',
      summary: 'Sites with their network and stalls',
      parameters: [...PAGE, ETAG],
      answers: { 200: { description: 'a page', schema: pageSchema(ref('Place')) }, ...NOT_CHANGED },
    },
  },
  '/tariffs': {
    get: {
      id: 'list_tariffs',
      tag: 'Places and prices',
      summary: 'Prices on file',
      parameters: [...PAGE, ETAG],
      answers: { 200: { description: 'a page', schema: pageSchema(ref('Tariff')) }, ...NOT_CHANGED },
    },
  },
  '/price': {
    post: {
      id: 'price',
      tag: 'Places and prices',
      summary: 'Prices a session by an OCPI tariff, or a month, several plans, where two break even. Changes nothing',
      body: { schema: { type: 'object' } },
      answers: {
        200: { description: 'lines that add up, and their sum', schema: { type: 'object' } },
        422: {
          description: 'what cannot be priced',
          schema: {
            type: 'array',
            items: { type: 'object', required: ['path', 'reason'], properties: { path: { type: 'string' }, reason: { type: 'string' } } },
          },
        },
      },
    },
  },
  '/compare': {
    get: {
      id: 'compare',
      tag: 'Comparisons',
      summary:
        'A comparison: the sentences, and every figure with what it was counted of. What the address of the page Compare says, it takes, but for the day of a change',
      parameters: [household, ...COMPARE, ETAG],
      answers: {
        200: {
          description: 'the sentences with their degrees, never surer than they are, what is on watch, and the groups',
          schema: {
            type: 'object',
            required: ['items', 'sentences', 'on_watch'],
            properties: {
              items: { type: 'array', items: { type: 'object' } },
              sentences: { type: 'array', items: SENTENCE },
              on_watch: { type: 'array', items: SENTENCE },
            },
          },
        },
        ...NOT_CHANGED,
      },
    },
  },
  '/export/{sheet}': {
    get: {
      id: 'export_sheet',
      tag: 'Take it along',
      summary:
        'A sheet as CSV, places and charges as a document of OCPI 2.2.1 or GeoJSON, where what that cannot say is named in “x_mile_ledger”, or places and prices as a zip',
      parameters: [{ name: 'sheet', in: 'path', required: true, description: 'which', schema: { enum: Object.keys(EXPORTS) } }, household],
      answers: {
        200: {
          description: 'the file: CSV of RFC 4180 in UTF-8, JSON, or a zip',
          content: Object.fromEntries(
            Object.values(EXPORTS).map((type) => [
              type,
              type.endsWith('json') ? { type: 'object' } : { type: 'string', ...(type === 'text/csv' ? {} : { format: 'binary' }) },
            ]),
          ),
        },
        404: NONE,
      },
    },
  },
  '/household/export': {
    get: {
      id: 'export_ledger',
      tag: 'Take it along',
      summary: 'The whole ledger as a zip, for a token of its owner',
      parameters: [household],
      answers: { 200: { description: 'ledger.json and photos', schema: { type: 'string', format: 'binary' }, type: 'application/zip' } },
    },
  },
};

const visitIds = { site_id: { type: ['string', 'null'] }, car_id: { type: ['string', 'null'] }, driver_id: { type: ['string', 'null'] } };
const schemas = (): Record<string, Schema> => ({
  Problem: {
    type: 'object',
    required: ['type', 'title', 'status'],
    properties: {
      type: { type: 'string' },
      title: { type: 'string' },
      status: { type: 'integer' },
      detail: { type: 'string' },
      errors: {
        type: 'array',
        items: { type: 'object', required: ['pointer', 'detail'], properties: { pointer: { type: 'string' }, detail: { type: 'string' } } },
      },
      reference: { type: 'string', description: 'by which it is found in the log' },
    },
  },
  Visit: { allOf: [rowSchema(VISIT_SHEETS.visits.columns), { type: 'object', properties: visitIds }] },
  Attempt: rowSchema(VISIT_SHEETS.attempts.columns),
  Reading: rowSchema(VISIT_SHEETS.readings.columns),
  Bill: rowSchema(VISIT_SHEETS.bills.columns),
  Event: (made(ledgerSchema) as { properties: { events: { items: Schema } } }).properties.events.items,
  EventIn: made(eventIn),
  Place: record('site', { network: { type: ['string', 'null'] }, stalls: { type: 'array', items: { type: 'object' } } }),
  Tariff: record('tariff'),
});

const REFUSALS = {
  401: 'no token, or one that opens nothing',
  403: 'the token does not do that, or does not open that household',
  422: 'something asked is not understood: “errors” says what, each by its pointer',
  429: 'too many in a minute: Retry-After says how many seconds to wait',
};

const OF_A_BODY = { 400: 'the body is not JSON', 413: 'the body is larger than 1 MB' };

/** The API as an OpenAPI 3.1 document. */
export function openApi(server: string): object {
  const content = (schema: Schema | undefined, type = 'application/json') => (schema ? { content: { [type]: { schema } } } : {});
  const inTypes = (of: Readonly<Record<string, Schema>> = {}) =>
    Object.keys(of).length > 0 ? { content: Object.fromEntries(Object.entries(of).map(([type, schema]) => [type, { schema }])) } : {};
  const answers = (o: Operation) =>
    Object.entries(o.answers).map(([status, a]) => [status, { description: a.description, ...content(a.schema, a.type), ...inTypes(a.content) }] as const);
  const refusals = (o: Operation) =>
    Object.entries({ ...REFUSALS, ...(o.body ? OF_A_BODY : {}), default: 'refused or failed otherwise' })
      .filter(([status]) => !(status in o.answers))
      .map(([status, description]) => [status, { description, ...content(ref('Problem'), 'application/problem+json') }] as const);
  const operation = (o: Operation) => ({
    operationId: o.id,
    tags: [o.tag],
    summary: o.summary,
    ...(o.parameters ? { parameters: o.parameters } : {}),
    ...(o.body ? { requestBody: { required: true, content: { 'application/json': { schema: o.body.schema } } } } : {}),
    responses: Object.fromEntries([...answers(o), ...refusals(o)]),
  });
  return {
    openapi: '3.1.0',
    info: {
      title: 'Mile Ledger',
      version: '1',
      description: 'A household’s visits, places and prices, for programs of its own people. Refusals are problems of RFC 9457.',
    },
    servers: [{ url: `${server}/api/v1` }],
    security: [{ token: [] }],
    tags: [...new Set(Object.values(OPERATIONS).flatMap((p) => Object.values(p).map((o) => o.tag)))].map((name) => ({ name })),
    paths: Object.fromEntries(
      Object.entries(OPERATIONS).map(([path, of]) => [path, Object.fromEntries(Object.entries(of).map(([method, o]) => [method, operation(o)]))]),
    ),
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer', description: 'a personal token, made in the settings' } }, schemas: schemas() },
  };
}
