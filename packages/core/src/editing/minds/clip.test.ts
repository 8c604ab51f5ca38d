import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { MindDocument, ProjectDocument, StateDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { serialiseProject } from '../../model/file/serialise.ts';
import { outlineOf } from '../../model/outline.ts';
import { nightWatch } from '../../testing/demo.fixture.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';
import { applyCommand } from '../apply-command.ts';
import { findState } from './change-machine.ts';
import { CommandError } from '../commands/commands.ts';
import {
  clipText,
  declareMissing,
  missingFor,
  pasteNamed,
  pasteStates,
  readClip,
  rowsContent,
  type ClipContent,
} from './clip.ts';
import { pasteRows } from './rows.ts';

const night = nightWatch();
const ROOT = ['minds', 'keeper', 'trees', 'duty', 'root'];

/** A mind of another project, with nothing the warden has. */
function bare(): ProjectDocument {
  const document = cornerProject({
    machine: { initial: 'stand', states: [{ id: 'stand', activity: { tree: 'duty' } }] },
  });
  document.minds.keeper.trees = { duty: { root: { sequence: [{ do: 'stop' } as never] } } };
  return document;
}

const errorsOf = (document: ProjectDocument) =>
  checkDocument(document).findings.filter(({ severity }) => severity === 'error');

/** Pastes as the pages do, bringing along what is missing. */
function pasteAll(document: ProjectDocument, content: ClipContent): ProjectDocument {
  const clip = readClip(clipText(night, 'warden', content));
  const needs = declareMissing('keeper', clip, missingFor(document, 'keeper', clip));
  const commands =
    'states' in clip
      ? pasteStates(document, 'keeper', clip.states, { parent: null, at: 1 }).commands
      : 'nodes' in clip
        ? [pasteRows(document, ROOT, clip.nodes).command]
        : pasteNamed(document, 'keeper', clip)!.commands;
  return applyCommand(document, {
    command: 'several',
    what: 'pasting',
    commands: [...needs, ...commands],
  });
}

const warden = night.minds.warden;
const state = (id: string, mind: MindDocument = warden) => findState(mind.machine!.states, id)!;

describe('what is copied from one project and pasted into another', () => {
  it('brings along what it refers to, and that in turn', () => {
    const pasted = pasteAll(bare(), { states: [state('comb')] });
    const { keeper } = pasted.minds;
    expect(keeper.machine!.states.map(({ id }) => id)).toEqual(['stand', 'comb']);
    // The tree it calls, the tree that one calls, and the keys they use.
    expect(Object.keys(keeper.trees!).sort()).toEqual(['combThePlace', 'duty', 'lookAbout']);
    expect(Object.keys(keeper.memory!)).toContain('quarry');
    expect(errorsOf(pasted).filter(({ code }) => code === 'unknownName')).toEqual([]);
  });

  it('leaves out ways to states that are not there, and says which', () => {
    const clip = readClip(clipText(night, 'warden', { states: [state('comb')] }));
    expect(missingFor(bare(), 'keeper', clip).states.length).toBeGreaterThan(0);
    const pasted = pasteAll(bare(), { states: [state('comb')] });
    expect(findState(pasted.minds.keeper.machine!.states, 'comb')).not.toHaveProperty(
      'transitions',
    );
  });

  it('takes free ids, and still leads inside where it led inside', () => {
    const once = pasteAll(bare(), { states: [state('roused')] });
    const twice = pasteAll(once, { states: [state('roused')] });
    const { states } = twice.minds.keeper.machine!;
    expect(states.map(({ id }) => id)).toEqual(['stand', 'roused2', 'roused']);
    const leads = (of: StateDocument): string[] => [
      ...(of.transitions ?? []).flatMap(({ to }) => to ?? []),
      ...(of.states ?? []).flatMap(leads),
    ];
    expect(leads(findState(states, 'roused2')!).every((to) => to.endsWith('2'))).toBe(true);
  });

  it('is the same mind, under a free name', () => {
    const pasted = pasteAll(bare(), { mind: warden });
    expect(pasted.minds.warden).toEqual(warden);
    expect(pasteAll(pasted, { mind: warden }).minds.warden2).toEqual(warden);
  });

  it('keeps its form whatever part of the demo it is', () => {
    const paths = Object.keys(warden.trees!).flatMap((tree) =>
      outlineOf('warden', warden, { tree }).map(({ path }) => path),
    );
    // None of these is inside another.
    const ids = ['calm', 'chase', 'comb', 'collar'];
    const content = fc.oneof(
      fc.constantFrom(...paths).map((path) => rowsContent(night, [path])!),
      fc.subarray(ids, { minLength: 1 }).map((chosen) => ({
        states: chosen.map((id) => state(id)),
      })),
      fc.constantFrom(...Object.keys(warden.memory!)).map((key) => ({ keys: [key] })),
      fc.constantFrom(...Object.keys(warden.trees!)).map((tree) => ({ tree })),
    );
    fc.assert(
      fc.property(fc.array(content, { maxLength: 4 }), (contents) => {
        let document = bare();
        for (const each of contents) {
          document = pasteAll(document, each);
          const form = readProject(JSON.parse(serialiseProject(document)));
          expect(form.ok ? [] : form.faults).toEqual([]);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('text that is no clip', () => {
  it.each([
    ['{', /can’t be read/],
    ['{"format":"crooked-lantern/clip"}', /newer version/],
    ['{"format":"crooked-lantern/clip","version":1}', /must have one of/],
    ['{"format":"crooked-lantern/clip","version":1,"nodes":[{"sequenze":[]}]}', /is no node/],
    ['{"format":"crooked-lantern/clip","version":1,"nodes":5}', /is wrong/],
    ['{"format":"crooked-lantern/clip","version":1,"states":{"id":"a"}}', /is wrong/],
    ['{"format":"crooked-lantern/clip","version":1,"mind":{}}', /is wrong/],
    ['[]', /no part of a mind/],
  ])('is refused in words: %s', (text, words) => {
    expect(() => readClip(text)).toThrow(CommandError);
    expect(() => readClip(text)).toThrow(words);
  });
});
