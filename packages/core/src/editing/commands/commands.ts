import type { NamedPart } from '../../model/names/named-parts.ts';
import type { DocumentPath } from '../../model/names/path-text.ts';
import type {
  GroundDocument,
  Name,
  ProjectDocument,
  Stance,
  StartDocument,
  StateDocument,
  TransitionDocument,
  WallDocument,
} from '../../model/documents.ts';

/** Every change a document can undergo. Undo, the edit log and the tests all speak these words. */
export type DocumentCommand =
  | { command: 'retitleProject'; title: string }
  /** Among the states of `parent`, or the outermost; at the end where `at` is left out. */
  | ({ command: 'insertState'; parent: Name | null; state: StateDocument; at?: number } & InMind)
  /** Fields that are undefined are removed. */
  | ({ command: 'changeState'; change: Partial<Omit<StateDocument, 'id' | 'states'>> } & InState)
  /** `at` counts the states there without it. */
  | ({ command: 'moveState'; parent: Name | null; at: number } & InState)
  /** A new state around it. */
  | ({ command: 'wrapState'; id: Name; title: string } & InState)
  | ({ command: 'removeState' } & InState)
  | ({ command: 'setInitial'; initial: Name; parent: Name | null } & InMind)
  | ({ command: 'addTransition'; transition: TransitionDocument } & InState)
  /** Fields that are undefined are removed. */
  | ({ command: 'changeTransition'; index: number; change: Partial<TransitionDocument> } & InState)
  | ({ command: 'moveTransition'; from: number; to: number } & InState)
  | ({ command: 'removeTransition'; index: number } & InState)
  | ({ command: 'removeKey'; key: Name } & InMind)
  | ({ command: 'removeTree'; tree: Name } & InMind)
  | ({ command: 'removeRules'; rules: Name } & InMind)
  | ({ command: 'removeChoice'; choice: Name } & InMind)
  /** `what` says what is changed, for undo. */
  | { command: 'changeParts'; ground: Name; changes: PartChange[]; what: string }
  /** One entry of the cast put in place of what was there, added, or (with null) taken away. */
  | ({ command: 'setInCast' } & CastChange)
  | { command: 'setStance'; of: Name; toward: Name; stance: Stance }
  /** Fields that are undefined are removed. */
  | { command: 'changeStart'; change: Partial<StartDocument> }
  | { command: 'changeGround'; ground: Name; change: GroundChange }
  /** Under another name, with all that refers to it. */
  | ({ command: 'renameInMind'; part: MindPart; name: Name; to: Name } & InMind)
  | ({ command: 'renameParameter'; tree: Name; name: Name; to: Name } & InMind)
  | ({ command: 'rename' } & Renaming)
  | PutCommand
  /** One step for undo, called `what`. */
  | { command: 'several'; commands: DocumentCommand[]; what: string };

export type { DocumentPath };

/** Another name for a part that others refer to by name. */
export interface Renaming {
  part: NamedPart;
  name: Name;
  to: Name;
  /** The set of a band. */
  of?: Name;
}

/** Any part of the document, for what has no command of its own. */
export interface PutCommand {
  command: 'put';
  /** `set` puts a value in place of what was there, or where nothing was; `insert` makes room for it in a list. */
  how: 'set' | 'insert' | 'remove';
  path: DocumentPath;
  value?: unknown;
}

/** What a mind declares by name. */
const MIND_PARTS = ['states', 'memory', 'trees', 'rules', 'choices'] as const;
export type MindPart = (typeof MIND_PARTS)[number];

/** The cast, by name. */
export const CAST_PARTS = ['archetypes', 'squads', 'factions', 'setups', 'players'] as const;
export type CastPart = (typeof CAST_PARTS)[number];
type CastDocument<P extends CastPart = CastPart> = NonNullable<ProjectDocument[P]>[Name];
export type CastChange = {
  [P in CastPart]: { part: P; name: Name; value: CastDocument<P> | null };
}[CastPart];

/** What stands on a ground by name. */
export const GROUND_PARTS = [
  'lamps',
  'gates',
  'plates',
  'things',
  'posts',
  'spawns',
  'zones',
  'routes',
  'agents',
] as const;
export type GroundPart = (typeof GROUND_PARTS)[number];
type PartDocument<P extends GroundPart = GroundPart> = NonNullable<GroundDocument[P]>[Name];

/** One part put in place of what was there, added, or (with null) taken away. Walls go by their index; the length of their list adds one. */
export type PartChange =
  | { part: 'walls'; index: number; value: WallDocument | null }
  | { [P in GroundPart]: { part: P; name: Name; value: PartDocument<P> | null } }[GroundPart];

/** Fields that are undefined are removed. */
export type GroundChange = Partial<Pick<GroundDocument, 'title' | 'width' | 'height' | 'light'>>;

interface InMind {
  mind: Name;
}

interface InState extends InMind {
  state: Name;
}

/** A command that does not fit the document; the message says why. */
export class CommandError extends Error {}
