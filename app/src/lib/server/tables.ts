import type { Unit } from '@mirrot/core';

/** The database's tables. Times are ISO 8601 in UTC; a document is JSON text. */
export interface Tables {
  projects: {
    id: string;
    name: string;
    created_at: string;
    updated_at: string;
    deleted_at: string | null;
    // What the shelf says of a project, so that it need not read its document.
    revision: number;
    /** Sheet pixels. */
    sheet_width: number;
    sheet_height: number;
    sheet_unit: Unit;
    shapes: number;
    /** Shapes that have a fill or a stroke. */
    painted: number;
    anchors: number;
    /** The word of the folder it stands in; empty for none. */
    folder: string;
    opened_at: string | null;
    /** Where its desk was left: JSON as the page sent it. */
    left_at: string | null;
    /** Mean drift as the page measured it last, picture pixels. */
    drift: number | null;
    /** The exercise that is practised in it, its truth included: JSON; null where none is. */
    exercise: string | null;
  };
  /** What was handed in of exercises. */
  attempts: {
    id: string;
    exercise_id: string;
    project_id: string | null;
    created_at: string;
    /** Time at work, pauses left out. */
    seconds: number;
    presses: number;
    /** How near it lies to the truth: JSON. */
    score: string;
    /** What was drawn, pixels of the picture: SVG path data. */
    lines: string;
    /** The drawing's revision then; null where that was not kept. */
    revision: number | null;
    /** 1 where it came with a bundle: it is told of in its own project alone. */
    from_bundle: number;
  };
  /** The drawing as it was at a revision (JSON, mostly deflated); the journal after it leads to what it is. */
  documents: { project_id: string; revision: number; art: string | Buffer };
  /** What a project's drawing was when it was made (JSON, deflated): replayed from there. */
  beginnings: { project_id: string; revision: number; art: string | Buffer };
  journal: {
    project_id: string;
    revision: number;
    batch: string | null;
    /** The patches and what they were to the history: JSON, deflated. */
    entry: Buffer;
    /** Version of the document that the patches fit. */
    version: number;
    created_at: string;
  };
  blobs: { sha256: string; format: string; bytes: Buffer };
  renditions: { sha256: string; size: string; type: string; bytes: Buffer };
  /** Squared up renditions, by what was squared up (a hash). */
  straightened: {
    sha256: string;
    size: string;
    square: string;
    type: string;
    bytes: Buffer;
    created_at: string;
  };
  pictures: {
    id: string;
    sha256: string;
    name: string;
    width: number;
    height: number;
    ppi: number | null;
    created_at: string;
  };
  /** Which projects use a picture: it stays for as long as one does. */
  held_pictures: { project_id: string; picture_id: string };
  /** Font files that texts of a project are set in: TTF, OTF or WOFF, as they came. */
  fonts: { id: string; project_id: string; name: string; bytes: Buffer; created_at: string };
  thumbs: { project_id: string; revision: number; bytes: Buffer };
  copies: {
    id: string;
    project_id: string;
    name: string;
    revision: number;
    /** JSON, mostly deflated. */
    art: string | Buffer;
    created_at: string;
    note: string;
    /** Whether the server kept it by itself: 1, else 0. */
    by_itself: number;
  };
}
