import {
  isObject,
  writtenSpace,
  type GroundDocument,
  type PartChange,
} from '@crooked-lantern/core';
import { useCallback, useMemo, useState } from 'react';
import { useAppDispatch, useProject } from '../../state/store.ts';
import { perform } from '../../state/perform.ts';
import { readKept } from '../../state/kept-settings.ts';
import {
  changeOf,
  copyOf,
  freshPartName,
  keyOf,
  LAYERS,
  layerOf,
  moved,
  partAt,
  SINGULAR,
  titleOf,
  type AnyPart,
  type LayerId,
  type PartRef,
} from './parts.ts';
import { whyNotHere, whyNotMoved } from './placing.ts';

/** Layers that are not drawn, and those that clicks pass through. */
export interface LayerSwitches {
  hidden: LayerId[];
  locked: LayerId[];
}

const STORED_AS = 'crooked-lantern.layers';

const isLayers = (value: unknown): value is LayerId[] =>
  Array.isArray(value) && value.every((layer) => LAYERS.some(({ id }) => id === layer));

function isSwitches(value: unknown): value is LayerSwitches {
  return isObject(value) && isLayers(value.hidden) && isLayers(value.locked);
}

function storedLayers(): LayerSwitches {
  return readKept(STORED_AS, isSwitches) ?? { hidden: [], locked: [] };
}

function useLayers() {
  const [layers, setLayers] = useState(storedLayers);
  const toggle = useCallback((what: keyof LayerSwitches, layer: LayerId) => {
    setLayers((before) => {
      const on = before[what].includes(layer);
      const after = {
        ...before,
        [what]: on ? before[what].filter((other) => other !== layer) : [...before[what], layer],
      };
      localStorage.setItem(STORED_AS, JSON.stringify(after));
      return after;
    });
  }, []);
  return { layers, toggle };
}

function counted(refs: readonly PartRef[], ground: GroundDocument): string {
  return refs.length === 1 ? titleOf(ground, refs[0]) : `${refs.length} parts`;
}

/** What is chosen on the started ground, and what can be done with it. Each change is one step of undo. */
export function useGroundEditor() {
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const name = document.start.ground;
  const ground = document.grounds[name];
  const [chosenKeys, setChosenKeys] = useState<PartRef[]>([]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { layers, toggle } = useLayers();
  const space = useMemo(() => writtenSpace(ground), [ground]);
  // What was chosen may be gone by an undo.
  const chosen = useMemo(
    () => chosenKeys.filter((ref) => partAt(ground, ref) !== undefined),
    [ground, chosenKeys],
  );
  const here = useMemo(() => ({ document, ground, space }), [document, ground, space]);

  const change = useCallback(
    (changes: PartChange[], what: string): boolean => {
      const message = dispatch(perform({ command: 'changeParts', ground: name, changes, what }));
      setTrouble(message);
      return message === null;
    },
    [dispatch, name],
  );

  const choose = useCallback((refs: PartRef[]) => {
    setChosenKeys(refs);
    setTrouble(null);
  }, []);

  /** Puts a part in place of what was there; why it can't be is said and nothing changes. */
  const put = useCallback(
    (ref: PartRef, part: AnyPart): boolean => {
      const reason = whyNotHere(here, ref, part);
      if (reason) {
        setTrouble(`${titleOf(ground, ref)} can’t be there: ${reason}.`);
        return false;
      }
      return change([changeOf(ref, part)], titleOf(ground, ref));
    },
    [here, ground, change],
  );

  const add = useCallback(
    (kind: PartRef['kind'], stem: string, part: AnyPart): boolean => {
      const ref = { kind, name: freshPartName(ground, kind, stem) };
      const reason = whyNotHere(here, ref, part);
      if (reason) {
        setTrouble(`No ${SINGULAR[kind]} there: ${reason}.`);
        return false;
      }
      if (!change([changeOf(ref, part)], `new ${SINGULAR[kind]}`)) return false;
      setChosenKeys([ref]);
      return true;
    },
    [here, ground, change],
  );

  const moveBy = useCallback(
    (refs: readonly PartRef[], dx: number, dy: number) => {
      const move = (part: AnyPart) => moved(part, dx, dy);
      const reason = whyNotMoved(here, refs, move);
      if (reason) return setTrouble(`Not moved: ${reason}.`);
      change(
        refs.map((ref) => changeOf(ref, move(partAt(ground, ref)!))),
        `place of ${counted(refs, ground)}`,
      );
    },
    [here, ground, change],
  );

  const remove = useCallback(() => {
    if (chosen.length === 0) return;
    change(
      chosen.map((ref) => changeOf(ref, null)),
      `removal of ${counted(chosen, ground)}`,
    );
    setChosenKeys([]);
  }, [chosen, ground, change]);

  /** Copies beside what is chosen, a metre to the right and down, or where there is room. */
  const duplicate = useCallback(() => {
    if (chosen.length === 0) return;
    const shift = [1, 0.5, 1.5, -1, -1.5, 2, -2].find(
      (by) => whyNotMoved(here, chosen, (part) => moved(part, by, by)) === null,
    );
    if (shift === undefined) return setTrouble('There is no room for a copy beside it.');
    let working = ground;
    const copies: { ref: PartRef; part: AnyPart }[] = [];
    for (const ref of chosen) {
      const copy = copyOf(working, ref, shift);
      copies.push(copy);
      working = withPart(working, copy.ref, copy.part);
    }
    const done = change(
      copies.map(({ ref, part }) => changeOf(ref, part)),
      `copy of ${counted(chosen, ground)}`,
    );
    if (done) setChosenKeys(copies.map(({ ref }) => ref));
  }, [chosen, here, ground, change]);

  const isFree = useCallback(
    ({ kind }: PartRef) => {
      const layer = layerOf(kind);
      return !layers.hidden.includes(layer) && !layers.locked.includes(layer);
    },
    [layers],
  );

  return {
    document,
    name,
    ground,
    space,
    chosen,
    chosenSet: useMemo(() => new Set(chosen.map(keyOf)), [chosen]),
    choose,
    put,
    add,
    moveBy,
    remove,
    duplicate,
    trouble,
    setTrouble,
    layers,
    toggle,
    isFree,
    here,
  };
}

export type GroundEditor = ReturnType<typeof useGroundEditor>;

function withPart(ground: GroundDocument, { kind, name }: PartRef, part: AnyPart): GroundDocument {
  if (kind === 'walls') return { ...ground, walls: [...ground.walls, part as never] };
  return { ...ground, [kind]: { ...ground[kind], [name]: part } };
}
