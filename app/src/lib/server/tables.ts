import type { Generated } from 'kysely';

/** The database's tables. Times are ISO 8601 in UTC; documents and patches are JSON text. */
export interface Tables {
  projects: {
    id: string;
    name: string;
    created_at: string;
    updated_at: string;
    deleted_at: string | null;
  };
  documents: { project_id: string; revision: number; art: string };
  journal: {
    id: Generated<number>;
    project_id: string;
    revision: number;
    batch: string | null;
    patches: string;
    /** What the change was to the history, JSON; null when its sender did not say. */
    note: string | null;
    created_at: string;
  };
  blobs: { sha256: string; format: string; bytes: Buffer };
  renditions: { sha256: string; size: string; type: string; bytes: Buffer };
  pictures: {
    id: string;
    project_id: string;
    sha256: string;
    name: string;
    width: number;
    height: number;
    ppi: number | null;
    created_at: string;
  };
  copies: {
    id: string;
    project_id: string;
    name: string;
    revision: number;
    art: string;
    created_at: string;
  };
}
