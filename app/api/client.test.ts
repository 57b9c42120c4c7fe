/** Talking to the server, and to whatever stands in its place. */
import { ApiError, call, isRefused, uploadFile } from './client';

const answer = (status: number, body: unknown) => {
  const fetched = jest.fn((_url: string, _init: RequestInit) =>
    Promise.resolve({
      ok: status < 300,
      headers: new Headers(),
      status,
      json: () => (body instanceof Error ? Promise.reject(body) : Promise.resolve(body)),
    }),
  );
  globalThis.fetch = fetched as unknown as typeof fetch;
  return fetched;
};
const failure = (of: Promise<unknown>) => of.then(() => null).catch((e: unknown) => e as ApiError);

test('names in the path are filled in and escaped, the query holds what there is, the body goes as JSON', async () => {
  const fetched = answer(200, { items: [], next: null });
  await call('deals', { query: { search: 'a&b', after: undefined, limit: 5 } });
  await call('setDeal', { params: { dealId: 'x/y' }, body: { price: '1' } as never });
  expect(fetched.mock.calls.map(([url, init]) => [init.method, url, init.body])).toEqual([
    ['GET', '/api/deals?search=a%26b&limit=5', undefined],
    ['PATCH', '/api/deals/x%2Fy', '{"price":"1"}'],
  ]);
});

test('browsers that do not count what a query holds send it all the same', async () => {
  const counted = Object.getOwnPropertyDescriptor(URLSearchParams.prototype, 'size');
  Object.defineProperty(URLSearchParams.prototype, 'size', { value: undefined, configurable: true });
  try {
    const fetched = answer(200, { items: [], next: null });
    await call('mailroom', { query: { packetId: 'p' } });
    expect(fetched.mock.calls[0]![0]).toBe('/api/mailroom?packetId=p');
  } finally {
    if (counted) Object.defineProperty(URLSearchParams.prototype, 'size', counted);
    else delete (URLSearchParams.prototype as { size?: number }).size;
  }
});

test('a problem keeps its code, its words and its fields', async () => {
  answer(422, {
    type: '/problems/invalid',
    title: '',
    status: 422,
    detail: 'Not so.',
    fields: { name: 'Give a name.' },
  });
  const error = await failure(call('firm'));
  expect(error).toMatchObject({ status: 422, code: 'invalid', message: 'Not so.', fields: { name: 'Give a name.' } });
  expect(isRefused(error)).toBe(true);
});

test.each([
  ['a page of a proxy', 502, new SyntaxError('not JSON')],
  ['nothing', 500, null],
  ['something else', 503, { type: 7 }],
  ['a word', 504, 'gateway'],
])('%s in place of the server is no connection, with its status', async (_what, status, body) => {
  answer(status, body);
  expect(await failure(call('firm'))).toMatchObject({ status, code: 'offline' });
});

test('no server at all is told apart from one that refuses', async () => {
  globalThis.fetch = () => Promise.reject(new TypeError('Failed to fetch'));
  const error = await failure(call('firm'));
  expect([error!.status, error!.code, isRefused(error)]).toEqual([0, 'offline', false]);
});

test('nothing to tell is no answer', async () => {
  answer(204, new Error('there is no body'));
  expect(await call('deletePacket', { params: { packetId: 'p' } })).toBeUndefined();
});

test('a file goes with the id of its act, and its progress is told', async () => {
  const sent: { url: string; form: FormData }[] = [];
  const progress: number[] = [];
  class Request {
    upload: { onprogress?: (e: object) => void } = {};
    status = 200;
    response: unknown = { seq: 7 };
    onload?: () => void;
    url = '';
    open(method: string, url: string) {
      this.url = `${method} ${url}`;
    }
    send(form: FormData) {
      sent.push({ url: this.url, form });
      this.upload.onprogress?.({ lengthComputable: true, loaded: 3, total: 4 });
      this.onload?.();
    }
  }
  globalThis.XMLHttpRequest = Request as unknown as typeof XMLHttpRequest;
  const view = await uploadFile('addFile', new File(['x'], 'id.png'), {
    params: { token: 't', markId: 'm' },
    query: { actId: 'act-of-wren' },
    onProgress: (part) => progress.push(part),
  });
  expect(view.seq).toBe(7);
  expect(progress).toEqual([0.75]);
  expect(sent[0]!.url).toBe('POST /api/signing/t/marks/m/file?actId=act-of-wren');
  expect((sent[0]!.form.get('file') as File).name).toBe('id.png');
});
