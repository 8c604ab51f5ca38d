import { EventEmitter } from 'node:events';
import type { GroundDocument, ProjectDocument } from '@crooked-lantern/core';
import { cast, col, Op, UniqueConstraintError, where as compared } from 'sequelize';
import { Problem } from '../problem.ts';
import type { Database } from './database.ts';
import type { ProjectRow } from './models.ts';

interface ProjectSummary {
  id: string;
  title: string;
  note?: string;
  edit: number;
  minds: number;
  agents: number;
  createdAt: string;
  updatedAt: string;
  /** The ground a run begins on, for a small drawing; absent where the document names none that exists. */
  ground?: GroundDocument;
}

export interface StoredProject {
  id: string;
  edit: number;
  updatedAt: string;
  document: ProjectDocument;
}

interface EditSummary {
  number: number;
  /** The same for edits of the same document, so that an undo can be told from a change. */
  digest: string;
  createdAt: string;
  /** What people call it; absent for most. */
  name?: string;
  /** What it changed, in words; absent where that was not said. */
  what?: string;
}

/** An edit that was just added, as windows that have its project open are told. */
interface SavedEdit {
  edit: number;
  updatedAt: string;
}

export interface ProjectStore {
  /** So many projects from the one at `offset`, latest first, and how many there are in all. */
  list(offset: number, limit: number): Promise<{ projects: ProjectSummary[]; total: number }>;
  read(id: string): Promise<StoredProject>;
  create(document: ProjectDocument): Promise<StoredProject>;
  /**
   * Adds an edit on top of edit `basedOn`; throws a stale-edit Problem where that is not the latest. `what`: what it
   * changes, in words; null where that is not said.
   */
  write(
    id: string,
    basedOn: number,
    document: ProjectDocument,
    what: string | null,
  ): Promise<StoredProject>;
  /** The latest edit, without its document. */
  latest(id: string): Promise<SavedEdit>;
  /** Calls `onSaved` after each edit that this store adds to a project. Returns a cancel function. */
  watch(id: string, onSaved: (saved: SavedEdit) => void): () => void;
  remove(id: string): Promise<void>;
  restore(id: string): Promise<void>;
  /**
   * So many edits before edit `before` (left out: from the latest on), latest first, and how many there are further
   * back; with `find` only those whose name, number or words hold that text.
   */
  edits(
    id: string,
    page: { before?: number; find?: string; limit: number },
  ): Promise<{ edits: EditSummary[]; more: number }>;
  readEdit(id: string, number: number): Promise<StoredProject>;
  /** Names an edit; null removes its name. */
  nameEdit(id: string, number: number, name: string | null): Promise<void>;
  isEmpty(): Promise<boolean>;
}

