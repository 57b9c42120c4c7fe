/** Papers on their way into a deal: one after another, each with its own error and its own way on. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { show } from '../../test/office';
import { useUploads } from './uploads';

/** The older kind of request, answered by the test. */
class Sent {
  getResponseHeader = () => null;
  static all: Sent[] = [];
  upload: { onprogress?: (e: { lengthComputable: boolean; loaded: number; total: number }) => void } = {};
  onload?: () => void;
  onerror?: () => void;
  status = 0;
  response: unknown = null;
  url = '';
  file = '';
  open(_method: string, url: string) {
    this.url = url;
  }
  send(form: FormData) {
    this.file = (form.get('file') as File).name;
    Sent.all.push(this);
  }
  answer(status: number, response: unknown = {}) {
    Object.assign(this, { status, response });
    act(() => this.onload?.());
  }
}

const added: string[] = [];
function Uploads() {
  const { uploads, add, drop, retry } = useUploads('weir', (doc) => added.push(doc.name));
  return (
    <>
      <button onClick={() => void add(['a.pdf', 'b.pdf'].map((n) => new File(['%PDF'], n)))}>Add</button>
      {uploads.map((u) => (
        <div key={u.id} data-testid={u.name}>
          {u.problem ?? `${Math.round(u.part * 100)} %`}
          <button onClick={() => void retry(u)}>{`Again ${u.name}`}</button>
          <button onClick={() => drop(u.id)}>{`Leave ${u.name}`}</button>
        </div>
      ))}
    </>
  );
}

const text = (name: string) => screen.queryByTestId(name)?.firstChild?.textContent ?? null;
const last = () => Sent.all[Sent.all.length - 1]!;

beforeEach(() => {
  Sent.all = [];
  added.length = 0;
  globalThis.XMLHttpRequest = Sent as unknown as typeof XMLHttpRequest;
  show(<Uploads />);
  fireEvent.click(screen.getByText('Add'));
});

test('they go one after another, and each tells how far it is', async () => {
  await waitFor(() => expect(Sent.all).toHaveLength(1));
  expect([last().url, last().file]).toEqual(['/api/deals/weir/documents', 'a.pdf']);
  act(() => last().upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 4 }));
  expect([text('a.pdf'), text('b.pdf')]).toEqual(['25 %', '0 %']);
  last().answer(200, { name: 'a' });
  await waitFor(() => expect(last().file).toBe('b.pdf'));
  last().answer(200, { name: 'b' });
  await waitFor(() => expect(text('b.pdf')).toBeNull());
  expect(added).toEqual(['a', 'b']);
});

test('one that is refused says why and does not hold up the next; it can be tried again or left', async () => {
  await waitFor(() => expect(Sent.all).toHaveLength(1));
  last().answer(422, { type: '/problems/paper-locked', title: '', status: 422, detail: '“a.pdf” is locked.' });
  await waitFor(() => expect(last().file).toBe('b.pdf'));
  expect(text('a.pdf')).toBe('“a.pdf” is locked.');
  act(() => last().onerror?.());
  await waitFor(() => expect(text('b.pdf')).toContain('cannot be reached'));
  fireEvent.click(screen.getByText('Again b.pdf'));
  await waitFor(() => expect(Sent.all).toHaveLength(3));
  last().answer(200, { name: 'b' });
  await waitFor(() => expect(text('b.pdf')).toBeNull());
  fireEvent.click(screen.getByText('Leave a.pdf'));
  expect(text('a.pdf')).toBeNull();
  expect(added).toEqual(['b']);
});

test('a server that has much to do is asked again by itself', async () => {
  jest.useFakeTimers();
  try {
    await act(async () => jest.advanceTimersByTimeAsync(10));
    last().answer(503, { type: '/problems/busy', title: '', status: 503, detail: 'Busy.' });
    await act(async () => jest.advanceTimersByTimeAsync(3_100));
    expect(Sent.all.map((s) => s.file)).toEqual(['a.pdf', 'a.pdf']);
    expect(text('a.pdf')).toBe('0 %');
  } finally {
    jest.useRealTimers();
  }
});
