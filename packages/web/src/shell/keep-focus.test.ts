// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { keepFocus } from './keep-focus.ts';

let stop: () => void;
beforeEach(() => {
  vi.useFakeTimers();
  document.body.innerHTML = `
    <header><a id="home" href="/">Home</a></header>
    <main>
      <ul>
        <li><button id="a">a</button></li>
        <li><button id="b">b</button></li>
        <li><button id="c">c</button></li>
      </ul>
      <button id="add">Add</button>
    </main>`;
  stop = keepFocus();
});
afterEach(() => {
  stop();
  vi.useRealTimers();
});

const at = (id: string) => document.getElementById(id)!;

/** Does something, and lets pass what the page is given to put the focus back itself. */
async function after(work: () => void): Promise<string> {
  work();
  await vi.advanceTimersByTimeAsync(200);
  return (document.activeElement as HTMLElement).id;
}

it('goes to the next where what had the focus was removed, to the one before where there is none', async () => {
  at('b').focus();
  expect(await after(() => at('b').closest('li')!.remove())).toBe('c');
  expect(await after(() => at('c').closest('li')!.remove())).toBe('a');
});

it('goes to what is near where all of a list was removed, or a button can’t be pressed any more', async () => {
  at('a').focus();
  expect(await after(() => document.querySelector('ul')!.remove())).toBe('add');
});

it('stays nowhere where another page took the place of the whole', async () => {
  at('a').focus();
  expect(await after(() => document.querySelector('main')!.remove())).toBe('');
});

it('stays where something else took it, and where one has left it', async () => {
  at('a').focus();
  const taken = await after(() => {
    at('a').closest('li')!.remove();
    at('add').focus();
  });
  expect(taken).toBe('add');
  expect(await after(() => at('add').blur())).toBe('');
});