/** The title in lower-case letters and digits, words joined by hyphens. */
export function slug(title: string): string {
  const words = title
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/['’]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return words.slice(0, 60) || 'project';
}

function missing(id: string): Problem {
  return new Problem('not-found', `There is no project “${id}”. It may have been deleted.`);
}

function summaryOf(project: ProjectRow, document: ProjectDocument): ProjectSummary {
  const ground: GroundDocument | undefined = document.grounds[document.start.ground];
  return {
    id: project.id,
    title: project.title,
    edit: project.edit,
    minds: Object.keys(document.minds).length,
    agents: Object.keys(ground?.agents ?? {}).length,
    createdAt: project.createdAt.toISOString(),
    updatedAt: project.updatedAt.toISOString(),
    note: document.note,
    ground,
  };
}

/** Edits that are called, numbered or described by a text. */
function saying(text: string) {
  // What a pattern takes for a wildcard is meant as it is written.
  const pattern = `%${text.replace(/[\\%_]/g, '\\$&')}%`;
  const number = /^(?:edit )?(\d{1,9})$/i.exec(text.trim())?.[1];
  return [
    { name: { [Op.iLike]: pattern } },
    { what: { [Op.iLike]: pattern } },
    ...(number === undefined
      ? []
      : [compared(cast(col('number'), 'text'), { [Op.like]: `${number}%` })]),
  ];
}

export function createProjectStore({
  sequelize,
  models: { Project, Edit },
}: Database): ProjectStore {
  const saved = new EventEmitter<Record<string, [SavedEdit]>>();
  // Any number of windows may have one project open.
  saved.setMaxListeners(0);

  async function findProject(id: string): Promise<ProjectRow> {
    const project = await Project.findByPk(id);
    if (!project) throw missing(id);
    return project;
  }

  async function readAt(id: string, number: number, updatedAt: Date): Promise<StoredProject> {
    const edit = await Edit.findOne({ where: { projectId: id, number } });
    if (!edit) throw new Problem('not-found', `Project “${id}” has no edit ${number}.`);
    return { id, edit: number, updatedAt: updatedAt.toISOString(), document: edit.document };
  }

  async function read(id: string): Promise<StoredProject> {
    const project = await findProject(id);
    return readAt(id, project.edit, project.updatedAt);
  }

  async function insert(id: string, document: ProjectDocument): Promise<StoredProject> {
    return sequelize.transaction(async (transaction) => {
      const project = await Project.create({ id, title: document.title, edit: 1 } as never, {
        transaction,
      });
      await Edit.create({ projectId: id, number: 1, document } as never, { transaction });
      return { id, edit: 1, updatedAt: project.updatedAt.toISOString(), document };
    });
  }

  return {
    async list(offset, limit) {
      const { rows, count } = await Project.findAndCountAll({
        offset,
        limit,
        order: [
          ['updatedAt', 'DESC'],
          ['id', 'ASC'],
        ],
      });
      // One query for all documents, however many projects there are.
      const edits = await Edit.findAll({
        where: { [Op.or]: rows.map(({ id, edit }) => ({ projectId: id, number: edit })) },
      });
      const documents = new Map(edits.map(({ projectId, document }) => [projectId, document]));
      const projects = rows.flatMap((project): ProjectSummary[] => {
        const document = documents.get(project.id);
        return document ? [summaryOf(project, document)] : [];
      });
      return { projects, total: count };
    },

    read,

    async create(document) {
      const base = slug(document.title);
      for (let attempt = 1; ; attempt++) {
        try {
          return await insert(attempt === 1 ? base : `${base}-${attempt}`, document);
        } catch (error) {
          if (!(error instanceof UniqueConstraintError) || attempt > 1000) throw error;
        }
      }
    },

    async write(id, basedOn, document, what) {
      const stored = await sequelize.transaction(async (transaction) => {
        const project = await Project.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (!project) throw missing(id);
        if (project.edit !== basedOn) {
          throw new Problem(
            'stale-edit',
            `This is based on edit ${basedOn}; the latest is ${project.edit}. Nothing was overwritten.`,
            {
              currentEdit: project.edit,
            },
          );
        }
        const edit = basedOn + 1;
        await Edit.create({ projectId: id, number: edit, document, what } as never, {
          transaction,
        });
        await project.update({ edit, title: document.title }, { transaction });
        return { id, edit, updatedAt: project.updatedAt.toISOString(), document };
      });
      saved.emit(id, { edit: stored.edit, updatedAt: stored.updatedAt });
      return stored;
    },

    async latest(id) {
      const { edit, updatedAt } = await findProject(id);
      return { edit, updatedAt: updatedAt.toISOString() };
    },

    watch(id, onSaved) {
      saved.on(id, onSaved);
      return () => saved.off(id, onSaved);
    },

    async remove(id) {
      const count = await Project.destroy({ where: { id } });
      if (count === 0) throw missing(id);
    },

    async restore(id) {
      const project = await Project.findByPk(id, { paranoid: false });
      if (!project) throw missing(id);
      await project.restore();
    },

    async edits(id, { before, find, limit }) {
      await findProject(id);
      const where = {
        projectId: id,
        ...(before !== undefined && { number: { [Op.lt]: before } }),
        ...(find !== undefined && { [Op.or]: saying(find) }),
      };
      const { rows, count } = await Edit.findAndCountAll({
        where,
        attributes: ['number', 'createdAt', 'name', 'what', [col('digest'), 'digest']],
        order: [['number', 'DESC']],
        limit,
      });
      const edits = rows.map((edit) => ({
        number: edit.number,
        createdAt: edit.createdAt.toISOString(),
        digest: String(edit.get('digest')),
        ...(edit.name !== null && { name: edit.name }),
        ...(edit.what !== null && { what: edit.what }),
      }));
      return { edits, more: count - edits.length };
    },

    async readEdit(id, number) {
      const project = await findProject(id);
      return readAt(id, number, project.updatedAt);
    },

    async nameEdit(id, number, name) {
      const [count] = await Edit.update({ name }, { where: { projectId: id, number } });
      if (count === 0) throw new Problem('not-found', `Project “${id}” has no edit ${number}.`);
    },

    async isEmpty() {
      return (await Project.count({ paranoid: false })) === 0;
    },
  };
}
