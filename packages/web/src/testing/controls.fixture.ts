import { act, fireEvent, waitFor } from '@testing-library/react';
import { EditorView } from '@codemirror/view';
import { openPlace, settle, type OpenPlace } from './place.fixture.tsx';
import type { ProjectDocument } from '@crooked-lantern/core';

/** Uses every control of a page as a user would, one at a time. */

/** What is written into a field: the first of these that it takes. */
const TEXTS = ['0.7', '3', 'another'];

const CONTROLS = 'button, [role="switch"], [role="checkbox"]';
/** Opens a list of which any entry will do: what to do, or to add. */
const INSERTS = /^(Choose|Add) /;
/** Lists and dialogs that are open over the page. */
const OVER = '[role="menu"], [role="listbox"], [role="dialog"]';

function nameOf(element: Element): string {
  return element.getAttribute('aria-label') ?? element.textContent ?? '';
}

/** Controls of the page itself, or of what is open over it. */
function controlsOf(region: Element): HTMLElement[] {
  return [...region.querySelectorAll<HTMLElement>(CONTROLS)].filter(
    (control) =>
      !control.hasAttribute('disabled') && control.closest('[aria-hidden="true"]') === null,
  );
}

function key(name: string): void {
  const at = document.activeElement ?? document.body;
  fireEvent.keyDown(at, { key: name, code: name });
  fireEvent.keyUp(at, { key: name, code: name });
}

async function press(element: HTMLElement): Promise<void> {
  act(() => element.focus());
  fireEvent.click(element);
  await settle();
}

/** What is open over the page last: a list, and what could be chosen from it. */
function openList(): { isMenu: boolean; entries: HTMLElement[] } {
  const list = [...document.querySelectorAll('[role="menu"], [role="listbox"]')].at(-1);
  const entries = list?.querySelectorAll<HTMLElement>('[role^="menuitem"], [role="option"]') ?? [];
  return {
    isMenu: list?.role === 'menu',
    entries: [...entries].filter((entry) => entry.getAttribute('aria-selected') !== 'true'),
  };
}

/** Writes into the field that has been opened, where there is one. */
async function write(place: OpenPlace, region: Element): Promise<void> {
  const before = place.now();
  const editor = region.querySelector<HTMLElement>('.cm-editor');
  const view = editor && EditorView.findFromDOM(editor);
  if (view) {
    act(() => {
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: 'true' } });
    });
    fireEvent.keyDown(view.contentDOM, { key: 'Enter', code: 'Enter', keyCode: 13 });
    return settle();
  }
  const field =
    document.querySelector<HTMLInputElement>('[role="dialog"] form input') ??
    region.querySelector('input');
  if (!field) return;
  act(() => field.focus());
  for (const text of TEXTS) {
    fireEvent.change(field, { target: { value: text } });
    if (field.getAttribute('aria-invalid') === 'true') continue;
    if (field.form) fireEvent.submit(field.form);
    else key('Enter');
    await settle();
    if (place.now() !== before || !field.isConnected) return;
  }
}

/**
 * Presses each control of a part of a page, follows what it opens, and passes each document that results to `take`.
 * Each begins from the same page and document.
 * @param part the accessible name of the part
 * @param isWanted whether a control, or a command of a menu, is to be pressed, by its name and that of the menu
 */
export async function pressEachControl(
  before: ProjectDocument,
  address: string,
  part: string,
  isWanted: (name: string, menu?: string) => boolean,
  take: (document: ProjectDocument, steps: readonly string[]) => void,
): Promise<void> {
  let place: OpenPlace;
  let first: string;
  const open = async () => {
    place = await openPlace(before, address);
    // Parts of a page that are not there at once are loaded when they are opened.
    await waitFor(
      () => {
        if (!region()) throw new Error(`${address} has no part called “${part}”.`);
      },
      { timeout: 20_000 },
    );
    for (let last = ''; last !== shown();) {
      last = shown();
      await settle();
    }
    first = shown();
  };
  const region = () =>
    [...document.querySelectorAll(`[aria-label="${part}"]`)].find(
      (each) => each.querySelector(CONTROLS) !== null,
    );
  const controls = () => controlsOf(region() ?? document.createElement('div'));
  /** Where the page is, and what could be pressed there. */
  const shown = () => [place.address(), ...controls().map(nameOf)].join('\n');
  /** Presses what the steps say, one inside the other. Returns which entries of what is open then are to be pressed. */
  const follow = async (steps: readonly number[]): Promise<number[]> => {
    const names: string[] = [];
    for (const [depth, step] of steps.entries()) {
      const chosen = (depth === 0 ? controls() : openList().entries)[step];
      if (!chosen) return [];
      names.push(nameOf(chosen));
      await press(chosen);
    }
    const here = region();
    if (place.now() === before && here) await write(place, here);
    const after = place.now();
    if (after !== before) {
      take(after, names);
      return [];
    }
    const { isMenu, entries } = openList();
    const all = [...entries.keys()];
    // Each command of a menu does something else; of what can be chosen, or put in, one will do.
    return isMenu && steps.length === 1 && !INSERTS.test(names[0])
      ? all.filter((index) => isWanted(nameOf(entries[index]), names[0]))
      : all.slice(-1);
  };
  const restore = async () => {
    place.reset();
    const isOpen = document.querySelector(`${OVER}, .cm-editor, ul input, h2 input`) !== null;
    if (isOpen) {
      key('Escape');
      await settle();
    }
    if (place.now() === before && shown() === first && document.querySelector(OVER) === null)
      return;
    place.close();
    await open();
  };
  const explore = async (steps: number[]): Promise<void> => {
    const next = await follow(steps);
    await restore();
    if (steps.length > 2) return;
    for (const index of next) await explore([...steps, index]);
  };
  await open();
  const count = controls().length;
  for (let index = 0; index < count; index++) {
    if (isWanted(nameOf(controls()[index]))) await explore([index]);
  }
  place!.close();
}
