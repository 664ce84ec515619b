/** STEP out: exact solids with names and colours, in millimetres. */
import type { ExportedShape, SolidExporter } from './declare.ts';
import { moved, scope, type Occt, type TopoDS_Shape } from '../occt/occt.ts';

/** Exact solids as STEP. */
export const step: SolidExporter = {
  format: 'step',
  name: 'STEP',
  about: 'Exact solids with names and colours, in millimetres.',
  extensions: ['.step', '.stp'],
  mime: 'model/step',
  holds: 'solids',
  write: ({ time }, solids) => writeStep(solids.occt, solids.shapes(), time),
};

const FILE = '/kadrel-out.step';

/** The text of a STEP file (ISO 10303-21). @param time of writing, as ISO 8601 */
function writeStep(occt: Occt, parts: readonly ExportedShape[], time: string): string {
  return scope((keep) => {
    const text = (t: string) => keep(new occt.TCollection_ExtendedString(t, true));
    const document = keep(new occt.TDocStd_Document(text('XmlOcaf')));
    const main = keep(document.Main());
    const shapes = keep(occt.XCAFDoc_DocumentTool.ShapeTool(main));
    const colours = keep(occt.XCAFDoc_DocumentTool.ColorTool(main));
    for (const part of parts) {
      const label = keep(shapes.NewShape());
      shapes.SetShape(label, keep(moved(occt, part.shape, part.pose)));
      occt.TDataStd_Name.Set(label, text(part.name));
      const [r, g, b] = linearColour(part.colour);
      colours.SetColor(label, keep(new occt.Quantity_ColorRGBA(r, g, b, 1)), 'XCAFDoc_ColorSurf');
    }
    shapes.UpdateAssemblies();
    occt.XCAFDoc_DocumentTool.SetLengthUnit(document, 0.001);
    const writer = keep(new occt.STEPCAFControl_Writer(keep(new occt.XSControl_WorkSession()), false));
    writer.SetNameMode(true);
    writer.SetColorMode(true);
    const written = writer.Perform(document, FILE, keep(new occt.Message_ProgressRange()));
    if (!written) throw new Error('The kernel could not write the STEP file.');
    const bytes = occt.FS.readFile(FILE);
    occt.FS.unlink(FILE);
    return named(new TextDecoder().decode(bytes), time);
  });
}

/** The kernel's own header changes from run to run; ours says who wrote it and when. */
const named = (step: string, time: string) =>
  step.replace(/FILE_NAME\([\s\S]*?\);/, `FILE_NAME('kadrel','${time}',(''),(''),'Kadrel','Kadrel','');`);

/** The kernel takes linear light and writes sRGB. Source: IEC 61966-2-1. */
function linearColour(hex: string): [number, number, number] {
  const channel = (from: number) => {
    const c = parseInt(hex.slice(from, from + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  return [channel(1), channel(3), channel(5)];
}

/** Solids of a STEP file, for reading back what was written. The caller gives the shape back. */
export function readStep(occt: Occt, text: string): TopoDS_Shape {
  return scope((keep) => {
    occt.FS.writeFile(FILE, new TextEncoder().encode(text));
    const reader = keep(new occt.STEPControl_Reader());
    const status = reader.ReadFile(FILE) as unknown as string;
    occt.FS.unlink(FILE);
    if (status !== 'IFSelect_RetDone') throw new Error('This is not a STEP file that the kernel can read.');
    reader.TransferRoots(keep(new occt.Message_ProgressRange()));
    return reader.OneShape();
  });
}
