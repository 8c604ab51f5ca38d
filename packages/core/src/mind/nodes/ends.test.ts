import { describe, expect, it } from 'vitest';
import { checkProject } from '../../findings/check-project.ts';
import type { NodeDocument } from '../../model/documents.ts';
import { cornerProject } from '../../testing/orchard.fixture.ts';

/** What can be told of each kind of node before anything runs, as the findings tell it. */

function findingsOf(root: NodeDocument) {
  const document = cornerProject({ memory: { n: { type: 'number', default: 1 } } });
  document.minds.keeper.activity = { tree: 'main' };
  document.minds.keeper.trees = {
    main: { root },
    quick: { root: { do: 'say', text: 'Hm' } },
    slow: { root: { do: 'wait', seconds: 3 } },
  };
  document.minds.keeper.rules = { always: { rows: [{ when: 'n > 0', do: [{ do: 'stop' }] }] } };
  document.minds.keeper.choices = {
    once: {
      once: true,
      options: [
        { id: 'a', does: { do: 'wait', seconds: 2 } },
        { id: 'b', does: { do: 'wait', seconds: 1.5 } },
      ],
    },
    onceLost: { once: true, options: [{ id: 'a', does: { fail: { do: 'wait', seconds: 2 } } }] },
    onceEither: {
      once: true,
      options: [
        { id: 'a', does: { fail: { do: 'wait', seconds: 2 } } },
        { id: 'b', does: { do: 'say', text: 'Hm' } },
      ],
    },
    again: { options: [{ id: 'a', does: { do: 'wait', seconds: 2 } }] },
  };
  const { findings } = checkProject(document);
  expect(findings.filter(({ severity }) => severity === 'error')).toEqual([]);
  return findings.filter(({ path }) => path.startsWith('minds.keeper.trees.main'));
}

const say: NodeDocument = { do: 'say', text: 'Next' };

/** Which ends a node can come to, the least seconds until it succeeds, and whether it can run on. */
function told(node: NodeDocument): string {
  const isReached = (root: NodeDocument) =>
    !findingsOf(root).some(
      ({ code, message }) => code === 'unreachable' && message.startsWith('“Say Next”'),
    );
  const ends = [
    isReached({ sequence: [node, say] }) ? 'success' : '',
    isReached({ selector: [node, say] }) ? 'failure' : '',
  ].filter(Boolean);
  const coupled = findingsOf({ timeout: node, seconds: 0.01 } as NodeDocument).find(
    ({ code, path }) => code === 'coupled' && path.endsWith('root.seconds'),
  );
  const least = /needs ([\d.]+) s/.exec(coupled?.message ?? '')?.[1] ?? '0';
  const runsOn = !findingsOf({ repeat: node } as NodeDocument).some(
    ({ code, path }) => code === 'endless' && path.endsWith('main.root'),
  );
  return `${ends.join(' or ') || 'no end'}, ${least} s, ${runsOn ? 'runs on' : 'at once'}`;
}

const wait = (seconds: number): NodeDocument => ({ do: 'wait', seconds });

