/** Photographs on their way to one paper: looked at, put in order, corrected, and sent once each. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { show } from '../../test/office';
import { PhotographPaper } from './photograph-paper';
import { usePhotographs } from './photographs';

/** The older kind of request, answered by the test. */
class Sent {
  getResponseHeader = () => null;
  static all: Sent[] = [];
  upload = {};
  onload?: () => void;
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
  answer(status: number, response: unknown) {
    Object.assign(this, { status, response });
    act(() => this.onload?.());
  }
}

/** A picture of a light sheet on a dark table; one called dark has no light in it. */
const WIDTH = 60;
const HEIGHT = 80;
function dots(dark: boolean): Uint8ClampedArray {
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const sheet = x > 10 && x < 50 && y > 10 && y < 70;
      const ink = sheet && y % 6 < 2 && x > 16 && x < 44;
      data.fill(dark ? 20 : sheet ? (ink ? 40 : 230) : 60, (y * WIDTH + x) * 4, (y * WIDTH + x) * 4 + 3);
    }
  return data;
}

beforeEach(() => {
  Sent.all = [];
  globalThis.XMLHttpRequest = Sent as never;
  globalThis.URL.createObjectURL = (file) => `blob:${(file as File).name}`;
  globalThis.URL.revokeObjectURL = () => undefined;
  let now = '';
  globalThis.createImageBitmap = (async (file: File) => {
    if (file.name.startsWith('no-picture')) throw new Error('no picture');
    now = file.name;
    return { width: WIDTH, height: HEIGHT, close: () => undefined };
  }) as never;
  HTMLCanvasElement.prototype.getContext = (() => ({
    drawImage: () => undefined,
    getImageData: () => ({ data: dots(now.startsWith('dark')) }),
  })) as never;
});

function Paper() {
  return <PhotographPaper photographs={usePhotographs('weir')} />;
}
const take = (...names: string[]) =>
  fireEvent.change(screen.getByTestId('photograph-input'), {
    target: { files: names.map((n) => new File(['x'], n, { type: 'image/jpeg' })) },
  });
const pictures = () => screen.queryAllByRole('img').map((e) => e.getAttribute('src'));

test('the sheet is found, a dark one is called that, and what is no picture is told by its name', async () => {
  show(<Paper />);
  take('one.jpg', 'dark.jpg', 'no-picture.jpg');
  await waitFor(() => expect(screen.getAllByTestId('photograph-page')).toHaveLength(2));
  expect(screen.getByTestId('corner-1-0').getAttribute('aria-label')).toMatch(/^Top left corner of page 1: 1\d %/);
  expect(screen.getAllByTestId('photograph-trouble').map((e) => e.textContent)).toEqual([
    expect.stringContaining('too dark'),
  ]);
  expect((await screen.findByTestId('photograph-problem')).textContent).toContain('no-picture.jpg');
});

test('pages are put in order and left out; arrow keys move a corner, and never past its neighbours', async () => {
  show(<Paper />);
  take('one.jpg', 'two.jpg');
  await waitFor(() => expect(pictures()).toEqual(['blob:one.jpg', 'blob:two.jpg']));
  fireEvent.click(screen.getByLabelText('Move page 2 one earlier'));
  expect(pictures()).toEqual(['blob:two.jpg', 'blob:one.jpg']);
  fireEvent.click(screen.getByLabelText('Remove page 1'));
  expect(pictures()).toEqual(['blob:one.jpg']);
  const across = () => Number(/(\d+) % across/.exec(screen.getByTestId('corner-1-0').getAttribute('aria-label')!)![1]);
  const before = across();
  for (let i = 0; i < 3; i++)
    fireEvent.keyDown(screen.getByTestId('corner-1-0'), { key: 'ArrowRight', shiftKey: true });
  expect(across()).toBe(before + 6);
  for (let i = 0; i < 60; i++)
    fireEvent.keyDown(screen.getByTestId('corner-1-0'), { key: 'ArrowRight', shiftKey: true });
  expect(across()).toBeLessThan(90);
});

test('they go one after another; after a failure what went is not sent twice, and all of them become one paper', async () => {
  const asked = show(<Paper />);
  take('one.jpg', 'two.jpg');
  await waitFor(() => expect(pictures()).toHaveLength(2));
  fireEvent.change(screen.getByTestId('photograph-name'), { target: { value: 'Lease' } });
  fireEvent.click(screen.getByTestId('photograph-make'));
  await waitFor(() => expect(Sent.all).toHaveLength(1));
  expect(Sent.all[0]!.url).toMatch(/^\/api\/deals\/weir\/documents\?corners=0\.1/);
  Sent.all[0]!.answer(200, { id: 'd1' });
  await waitFor(() => expect(Sent.all).toHaveLength(2));
  Sent.all[1]!.answer(503, { type: '/problems/busy', detail: 'Too much to do.', status: 503 });
  expect((await screen.findByTestId('photograph-problem')).textContent).toContain('Too much to do.');
  fireEvent.click(screen.getByTestId('photograph-make'));
  await waitFor(() => expect(Sent.all).toHaveLength(3));
  expect(Sent.all.map((s) => s.file)).toEqual(['one.jpg', 'two.jpg', 'two.jpg']);
  Sent.all[2]!.answer(200, { id: 'd2' });
  await waitFor(() => expect(pictures()).toEqual([]));
  expect(asked.find((a) => a.url.endsWith('/compose'))?.body).toMatchObject({ name: 'Lease', replaces: ['d1', 'd2'] });
});
