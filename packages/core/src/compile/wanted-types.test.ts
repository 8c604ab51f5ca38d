import { describe, expect, it } from 'vitest';
import { wantedTypes } from './wanted-types.ts';

const memory = { quarry: { type: 'agent' }, spots: { type: 'list of point' } } as const;

describe('what fits', () => {
  it.each([
    [{ guard: true }, ['flag']],
    [{ score: true }, ['number']],
    [{ argument: 'route' }, ['route']],
    [{ number: true, unit: 's' }, ['number']],
    [{ action: { do: 'moveTo', to: '' }, parameter: 'to' }, ['point', 'agent']],
    [{ action: { do: 'moveTo', to: '' }, parameter: 'within' }, ['number']],
    [{ action: { do: 'surround', target: '' }, parameter: 'target' }, ['agent']],
    [{ action: { do: 'remember', key: 'quarry' }, parameter: 'value' }, ['agent']],
    [{ action: { do: 'add', key: 'spots' }, parameter: 'value' }, ['point']],
    [{ action: { do: 'remember', key: 'nothing' }, parameter: 'value' }, []],
  ] as const)('at %j', (place, types) => {
    const keyType = (name: string) => memory[name as keyof typeof memory]?.type;
    expect(wantedTypes(place as never, keyType) ?? []).toEqual(types);
  });
});