describe('what can be told of a node', () => {
  it.each<[NodeDocument, string]>([
    [say, 'success, 0 s, at once'],
    [wait(2), 'success, 2 s, runs on'],
    [{ do: 'wait', seconds: 'n' }, 'success or failure, 0 s, runs on'],
    [{ do: 'turn', by: 90 }, 'success or failure, 0 s, runs on'],
    [{ sequence: [wait(1), wait(2)] }, 'success, 3 s, runs on'],
    [{ sequence: [say, say] }, 'success, 0 s, at once'],
    [{ sequence: [wait(1), { fail: say }] }, 'failure, 1 s, runs on'],
    [{ sequence: [{ do: 'turn', by: 90 }, { fail: say }] }, 'failure, 0 s, runs on'],
    [{ selector: [{ do: 'turn', by: 90 }, wait(2)] }, 'success, 0 s, runs on'],
    [
      {
        selector: [
          { do: 'turn', by: 9 },
          { do: 'turn', by: 9 },
        ],
      },
      'success or failure, 0 s, runs on',
    ],
    [{ selector: [{ fail: wait(3) }, { fail: say }] }, 'failure, 0 s, runs on'],
    [{ parallel: [wait(1), wait(2)] }, 'success, 2 s, runs on'],
    [{ parallel: [wait(3), wait(2)], successes: 1 }, 'success, 2 s, runs on'],
    [{ parallel: [wait(3), wait(1), wait(2)], successes: 2 }, 'success, 2 s, runs on'],
    [{ parallel: [wait(3), { fail: say }], successes: 1 }, 'success or failure, 0 s, runs on'],
    [{ parallel: [wait(3), { fail: say }] }, 'failure, 3 s, runs on'],
    [{ parallel: [say, say], successes: 3 }, 'failure, 0 s, at once'],
    [{ parallel: [say, say] }, 'success, 0 s, at once'],
    [{ random: [wait(2), wait(1)] }, 'success or failure, 1 s, runs on'],
    [{ condition: 'n > 0' }, 'success or failure, 0 s, at once'],
    [{ condition: 'true' }, 'success, 0 s, at once'],
    [{ condition: 'false' }, 'failure, 0 s, at once'],
    [{ invert: wait(2) }, 'failure, 0 s, runs on'],
    [{ invert: { fail: wait(2) } }, 'success, 0 s, runs on'],
    [{ succeed: { do: 'turn', by: 9 } }, 'success, 0 s, runs on'],
    [{ succeed: wait(2) }, 'success, 2 s, runs on'],
    [{ fail: wait(2) }, 'failure, 0 s, runs on'],
    [{ fail: say }, 'failure, 0 s, at once'],
    [{ delay: wait(1), seconds: 2 }, 'success, 3 s, runs on'],
    [{ delay: say, seconds: 2 }, 'success, 2 s, runs on'],
    [{ delay: say, seconds: 'n' }, 'success or failure, 0 s, runs on'],
    [{ timeout: wait(1), seconds: 2 }, 'success or failure, 1 s, runs on'],
    [{ cooldown: wait(1), seconds: 2 }, 'success or failure, 1 s, runs on'],
    [{ cooldown: say, seconds: 2 }, 'success or failure, 0 s, at once'],
    [{ limit: wait(1), times: 2 }, 'success or failure, 1 s, runs on'],
    [{ chance: wait(1), probability: 0.5 }, 'success or failure, 1 s, runs on'],
    [{ repeat: wait(1), times: 3 }, 'success, 3 s, runs on'],
    [{ repeat: { cooldown: wait(1), seconds: 2 }, times: 3 }, 'success, 7 s, runs on'],
    [{ repeat: { cooldown: wait(1), seconds: 'n' }, times: 3 }, 'success, 3 s, runs on'],
    [{ repeat: { timeout: wait(1), seconds: 9 }, times: 3 }, 'success, 3 s, runs on'],
    [{ repeat: wait(1) }, 'no end, 1 s, runs on'],
    [{ repeat: wait(1), until: 'success' }, 'success, 1 s, runs on'],
    [
      { repeat: { do: 'turn', by: 9 }, until: 'failure', times: 2 },
      'success or failure, 0 s, runs on',
    ],
    [{ repeat: wait(1), until: 'failure', times: 2 }, 'failure, 1 s, runs on'],
    [{ tree: 'quick' }, 'success, 0 s, at once'],
    [{ tree: 'slow' }, 'success, 3 s, runs on'],
    [{ rules: 'always' }, 'no end, 0 s, runs on'],
    [{ choice: 'once' }, 'success or failure, 1.5 s, runs on'],
    [{ choice: 'onceLost' }, 'failure, 0 s, runs on'],
    [{ choice: 'onceEither' }, 'success or failure, 0 s, runs on'],
    [{ choice: 'again' }, 'no end, 0 s, runs on'],
    [{ ...wait(2), when: 'n > 0' } as NodeDocument, 'success or failure, 2 s, runs on'],
  ])('%j: %s', (node, expected) => {
    expect(told(node)).toBe(expected);
  });
});
