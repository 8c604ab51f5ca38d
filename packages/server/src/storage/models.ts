import type { ProjectDocument } from '@crooked-lantern/core';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export interface ProjectRow extends Model<
  InferAttributes<ProjectRow>,
  InferCreationAttributes<ProjectRow>
> {
  id: string;
  title: string;
  /** Number of the latest edit. */
  edit: number;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
  deletedAt: CreationOptional<Date | null>;
}

interface EditRow extends Model<InferAttributes<EditRow>, InferCreationAttributes<EditRow>> {
  projectId: string;
  number: number;
  document: ProjectDocument;
  /** What people call it; null for most. */
  name: CreationOptional<string | null>;
  /** What it changed, in words; null where that was not said. */
  what: CreationOptional<string | null>;
  createdAt: CreationOptional<Date>;
}

export interface Models {
  Project: ModelStatic<ProjectRow>;
  Edit: ModelStatic<EditRow>;
}

export function defineModels(sequelize: Sequelize): Models {
  const Project = sequelize.define<ProjectRow>(
    'project',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      title: { type: DataTypes.TEXT, allowNull: false },
      edit: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: DataTypes.DATE,
      updatedAt: DataTypes.DATE,
      deletedAt: DataTypes.DATE,
    },
    { tableName: 'projects', underscored: true, paranoid: true },
  );
  const Edit = sequelize.define<EditRow>(
    'edit',
    {
      projectId: { type: DataTypes.TEXT, primaryKey: true },
      number: { type: DataTypes.INTEGER, primaryKey: true },
      document: { type: DataTypes.JSON, allowNull: false },
      name: DataTypes.TEXT,
      what: DataTypes.TEXT,
      createdAt: DataTypes.DATE,
    },
    { tableName: 'edits', underscored: true, updatedAt: false },
  );
  return { Project, Edit };
}
