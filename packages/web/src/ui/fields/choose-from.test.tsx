// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { createRef } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { ChooseFrom } from './choose-from.tsx';

afterEach(cleanup);

function open(...names: string[]) {
  const chosen: string[] = [];
  const at = createRef<HTMLButtonElement>();
  render(
    <>
      <button ref={at}>Here</button>
      <ChooseFrom
        label="Insert"
        at={at}
        choices={names.map((name) => ({ id: name.toLowerCase(), name, about: `does ${name}` }))}
        onChoose={(id) => chosen.push(id)}
        onClose={() => {}}
      />
    </>,
  );
  return { chosen, search: screen.getByRole('searchbox') };
}

describe('a list to choose from', () => {
  it('gives its first entry on Enter, also where there is one', () => {
    const one = open('Chase');
    fireEvent.keyDown(one.search, { key: 'Enter' });
    expect(one.chosen).toEqual(['chase']);
    cleanup();
    const several = open('Chase', 'Comb', 'Wait');
    fireEvent.keyDown(several.search, { key: 'Enter' });
    expect(several.chosen).toEqual(['chase']);
  });

  it('gives one entry, however often Enter is heard', () => {
    const { chosen, search } = open('Chase', 'Comb');
    fireEvent.change(search, { target: { value: 'comb' } });
    fireEvent.keyDown(search, { key: 'Enter' });
    fireEvent.keyDown(search, { key: 'Enter' });
    fireEvent.click(screen.getByText('Comb'));
    expect(chosen).toEqual(['comb']);
  });

  it('gives nothing where nothing is found', () => {
    const { chosen, search } = open('Chase', 'Comb');
    fireEvent.change(search, { target: { value: 'sing' } });
    fireEvent.keyDown(search, { key: 'Enter' });
    expect(chosen).toEqual([]);
  });
});
