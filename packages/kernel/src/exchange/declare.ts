/** What a format that Kadrel writes is: declared once, for the page and the headless runner alike. */
import type { ItemId, KadrelDocument, Pose } from '@kadrel/core';
import type { Mesh } from '../facts/mesh.ts';
import type { Occt, TopoDS_Shape } from '../occt/occt.ts';

/** What is written. */
export interface Exporting {
  readonly document: KadrelDocument;
  readonly parts: readonly ItemId[];
  /** Of facets: greatest distance from the true surface. */
  readonly chordMm: number;
  /** Of writing, as ISO 8601 without fractions of a second. */
  readonly time: string;
}

/** A solid in a file, with what it is called there. */
interface Exported {
  readonly name: string;
  /** #rrggbb */
  readonly colour: string;
  /** Carries it to the world. */
  readonly pose: Pose;
}
/** An exact solid that is written. */
export interface ExportedShape extends Exported {
  readonly shape: TopoDS_Shape;
}
/** Facets that are written. */
export interface ExportedMesh extends Exported {
  readonly mesh: Mesh;
}

/** The solids of what is written: of patterns and groups each of those that they consist of. Both throw BuildError. */
export interface Solids {
  readonly occt: Occt;
  shapes(): ExportedShape[];
  /** Within the chord tolerance that is asked for. */
  meshes(): ExportedMesh[];
}

interface Described {
  readonly format: string;
  readonly name: string;
  /** One line for whoever chooses. */
  readonly about: string;
  /** With their point, in lower case; the first is what files are called. */
  readonly extensions: readonly string[];
  readonly mime: string;
}

/** A format that holds solids. */
export interface SolidExporter extends Described {
  readonly holds: 'solids';
  /** It holds facets, so that a chord tolerance is asked for. */
  readonly hasChord?: true;
  /** Throws BuildError. */
  write(exporting: Exporting, solids: Solids): string | Uint8Array;
}

/** What needs no kernel. */
export interface PlainExporter extends Described {
  /** Profiles in one plane, or the whole document. */
  readonly holds: 'outlines' | 'document';
  /** Throws FormatError. */
  write(exporting: Pick<Exporting, 'document' | 'parts'>): string;
}

/** A format that is written. */
export type Exporter = SolidExporter | PlainExporter;
